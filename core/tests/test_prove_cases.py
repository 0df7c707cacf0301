"""The twin check on boards made for one question each, and the times of counter-cases."""

from random import Random
from typing import Any

from django.test import SimpleTestCase
from scipy.optimize import linprog

from tests import large_boards
from tests.builders import small_board, small_family, twin_of
from twincore import behaviour
from twincore.behaviour.timing import Distance, earliest_times


class ProveSpecialCases(SimpleTestCase):
    def verdict(self, one: dict[str, Any], other: dict[str, Any], **family: Any) -> behaviour.Proof:
        return behaviour.prove(twin_of(small_family(**family), [small_board(one), small_board(other, "S-2")]))

    def counting(self, limit: int) -> dict[str, Any]:
        """Sums running minutes: a counter fed by a named clock once a minute while a is on."""
        return {
            "start": "rest", "clocks": [{"id": "minute"}], "counters": [{"id": "n", "survives_power_loss": True}],
            "states": {
                "rest": {"on": [], "go": [{"to": "run", "if": {"a": True}, "reset": ["minute"]}]},
                "run": {"on": ["x"], "go": [
                    {"to": "thaw", "count": {"counter": "n", "reached": limit}, "clear": ["n"]},
                    {"to": "rest", "if": {"a": False}},
                    {"to": "run", "after": 60, "clock": "minute", "add": ["n"], "reset": ["minute"]}]},
                "thaw": {"on": ["y"], "go": [{"to": "rest", "after": 1200}]},
            },
        }  # fmt: skip

    def test_a_defrost_interval_of_480_minutes(self) -> None:
        self.assertEqual(self.verdict(self.counting(480), self.counting(480)).verdict, "identical")
        case = self.verdict(self.counting(480), self.counting(481)).counter_case
        assert case
        self.assertEqual((case.changes, case.at), (1, 480 * 60))

    def test_eight_hour_timers_one_second_apart(self) -> None:
        def sleeper(seconds: int) -> dict[str, Any]:
            return {"start": "s", "states": {
                "s": {"go": [{"to": "w", "if": {"a": True}}]},
                "w": {"go": [{"to": "s", "if": {"a": False}}, {"to": "r", "after": seconds}]}, "r": {"on": ["x"]}}}  # fmt: skip

        case = self.verdict(sleeper(28_800), sleeper(28_801)).counter_case
        assert case
        self.assertEqual((case.changes, case.at), (1, 28_800))
        self.assertEqual(self.verdict(sleeper(28_800), sleeper(28_800)).verdict, "identical")

    def test_an_input_that_matters_only_after_waiting(self) -> None:
        # in p nothing reads a; five seconds later q decides by it at once
        def waits(target: str) -> dict[str, Any]:
            return {"start": "p", "states": {
                "p": {"go": [{"to": "q", "after": 5}]},
                "q": {"go": [{"to": "r", "if": {"a": True}}, {"to": "s", "if": {"a": False}}]},
                "r": {"on": [target], "go": []}, "s": {"on": []}}}  # fmt: skip

        case = self.verdict(waits("x"), waits("y")).counter_case
        assert case
        self.assertEqual(case.changes, 1)

    def test_combinations_that_cannot_occur_are_never_entered(self) -> None:
        def both(target: str) -> dict[str, Any]:
            return {"start": "s", "states": {
                "s": {"go": [{"to": "r", "if": {"a": True, "b": True}}]}, "r": {"on": [target]}}}  # fmt: skip

        self.assertEqual(self.verdict(both("x"), both("y")).verdict, "different")
        never = self.verdict(both("x"), both("y"), never_together=[{"a": True, "b": True}])
        self.assertEqual(never.verdict, "identical")

    def test_times_finer_than_a_unit_are_found(self) -> None:
        # x shows only if a second press falls strictly inside a second: whole seconds alone would miss it
        def window(shown: bool) -> dict[str, Any]:
            inside = {"to": "hit", "if": {"b": True}}
            return {"start": "s", "clocks": [{"id": "k"}], "states": {
                "s": {"go": [{"to": "first", "after": 1, "reset": ["k"]}]},
                "first": {"go": [{"to": "armed", "if": {"a": True}, "reset": ["k"]}, {"to": "late", "after": 1}]},
                "armed": {"go": [{"to": "late", "if": {"a": False}}, {"to": "hit" if shown else "late", "after": 1}, inside]},
                "hit": {"on": ["x"] if shown else []}, "late": {"on": []}}}  # fmt: skip

        proof = self.verdict(window(True), window(False))
        assert proof.counter_case
        self.assertEqual(proof.counter_case.changes, 1)

    def test_the_limit_is_honest(self) -> None:
        rng = Random(3)
        one = large_boards.board_document(rng, 40, "A")
        twin = twin_of(large_boards.family_document(), [one, large_boards.changed_deep(rng, one, "B")])
        proof = behaviour.prove(twin, limit=50)
        self.assertIn(proof.verdict, ("not proved", "different"))
        if proof.verdict == "not proved":
            self.assertEqual(proof.limit, 50)
            self.assertGreaterEqual(proof.explored, 50)

    def test_forty_states_ten_inputs_four_clocks_in_register(self) -> None:
        one = large_boards.board_document(Random(1), 40, "A")
        twin = twin_of(large_boards.family_document(), [one, {**one, "part_number": "B"}])
        self.assertEqual(behaviour.prove(twin).verdict, "identical")


