"""The exact search on large pairs: its heading hides nothing, sets of inputs are what they stand for, laps cost nothing."""

import json
from importlib import import_module
from random import Random
from unittest.mock import patch

from django.test import SimpleTestCase

from tests import large_boards
from tests.builders import small_board, small_family, twin_of
from tests.test_behaviour import random_pair
from twincore import behaviour, profile
from twincore.behaviour.effort import Effort, Spent, effort_of
from twincore.behaviour.heading import Heading
from twincore.behaviour.input_sets import InputSets
from twincore.behaviour.nodes import way_to
from twincore.behaviour.pair import Pair
from twincore.behaviour.stepwise import step_for_step
from twincore.behaviour.zones import ExactSearch
from twincore.errors import EndlessLoopError

proving = import_module("twincore.behaviour.prove")  # the package has a function of this name


class Headings(SimpleTestCase):
    def test_a_heading_never_hides_the_fewest_changes(self) -> None:
        found = [self.headed_as_plain(seed, made[2]) for seed in range(4000, 4280) if (made := random_pair(seed))]
        self.assertGreater(sum(found), 15)

    def test_nor_does_it_on_boards_with_clocks_and_a_counter(self) -> None:
        found = []
        for seed in range(12):
            rng = Random(seed)
            one = large_boards.board_document(rng, 8, "A")
            other = large_boards.changed_deep(rng, one, "B")
            found.append(self.headed_as_plain(seed, twin_of(large_boards.family_document(), [one, other])))
        self.assertGreater(sum(found), 6)

    def headed_as_plain(self, seed: int, twin: behaviour.Twin) -> bool:
        """That with a heading, watching no clock or all, the same is found as without, and no bound on the way is too high."""
        pair = twin.pair(twin.unit())
        slots = range(len(pair.sides[0].machines), len(pair.sides[0].machines) + len(pair.sides[0].named_clocks))
        for clocks in ((), slots):
            heading = Heading(pair, clocks)
            if not heading.useful:
                return False
            try:
                search = ExactSearch(pair, 20_000)
                plain = search.run()
                headed = ExactSearch(pair, 20_000, heading.ahead).run()
                hasty = ExactSearch(pair, 20_000, heading.ahead, weight=4).run()
            except EndlessLoopError:
                return False
            if search.loops or not plain.closed:
                return False
            fewest = [node.changes for node in plain.nodes[:1]]
            self.assertEqual([node.changes for node in headed.nodes[:1]], fewest, (seed, clocks))
            self.assertEqual(bool(hasty.nodes), bool(fewest), (seed, clocks))
            for node in plain.nodes[:1]:
                for event in way_to(node, pair.sets)[:-1]:
                    bound, can_part = heading.ahead(event.node)
                    self.assertTrue(can_part >> pair.sets.place(event.inputs) & 1, (seed, clocks))
                    self.assertLessEqual(bound, node.changes - event.node.changes, (seed, clocks))
        return bool(fewest)

    def test_where_a_guard_is_never_read_on_its_wrong_side_nothing_is_explored(self) -> None:
        # k is over 100 s whenever u is entered, so that 10 s or 11 s make no difference
        def board(number: str, seconds: int) -> dict[str, object]:
            return small_board(
                {
                    "start": "s",
                    "clocks": [{"id": "k"}],
                    "states": {
                        "s": {"go": [{"to": "t", "if": {"a": True}, "reset": ["k"]}]},
                        "t": {"on": ["x"], "go": [{"to": "u", "after": 100}]},
                        "u": {"go": [{"to": "s", "if": {"b": True}, "clock": "k", "after": seconds}]},
                    },
                },
                number,
            )

        twin = twin_of(small_family(), [board("S-1", 10), board("S-2", 11)])
        pair = twin.pair(twin.unit())
        found = ExactSearch(pair, 100, Heading(pair, [1]).ahead).run()
        self.assertEqual((found.nodes, found.closed, found.explored), ([], True, 1))
        self.assertEqual(behaviour.prove(twin).verdict, "identical")
        apart = twin_of(small_family(), [board("S-1", 10), board("S-2", 101)])
        self.assertEqual(behaviour.prove(apart).verdict, "different")

    def test_large_pairs_changed_deep_inside_are_answered(self) -> None:
        for seed, clocks, verdict, changes in (
            (1, 4, "different", 4),
            (4, 4, "identical", None),
            (13, 0, "identical", None),
        ):
            rng = Random(seed)
            one = large_boards.board_document(rng, 40, "A", clocks)
            twin = twin_of(large_boards.family_document(), [one, large_boards.changed_deep(rng, one, "B")])
            proof = behaviour.prove(twin)
            case = proof.counter_case
            self.assertEqual((proof.verdict, case and case.changes), (verdict, changes), seed)
            self.assertTrue(case is None or case.fewest, seed)

    def test_a_pair_that_no_heading_helps_is_searched_to_the_limit(self) -> None:
        # the two are built otherwise, so nothing can be said of where they part
        made = random_pair(4209)
        assert made is not None
        pair = made[2].pair(made[2].unit())
        self.assertFalse(Heading(pair).useful)
        proof = behaviour.prove(made[2])
        self.assertEqual((proof.verdict, proof.method), ("identical", "zones"))
        self.assertGreater(proof.explored, 6_000)


