"""What each search of the twin check can and cannot show, on pairs made for it."""

from typing import Any

from django.test import SimpleTestCase

from tests.builders import small_board, small_family, twin_of
from twincore import behaviour
from twincore.behaviour.lockstep import in_lockstep
from twincore.behaviour.outlook import look_ahead
from twincore.behaviour.stepwise import may_go_round, step_for_step
from twincore.behaviour.zones import ExactSearch

Machine = dict[str, Any]


def timer(*waits: int, clock: str | None = None) -> Machine:
    """Press a, wait through a chain of states, then show x until a is let go."""
    more: dict[str, Any] = {"clock": clock} if clock else {}
    names = [f"w{n}" for n in range(len(waits))] + ["on"]
    states: dict[str, Any] = {
        "s": {"go": [{"to": names[0], "if": {"a": True}, **({"reset": [clock]} if clock else {})}]}
    }
    for name, wait, following in zip(names, waits, names[1:], strict=False):
        states[name] = {"go": [{"to": "s", "if": {"a": False}}, {"to": following, "after": wait, **more}]}
    states["on"] = {"on": ["x"], "go": [{"to": "s", "if": {"a": False}}]}
    return {"start": "s", "states": states, **({"clocks": [{"id": clock}]} if clock else {})}


def renamed(machine: Machine) -> Machine:
    """The same machine with other names for its states."""
    return {**machine, "start": f"{machine['start']}_", "states": {
        f"{name}_": {**state, "go": [{**go, "to": f"{go['to']}_"} for go in state.get("go", [])]}
        for name, state in machine["states"].items()
    }}  # fmt: skip


class Tiers(SimpleTestCase):
    def check(self, one: Machine, other: Machine, stepwise: bool, lockstep: bool, identical: bool) -> None:
        twin = twin_of(small_family(), [small_board(one), small_board(other, "S-2")])
        pair = twin.pair(twin.unit())
        self.assertEqual(step_for_step(pair)[0], stepwise, "stepwise")
        self.assertEqual(in_lockstep(pair)[0], lockstep, "lockstep")
        found = ExactSearch(pair, 5_000).run()
        self.assertTrue(found.closed)
        self.assertEqual(not found.nodes, identical, "zones")
        self.assertEqual(behaviour.prove(twin).verdict, "identical" if identical else "different")

    def test_a_copy_with_other_names_needs_no_search(self) -> None:
        self.check(timer(5, 7), renamed(timer(5, 7)), stepwise=True, lockstep=True, identical=True)

    def test_arrows_in_another_order_need_every_question_answered(self) -> None:
        other = timer(5)
        other["states"]["s"]["go"].insert(0, {"to": "s2", "if": {"a": True, "b": True}})
        other["states"]["s2"] = other["states"]["w0"]
        self.check(timer(5), other, stepwise=False, lockstep=True, identical=True)

    def test_one_wait_in_two_parts_needs_exact_times(self) -> None:
        self.check(timer(12), timer(5, 7), stepwise=False, lockstep=False, identical=True)
        self.check(timer(12), timer(5, 8), stepwise=False, lockstep=False, identical=False)

    def test_a_named_clock_may_stand_for_a_states_own(self) -> None:
        self.check(timer(12), timer(12, clock="k"), stepwise=True, lockstep=True, identical=True)

    def test_another_time_is_a_difference(self) -> None:
        self.check(timer(12), timer(13), stepwise=False, lockstep=False, identical=False)

    def test_an_arrow_that_always_comes_too_late_makes_no_difference(self) -> None:
        one, other = timer(5), timer(5)
        for machine, late in ((one, 20), (other, 30)):
            machine["states"]["w0"]["go"].append({"to": "s", "if": {"b": True}, "after": late})
            machine["states"]["w0"]["go"][1] = {"to": "on", "after": 5}
        self.check(one, other, stepwise=True, lockstep=True, identical=True)

    def test_a_board_that_may_go_round_is_never_passed_over(self) -> None:
        ring = {"start": "s", "states": {
            "s": {"go": [{"to": "r", "if": {"a": True}}]}, "r": {"go": [{"to": "s", "if": {"a": True}}]}}}  # fmt: skip
        settles = {"start": "s", "states": {
            "s": {"go": [{"to": "r", "if": {"a": True}}]}, "r": {"go": [{"to": "s", "if": {"a": False}}]}}}  # fmt: skip
        for machine, expected in ((ring, True), (settles, False)):
            twin = twin_of(small_family(), [small_board(machine), small_board(machine, "S-2")])
            self.assertEqual(may_go_round(twin.pair(1).sides[0]), expected)

    def test_a_ring_counts_only_where_its_inputs_and_signals_can_come_together(self) -> None:
        ring = {"start": "s", "states": {
            "s": {"go": [{"to": "r", "if": {"a": True}}]}, "r": {"go": [{"to": "s", "if": {"b": True}}]}}}  # fmt: skip
        twin = twin_of(small_family(), [small_board(ring), small_board(ring, "S-2")])
        side = twin.pair(1).sides[0]
        bits = {name: 1 << n for n, name in enumerate(side.changes.flags)}
        both = bits["a"] | bits["b"]
        self.assertTrue(may_go_round(side))
        self.assertFalse(may_go_round(side, [(both, both)]))
        self.assertTrue(may_go_round(side, [(both, bits["a"])]))

        # the second machine goes round only while the first shows x and does not: it cannot do both
        first: Machine = {"id": "one", "start": "p", "states": {
            "p": {"go": [{"to": "q", "if": {"a": True}}]}, "q": {"on": ["x"], "go": [{"to": "p", "if": {"a": False}}]}}}  # fmt: skip
        second: Machine = {"id": "two", "start": "s", "states": {
            "s": {"go": [{"to": "r", "if": {"x": True}}]}, "r": {"on": ["y"], "go": [{"to": "s", "if": {"x": False}}]}}}  # fmt: skip
        for last, expected in (({"x": False}, False), ({"x": True}, True), ({"y": True}, True)):
            second["states"]["r"]["go"][0]["if"] = last
            board = {"machines": [first, second]}
            twin = twin_of(small_family(), [small_board(board), small_board(board, "S-2")])
            with self.subTest(last):
                self.assertEqual(may_go_round(twin.pair(1).sides[0]), expected)