class Timing(SimpleTestCase):
    def test_earliest_times_keep_strict_bounds(self) -> None:
        times = earliest_times(
            3,
            [
                Distance(((0, 1),), least=5),
                Distance(((0, 2),), most=6, strict=True),
                Distance(((1, 2),), least=0),
            ],
        )
        self.assertEqual(times, [0, 5, 5])
        later = earliest_times(3, [Distance(((0, 2),), least=10), Distance(((1, 2),), most=4, strict=True)])
        assert later
        self.assertTrue(6 < later[1] <= later[2] == 10)

    def test_impossible_distances_have_no_times(self) -> None:
        span = ((0, 1),)
        self.assertIsNone(earliest_times(2, [Distance(span, least=5), Distance(span, most=4)]))

    def test_spans_are_added_up(self) -> None:
        # it runs twice, 10 in all, and stands in between for 3 at least; the first time for less than 4
        ran, stood, first = ((0, 1), (2, 3)), ((1, 2),), ((0, 1),)
        bounds = [Distance(ran, least=10), Distance(stood, least=3), Distance(first, most=4, strict=True)]
        times = earliest_times(4, bounds)
        assert times
        self.assertTrue(0 <= times[1] < 4 and times[2] - times[1] >= 3 and times[1] + times[3] - times[2] >= 10)
        self.assertEqual(times[3], 13)
        self.assertIsNone(earliest_times(4, [*bounds, Distance(((0, 3),), most=13, strict=True)]))

    def test_sums_of_spans_as_a_library_solves_them(self) -> None:
        # reference: scipy's HiGHS, the same programme in floating point
        solved = 0
        for seed in range(300):
            rng = Random(seed)
            count = rng.randint(3, 7)
            bounds = []
            for _ in range(rng.randint(2, 6)):
                cuts = sorted(rng.sample(range(count), 2 * rng.randint(1, count // 2)))
                least = rng.randint(0, 9)
                spans = tuple(zip(cuts[::2], cuts[1::2], strict=True))
                bounds.append(Distance(spans, **rng.choice([{"least": least}, {"most": least}])))
            bounds.append(Distance(((0, 1), (1, 2)), least=1))
            rows = [[sum(i in range(*span) for span in each.spans) for i in range(count - 1)] for each in bounds]
            signs = [1 if each.most is not None else -1 for each in bounds]
            rows = [[sign * n for n in row] for sign, row in zip(signs, rows, strict=True)]
            most = [each.most if each.most is not None else -(each.least or 0) for each in bounds]
            reference = linprog([1] * (count - 1), A_ub=rows, b_ub=most)
            times = earliest_times(count, bounds)
            self.assertEqual(times is None, reference.status == 2, seed)
            if times is not None:
                self.assertAlmostEqual(float(times[-1]), reference.fun, msg=str(seed))
                solved += 1
        self.assertGreater(solved, 100)
