"""Each rule of the behaviour format on a small board, with the answer worked out by hand."""

from typing import Any

from django.test import SimpleTestCase

from tests.builders import encoded, small_board, small_family
from twincore import behaviour, profile

Change = tuple[float, dict[str, bool]]


class Semantics(SimpleTestCase):
    def shown(
        self, document: dict[str, Any], *steps: Change, until: float = 100, **more: Any
    ) -> list[tuple[float, str]]:
        """What a board shows: (seconds, names of the outputs that are on) at every change."""
        family = profile.parse_family(encoded(small_family(**more.pop("family", {}))))
        board = profile.parse_board(encoded(small_board(document, **more)))
        profile.check_board_in_family(board, family)
        scenario = profile.parse_scenario(encoded({
            "format": "worthy-twin/scenario", "version": 1, "until": until,
            "steps": [{"at": at, "set": changes} for at, changes in steps],
        }), family.inputs)  # fmt: skip
        shown = behaviour.simulate(board, profile.factory_record(board), family, scenario)
        return [(float(entry.at), "".join(entry.on)) for entry in shown]

    def blinker(self) -> dict[str, Any]:
        return {"start": "off", "states": {
            "off": {"go": [{"to": "on", "if": {"a": True}}]}, "on": {"on": ["x"], "go": [{"to": "off", "if": {"a": False}}]},
        }}  # fmt: skip

    def test_an_input_change_is_answered_at_once(self) -> None:
        self.assertEqual(
            self.shown(self.blinker(), (3, {"a": True}), (7.5, {"a": False})), [(0, ""), (3, "x"), (7.5, "")]
        )

    def test_setting_an_input_to_the_value_it_has_is_no_change(self) -> None:
        self.assertEqual(self.shown(self.blinker(), (3, {"a": False})), [(0, "")])

    def test_of_changes_at_one_instant_only_the_end_is_seen(self) -> None:
        self.assertEqual(self.shown(self.blinker(), (3, {"a": True}), (3, {"a": False})), [(0, "")])

    def test_the_end_of_the_scenario_is_included(self) -> None:
        timer = {"start": "s", "states": {"s": {"go": [{"to": "r", "after": 10}]}, "r": {"on": ["x"]}}}
        self.assertEqual(self.shown(timer, until=10), [(0, ""), (10, "x")])
        self.assertEqual(self.shown(timer, until=9.999), [(0, "")])

    def test_timers_that_are_due_settle_before_inputs_change(self) -> None:
        race = {"start": "s", "states": {
            "s": {"go": [{"to": "late", "if": {"a": True}}, {"to": "due", "after": 5}]},
            "due": {"on": ["x"]}, "late": {"on": ["y"]}}}  # fmt: skip
        self.assertEqual(self.shown(race, (5, {"a": True})), [(0, ""), (5, "x")])
        self.assertEqual(self.shown(race, (4.75, {"a": True})), [(0, ""), (4.75, "y")])

    def test_the_first_enabled_arrow_in_order_is_taken(self) -> None:
        both = {"start": "s", "states": {
            "s": {"go": [{"to": "one", "after": 5}, {"to": "two", "after": 5}]}, "one": {"on": ["x"]}, "two": {"on": ["y"]},
        }}  # fmt: skip
        self.assertEqual(self.shown(both), [(0, ""), (5, "x")])

    def test_the_state_clock_starts_anew_on_re_entry(self) -> None:
        again = {"start": "s", "states": {
            "s": {"go": [{"to": "s", "if": {"a": True, "b": False}}, {"to": "r", "after": 10}]}, "r": {"on": ["x"]}}}  # fmt: skip
        steps: list[Change] = [(4, {"b": True}), (4, {"a": True}), (6, {"b": False}), (6, {"b": True})]
        with self.assertRaisesRegex(Exception, "goes round"):
            self.shown(again, *steps)
        reset = {"start": "s", "states": {
            "s": {"go": [{"to": "t", "if": {"a": True}}, {"to": "r", "after": 10}]},
            "t": {"go": [{"to": "s", "if": {"a": False}}]}, "r": {"on": ["x"]}}}  # fmt: skip
        self.assertEqual(self.shown(reset, (6, {"a": True}), (6, {"a": False})), [(0, ""), (16, "x")])

    def named(self, **clock: Any) -> dict[str, Any]:
        """x comes on when the named clock has reached 10 s and a is on; leaving start resets nothing."""
        return {"start": "s", "clocks": [{"id": "k", **clock}], "states": {
            "s": {"go": [{"to": "r", "if": {"a": True}, "after": 10, "clock": "k"}]}, "r": {"on": ["x"]}}}  # fmt: skip

    def test_named_clocks_start_at_zero_or_expired(self) -> None:
        self.assertEqual(self.shown(self.named(), (3, {"a": True})), [(0, ""), (10, "x")])
        self.assertEqual(self.shown(self.named(starts="expired"), (3, {"a": True})), [(0, ""), (3, "x")])

    def test_a_named_clock_runs_over_states_until_it_is_reset(self) -> None:
        board = {"start": "s", "clocks": [{"id": "k"}], "states": {
            "s": {"go": [{"to": "t", "after": 4, "reset": ["k"]}]},
            "t": {"go": [{"to": "u", "after": 3}]}, "u": {"go": [{"to": "v", "after": 10, "clock": "k"}]}, "v": {"on": ["x"]},
        }}  # fmt: skip
        self.assertEqual(self.shown(board), [(0, ""), (14, "x")])

    def test_clocks_over_a_power_loss(self) -> None:
        off: list[Change] = [(6, {"power": False}), (20, {"power": True}), (20, {"a": True})]
        self.assertEqual(self.shown(self.named(), *off), [(0, ""), (30, "x")])
        self.assertEqual(self.shown(self.named(runs_without_power=True), *off), [(0, ""), (20, "x")])
        self.assertEqual(self.shown(self.named(starts="expired"), *off), [(0, ""), (20, "x")])

    def test_without_power_everything_is_off_and_nothing_happens(self) -> None:
        steps: list[Change] = [
            (1, {"a": True}),
            (2, {"power": False}),
            (3, {"a": False}),
            (4, {"a": True}),
            (5, {"power": True}),
        ]
        self.assertEqual(self.shown(self.blinker(), *steps), [(0, ""), (1, "x"), (2, ""), (5, "x")])

    def test_states_survive_a_power_loss_or_start_anew(self) -> None:
        held = {"start": "s", "states": {"s": {"go": [{"to": "r", "if": {"a": True}}]}, "r": {"on": ["x"]}}}
        steps: list[Change] = [(1, {"a": True}), (2, {"a": False}), (3, {"power": False}), (4, {"power": True})]
        self.assertEqual(self.shown(held, *steps)[-1], (3, ""))
        self.assertEqual(self.shown({**held, "survive_power_loss": ["r"]}, *steps)[-1], (4, "x"))

    def test_a_surviving_states_own_clock_starts_anew(self) -> None:
        held = {
            "start": "s",
            "survive_power_loss": ["s"],
            "states": {"s": {"go": [{"to": "r", "after": 10}]}, "r": {"on": ["x"]}},
        }
        self.assertEqual(self.shown(held, (9, {"power": False}), (12, {"power": True})), [(0, ""), (22, "x")])

    def counted(self, survives: bool) -> dict[str, Any]:
        return {"start": "s", "counters": [{"id": "n", "survives_power_loss": survives}], "states": {
            "s": {"go": [{"to": "r", "if": {"a": True}, "count": {"counter": "n", "reached": 2}},
                         {"to": "t", "if": {"a": True}, "add": ["n"]}]},
            "t": {"on": ["y"], "go": [{"to": "s", "if": {"a": False}}]}, "r": {"on": ["x"]}}}  # fmt: skip

    def presses(self, *at: float) -> list[Change]:
        return [change for each in at for change in ((each, {"a": True}), (each + 0.5, {"a": False}))]

    def test_counters_count_and_are_compared(self) -> None:
        shown = self.shown(self.counted(False), *self.presses(1, 2, 3))
        self.assertEqual(shown, [(0, ""), (1, "y"), (1.5, ""), (2, "y"), (2.5, ""), (3, "x")])

    def test_counters_over_a_power_loss(self) -> None:
        loss: list[Change] = [(4, {"power": False}), (5, {"power": True})]
        steps = [*self.presses(1, 2), *loss, *self.presses(6)]
        self.assertEqual(self.shown(self.counted(False), *steps)[-2], (6, "y"))
        self.assertEqual(self.shown(self.counted(True), *steps)[-1], (6, "x"))

    def test_outputs_under_conditions(self) -> None:
        lamp = {"start": "s", "states": {"s": {"on": [{"output": "x", "if": {"a": True, "b": False}}]}}}
        self.assertEqual(self.shown(lamp, (1, {"a": True}), (2, {"b": True})), [(0, ""), (1, "x"), (2, "")])

    def test_functions_decide_arrows_outputs_and_times(self) -> None:
        board = {"start": "s", "states": {
            "s": {"on": [{"output": "y", "when": {"t": 5}}], "go": [{"to": "r", "after": "t", "when": {"t": 5}}]},
            "r": {"on": ["x"]}}}  # fmt: skip
        self.assertEqual(self.shown(board), [(0, "y"), (5, "x")])
        self.assertEqual(self.shown(board, functions={"t": {"fixed": 6}}), [(0, "")])

    def test_a_function_that_the_board_lacks_behaves_as_the_family_says(self) -> None:
        absent = {"functions": [{"id": "t", "type": "duration", "importance": "behaviour", "if_absent": 7}]}
        board = {"start": "s", "states": {"s": {"go": [{"to": "r", "after": "t"}]}, "r": {"on": ["x"]}}}
        self.assertEqual(self.shown(board, functions={}, family=absent), [(0, ""), (7, "x")])

    def machines(self, first: dict[str, Any], second: dict[str, Any], **more: Any) -> dict[str, Any]:
        return {
            "machines": [{"id": "one", "start": "s", "states": first}, {"id": "two", "start": "s", "states": second}],
            **more,
        }

    def test_machines_hear_each_others_signals_at_the_same_instant(self) -> None:
        first = {"s": {"go": [{"to": "r", "if": {"a": True}}]}, "r": {"on": ["go"]}}
        second = {"s": {"go": [{"to": "r", "if": {"go": True}}]}, "r": {"on": ["y"]}}
        board = self.machines(first, second, internal=["go"])
        self.assertEqual(self.shown(board, (2, {"a": True})), [(0, ""), (2, "y")])

    def test_an_output_is_on_when_any_machine_has_it_on(self) -> None:
        first = {"s": {"on": ["x"], "go": [{"to": "r", "after": 5}]}, "r": {}}
        second = {"s": {"on": ["x"], "go": [{"to": "r", "after": 8}]}, "r": {}}
        self.assertEqual(self.shown(self.machines(first, second)), [(0, "x"), (8, "")])

    def test_after_every_arrow_looking_starts_again_from_the_first_machine(self) -> None:
        # two leaves x's state before one has looked again: one answers y's state at the same instant, and two never sees it
        first = {"s": {"go": [{"to": "r", "if": {"x": True}}]}, "r": {"on": ["y"]}}
        second = {"s": {"go": [{"to": "q", "if": {"a": True}}]}, "q": {"on": ["x"], "go": [{"to": "end", "if": {"y": True}}]},
                  "end": {}}  # fmt: skip
        self.assertEqual(self.shown(self.machines(first, second), (1, {"a": True})), [(0, ""), (1, "y")])