class Power(SimpleTestCase):
    """What a family says of its power at rest, and of what stands in the way of losing it."""

    def both(self, family: Machine, **others: Any) -> behaviour.Proof:
        """The proof of two boards that leave their start by how long a clock ran without power, in other times."""
        boards = []
        for number, seconds in (("S-1", 5), ("S-2", 7)):
            boards.append(small_board({
                "start": "s", "clocks": [{"id": "k", "runs_without_power": True}], "survive_power_loss": ["dark", "bright"],
                "states": {"s": {"go": [{"to": "dark", "after": seconds, "clock": "k"}, {"to": "bright"}]},
                           "dark": {}, "bright": {"on": ["x"]}}}, number))  # fmt: skip
        twin = twin_of(family, boards)
        pair = twin.pair(twin.unit())
        self.assertFalse(step_for_step(pair)[0])
        return behaviour.prove(twin)

    def test_a_family_that_rests_without_power_begins_there(self) -> None:
        self.assertEqual(
            self.both(small_family()).verdict, "identical"
        )  # the start is left at once, and never seen again
        found = self.both(small_family(rest={"power": False}))
        self.assertEqual(found.verdict, "different")
        assert found.counter_case
        self.assertEqual([(step.at, step.set) for step in found.counter_case.steps], [(5, (("power", True),))])

    def test_an_input_that_stands_in_the_way_of_losing_power_is_moved(self) -> None:
        machine: Machine = {
            "start": "s",
            "states": {"s": {"go": [{"to": "on", "if": {"b": True}}]}, "on": {"on": ["x"]}},
        }
        boards = [
            small_board(machine | {"survive_power_loss": kept}, number) for number, kept in (("A", ["on"]), ("B", []))
        ]
        family = small_family(never_together=[{"power": False, "a": False}])
        found = behaviour.prove(twin_of(family, boards)).counter_case
        assert found
        names = [name for step in found.steps for name, _ in step.set]
        self.assertEqual(sorted(names), ["a", "b", "b", "power", "power"])

    def test_a_ring_of_one_board_alone_is_told_though_the_other_reads_other_inputs(self) -> None:
        ring = {"start": "s", "states": {
            "s": {"go": [{"to": "r", "if": {"a": True}}]}, "r": {"go": [{"to": "s", "if": {"a": True}}]}}}  # fmt: skip
        other = {
            "start": "s",
            "states": {"s": {"go": [{"to": "t", "if": {"b": True}}]}, "t": {"go": [{"to": "s", "if": {"b": False}}]}},
        }
        family = small_family(rest={"b": True})
        found = behaviour.prove(twin_of(family, [small_board(ring), small_board(other, "S-2")]))
        self.assertEqual((found.verdict, [each.board for each in found.endless]), ("not proved", ["S-1"]))


class OutlookAhead(SimpleTestCase):
    def test_clocks_matter_only_until_they_are_forgotten(self) -> None:
        machine = {"start": "s", "clocks": [{"id": "k"}], "counters": [{"id": "n"}], "states": {
            "s": {"go": [{"to": "t", "after": 3}]},
            "t": {"go": [{"to": "u", "after": 9, "clock": "k"}, {"to": "u", "if": {"b": True}, "reset": ["k"]}]},
            "u": {"go": [{"to": "s", "if": {"a": True}, "count": {"counter": "n", "reached": 4}, "clear": ["n"], "reset": ["k"]}]},
        }}  # fmt: skip
        side = twin_of(small_family(), [small_board(machine), small_board(machine, "S-2")]).pair(1).sides[0]
        outlook = look_ahead(side)
        limits = {place.name: outlook.clock_limits((n,)) for n, place in enumerate(side.machines[0])}
        self.assertEqual(limits, {"s": (3, 9), "t": (-1, 9), "u": (-1, -1)})
        counters = [outlook.counter_limits((n,)) for n in range(3)]
        self.assertEqual(counters, [(4,), (4,), (4,)])
        names = {name: 1 << n for n, name in enumerate(side.changes.flags)}
        self.assertEqual(outlook.inputs_read((2,)), names["a"])  # in u only a is read, and in s nothing
        self.assertEqual(outlook.inputs_read((1,)), names["a"] | names["b"])