class OneDeadline(SimpleTestCase):
    """What a question costs in all, whichever part of it takes long."""

    def spent(self, twin: behaviour.Twin) -> tuple[behaviour.Proof, float]:
        """The proof, and the part of its effort that it cost."""
        made: list[Effort] = []
        with patch.object(proving, "effort_of", side_effect=lambda limit: made.append(effort_of(limit)) or made[0]):
            proof = behaviour.prove(twin)
        return proof, 1 - made[0].work / effort_of(proving.LIMIT).work

    def pulses(self, seconds: int) -> behaviour.Twin:
        """A train of pulses beside a timer; what the timer shows is not the same on both boards."""
        boards = [
            small_board({"machines": [
                {"id": "pulses", "start": "on", "states": {
                    "on": {"on": ["x"], "go": [{"to": "off", "after": 1}]}, "off": {"go": [{"to": "on", "after": 1}]}}},
                {"id": "timer", "start": "s", "states": {
                    "s": {"go": [{"to": "w", "if": {"a": True}}]},
                    "w": {"go": [{"to": "s", "if": {"a": False}}, {"to": "e", "after": seconds}]}, "e": {"on": shows}}},
            ]}, number)
            for number, shows in (("S-1", ["y"]), ("S-2", []))
        ]  # fmt: skip
        return twin_of(small_family(), boards)

    def test_it_holds_for_the_searches_with_all_that_they_keep(self) -> None:
        proof, part = self.spent(self.pulses(60))
        self.assertEqual((proof.verdict, proof.least), ("different", 0))
        self.assertLess(part, 0.05)
        for seconds in (21_600, 10**9):
            proof, part = self.spent(self.pulses(seconds))
            self.assertEqual(proof.verdict, "not proved")
            self.assertGreaterEqual(proof.least, 1)  # that nothing differs at rest was shown
            self.assertLess(part, 1.02)

    def test_a_share_of_a_share_is_spent_of_the_whole(self) -> None:
        whole = Effort(100)
        share = whole.share(0.5).share(0.5)
        share.spend(25)
        self.assertEqual((share.work, whole.work), (0, 75))
        with self.assertRaises(Spent):
            share.spend(1)

    def test_it_holds_for_boards_that_may_go_round_too(self) -> None:
        twin = self.pulses(21_600)
        boards = [json.loads(profile.dump(board.document)) for board in (twin.original, twin.replacement)]
        for each in boards:
            ring = {"s": {"go": [{"to": "r", "if": {"b": True}, "after": 86_400}]}, "r": {"go": [{"to": "q", "if": {"a": True}}]},
                    "q": {"go": [{"to": "r", "if": {"a": True}}]}}  # fmt: skip
            each["behaviour"]["machines"].append({"id": "ring", "start": "s", "states": ring})
        _, part = self.spent(twin_of(small_family(), boards))
        self.assertLess(part, 1.02)

    def test_it_holds_for_tables_of_many_clocks(self) -> None:
        rng = Random(3)
        one = large_boards.board_document(rng, 120, "A", clocks=6, inputs=12)
        twin = twin_of(large_boards.family_document(12), [one, large_boards.changed_deep(rng, one, "B")])
        proof, part = self.spent(twin)
        self.assertIn(proof.verdict, ("different", "identical", "not proved"))
        self.assertLess(part, 1.02)

    def test_where_the_effort_ends_what_was_found_by_then_is_told_with_what_is_proved_of_it(self) -> None:
        rng = Random(14)  # a pair that differs after ten changes
        one = large_boards.board_document(rng, 40, "A")
        twin = twin_of(large_boards.family_document(), [one, large_boards.changed_deep(rng, one, "B")])
        least, verdicts = [], set()
        for limit in (500, 3_000, 12_000, proving.LIMIT):
            proof = behaviour.prove(twin, limit)
            case = proof.counter_case
            least.append(case.changes if case and case.fewest else proof.least)
            verdicts.add((proof.verdict, bool(case and case.fewest)))
            self.assertLessEqual(proof.least, case.changes if case else 10)
        self.assertEqual(least, sorted(least))
        self.assertEqual(least[-1], 10)
        self.assertIn(("not proved", False), verdicts)


