"""Why two boards part, and which single setting brings them together: told from what they do, and tried."""

from django.test import SimpleTestCase

from tests.builders import case_twin, demo_board, demo_family, record, small_board, small_family, twin_of
from twincore import behaviour, profile
from twincore.behaviour import CounterCase, Twin, make_twin, prove, why
from twincore.carry_over.closest import Closest, closest, rate
from twincore.carry_over.single import Single, single_settings


def parted(twin: Twin) -> CounterCase:
    """The counter-case of a twin that is off register."""
    case = prove(twin).counter_case
    assert case is not None
    return case


class Why(SimpleTestCase):
    def test_what_each_does_after_the_last_change_and_no_earlier(self) -> None:
        twin = case_twin("oven-lockout-forgotten")
        one, other = why(twin, parted(twin))
        # locked out before the power was lost, and again as it is back: nothing is done then
        self.assertEqual((one.does, one.states, one.waits), ((), ("lockout",), ()))
        (move,) = other.does
        self.assertEqual((move.left, move.entered, move.at), ("standby", "prove", 30))
        self.assertEqual(move.transition.conditions[0][0], "call")

    def test_a_timer_with_its_function_and_what_the_other_still_waits_for(self) -> None:
        board = demo_board("TVH-2210-B")
        long, short = record(board, S1="001110"), record(board, S1="001010")
        twin = make_twin(board, long, board, short, demo_family())
        one, other = why(twin, parted(twin))
        both = [*one.does, *one.waits, *other.does, *other.waits]
        times = {(move.transition.after, tuple(move.values.items())) for move in both if move.transition.after}
        self.assertTrue(any(isinstance(after, str) and values for after, values in times), times)

    def test_a_threshold_that_a_function_sets_is_told_with_it(self) -> None:
        family = small_family()
        family["inputs"].append({"id": "temp", "level": True, "unit": "°C", "from": 0, "to": 90})
        states = [
            {"s": {"go": [{"to": "t", "if": {"temp": {"from": at}}}]}, "t": {"on": ["x"], "go": []}} for at in (30, 33)
        ]
        boards = [small_board({"start": "s", "states": each}, f"S-{n}") for n, each in enumerate(states, 1)]
        one, other = why(twin := twin_of(family, boards), parted(twin))
        self.assertEqual([move.entered for move in one.does], ["t"])
        self.assertEqual((other.does, other.states), ((), ("s",)))


class OneSetting(SimpleTestCase):
    def tried(self, board: profile.Board, found: profile.Record, set_as: profile.Record) -> list[Single]:
        def twin_with(given: profile.Record) -> Twin:
            return make_twin(board, found, board, given, demo_family())

        return single_settings(set_as, parted(twin_with(set_as)), twin_with)

    def test_the_one_switch_that_stands_otherwise_is_found(self) -> None:
        board = demo_board("TVH-2210-B")
        found_again = 0
        for place in range(1, 7):
            found = record(board, S1="010110")
            wrong = "".join(str(1 - int(c)) if n == place else c for n, c in enumerate("010110", 1))
            set_as = record(board, S1=wrong)
            if prove(make_twin(board, found, board, set_as, demo_family())).counter_case is None:
                continue
            points = {(each.point, each.position) for each in self.tried(board, found, set_as)}
            self.assertIn((f"S1.{place}", found.points[f"S1.{place}"]), points)
            found_again += 1
        self.assertGreaterEqual(found_again, 4)

    def test_each_one_that_is_told_is_in_register_and_two_wrong_ones_are_not_mended_by_one(self) -> None:
        board = demo_board("TVH-2210-B")
        found = record(board, S1="010110")
        told = self.tried(board, found, record(board, S1="110110"))
        self.assertTrue(told)
        for each in told:
            mended = record(board, S1="110110")
            mended = profile.Record(board.part_number, {**mended.points, each.point: each.position})
            proof = behaviour.prove(make_twin(board, found, board, mended, demo_family()))
            self.assertEqual(proof.verdict, each.verdict)
        self.assertEqual(self.tried(board, found, record(board, S1="101001")), [])


class ClosestTwin(SimpleTestCase):
    def search(
        self, board: profile.Board, found: profile.Record, set_as: profile.Record, **more: object
    ) -> Closest | None:
        family = demo_family()

        def twin_with(given: profile.Record) -> Twin:
            return make_twin(board, found, board, given, family)

        return closest(set_as, parted(twin_with(set_as)), twin_with, lambda _: set())

    def test_each_that_is_told_takes_longer_to_tell_apart_or_is_in_register(self) -> None:
        board = demo_board("TVH-2210-B")
        found = record(board, S1="010110")
        better = 0
        for wrong in ("101001", "011110", "110110", "001001"):
            set_as = record(board, S1=wrong)
            before = prove(make_twin(board, found, board, set_as, demo_family())).counter_case
            if before is None or (told := self.search(board, found, set_as)) is None:
                continue
            mended = profile.Record(board.part_number, {**set_as.points, **told.positions})
            proof = prove(make_twin(board, found, board, mended, demo_family()))
            if told.case is None:
                self.assertIn(proof.verdict, ("identical", "within tolerance"))
            else:
                assert proof.counter_case
                self.assertEqual(proof.counter_case.at, told.case.at)
                self.assertGreater((told.case.changes, told.case.at), (before.changes, before.at))
            better += 1
        self.assertGreaterEqual(better, 2)

    def test_no_step_is_taken_that_misses_another_safety_function(self) -> None:
        board = demo_board("TVH-2210-B")
        found, set_as = record(board, S1="010110"), record(board, S1="101001")
        family = demo_family()

        def twin_with(given: profile.Record) -> Twin:
            return make_twin(board, found, board, given, family)

        case = parted(twin_with(set_as))
        free = closest(set_as, case, twin_with, lambda _: set())
        assert free
        point = next(iter(free.positions))

        def missed(given: profile.Record) -> set[str]:
            return {"held"} if given.points[point] != set_as.points[point] else set()

        held = closest(set_as, case, twin_with, missed)
        self.assertTrue(held is None or point not in held.positions)

    def test_what_comes_up_less_often_is_farther(self) -> None:
        family = small_family()
        for each, often in zip(family["inputs"], (None, 40, 0.1), strict=False):
            if often:
                each["often"] = often
        states = {"s": {"go": [{"to": "t", "if": {"a": True}}]}, "t": {"on": ["x"], "go": []}}
        board, other = (
            small_board({"start": "s", "states": states}),
            small_board({"start": "s", "states": {"s": {"go": []}}}, "S-2"),
        )
        twin = twin_of(family, [board, other])
        named = family["inputs"][1]["id"]
        case = parted(twin)
        self.assertEqual([name for step in case.steps for name, _ in step.set], [named])
        self.assertEqual(rate(case, twin.family), 40)
        self.assertIsNone(rate(case, twin_of(small_family(), [board, other]).family))