class Sets(SimpleTestCase):
    def test_a_set_is_what_it_stands_for(self) -> None:
        rng = Random(5)
        bits = [1, 4, 8, 64]
        sets = InputSets(bits, [(5, 5), (2, 2)])
        every = [sum(rng.sample(bits, count)) for count in (0, 1, 2, 3, 4) for _ in range(6)]
        for inputs in every:
            place = sets.place(inputs)
            self.assertEqual(sets.first(1 << place), inputs)
            for mask, value in ((5, 1), (64, 0), (77, 68), (0, 0)):
                self.assertEqual(sets.where(mask, value) >> place & 1, int(inputs & mask == value))
            for bit in bits:
                self.assertEqual(sets.turned_bit(1 << place, bit), 1 << sets.place(inputs ^ bit))
            self.assertEqual(sets.allowed >> place & 1, int(inputs & 5 != 5))

    def test_inputs_told_one_by_one_change_nothing(self) -> None:
        def found(pair: Pair) -> list[int]:
            return [node.changes for node in ExactSearch(pair, 20_000).run().nodes[:1]]

        compared = 0
        for seed in range(4000, 4080):
            made = random_pair(seed)
            if made is None:
                continue
            twin = made[2]
            try:
                together = found(twin.pair(twin.unit()))
                with patch("twincore.behaviour.pair.MOST_TOGETHER", 1):
                    pair = twin.pair(twin.unit())
                    self.assertLessEqual(len(pair.sets.bits), 1)
                    self.assertEqual(found(pair), together, seed)
            except EndlessLoopError:
                continue
            compared += bool(together)
        self.assertGreater(compared, 8)


class Laps(SimpleTestCase):
    def test_a_state_that_only_starts_its_clock_anew_costs_no_lap(self) -> None:
        def board(number: str, seconds: int) -> dict[str, object]:
            lap = [{"to": "s", "after": seconds}, {"to": "t", "if": {"a": True}, "clock": "k", "after": 5000}]
            states = {"s": {"go": lap}, "t": {"on": ["x"], "go": [{"to": "s", "if": {"a": False}, "reset": ["k"]}]}}
            return small_board({"start": "s", "clocks": [{"id": "k"}], "states": states}, number)

        proof = behaviour.prove(twin_of(small_family(), [board("S-1", 300), board("S-2", 301)]))
        self.assertEqual(proof.verdict, "identical")
        self.assertLess(proof.explored, 10)


class Stepwise(SimpleTestCase):
    def test_four_hundred_states_that_are_the_same_are_compared_arrow_for_arrow(self) -> None:
        one = large_boards.board_document(Random(1), 400, "A", 6, 12)
        twin = twin_of(large_boards.family_document(12), [one, one | {"part_number": "B"}])
        proved, looked_at = step_for_step(twin.pair(twin.unit()))
        self.assertTrue(proved)
        self.assertLessEqual(looked_at, 400)
        other = large_boards.changed_deep(Random(2), one, "B")
        changed = twin_of(large_boards.family_document(12), [one, other])
        self.assertFalse(step_for_step(changed.pair(changed.unit()))[0])
