from django.test import SimpleTestCase

from jobs.state import (
    STEPS,
    State,
    changed,
    done,
    empty_state,
    step_in_hand,
    step_of,
    value_at,
    waiting_for,
)

YES = {"note": "", "by": "somebody", "at": "2026-03-02T03:00:00+00:00"}


def advanced(*targets: str) -> State:
    """A state after the usual entries, up to those named."""
    usual: dict[str, object] = {
        "confirmed.rule_out": YES, "original": "A", "replacement": "B", "confirmed.make_safe": YES, "found.S1": "01",
        "confirmed.record": YES, "confirmed.carry_over": YES, "confirmed.fit": YES, "confirmed.prove": YES,
    }  # fmt: skip
    state = empty_state()
    for target in targets or usual:
        state = changed(state, target, usual[target])
    return state


class Order(SimpleTestCase):
    def test_the_step_in_hand_follows_the_work(self) -> None:
        seen = []
        state = empty_state()
        for target in ("confirmed.rule_out", "original", "replacement", "confirmed.make_safe", "confirmed.record",
                       "confirmed.carry_over", "confirmed.fit", "confirmed.prove"):  # fmt: skip
            seen.append(step_in_hand(state))
            state = changed(state, target, YES if "." in target else "A")
        self.assertEqual(seen, list(STEPS[:-1]))
        self.assertEqual(step_in_hand(state), "hand_over")

    def test_the_hold_point_stands_before_everything_that_is_touched(self) -> None:
        state = advanced("original", "replacement")
        for step in ("record", "carry_over", "fit", "prove", "hand_over"):
            self.assertTrue(waiting_for(state, step), step)
        self.assertEqual(waiting_for(state, "record"), ["make_safe"])
        self.assertEqual(waiting_for(state, "make_safe"), [])

    def test_every_target_belongs_to_a_step(self) -> None:
        self.assertEqual(step_of("found.S1"), "record")
        self.assertEqual(step_of("override.R1"), "carry_over")
        self.assertEqual(step_of("reason.purge.post"), "carry_over")
        self.assertEqual(step_of("confirmed.fit"), "fit")


class Changes(SimpleTestCase):
    def check(self, target: str, value: object, *still_done: str) -> State:
        state = changed(advanced(), target, value)
        self.assertEqual({step for step in STEPS if done(state, step)}, set(still_done))
        return state

    def test_another_original_starts_the_record_anew(self) -> None:
        state = self.check("original", "C", "rule_out", "recognise", "make_safe")
        self.assertEqual((state["found"], state["replacement"]), ({}, None))

    def test_another_replacement_reopens_the_plan_but_keeps_the_record(self) -> None:
        state = self.check("replacement", "C", "rule_out", "recognise", "choose", "make_safe", "record")
        self.assertEqual(state["found"], {"S1": "01"})

    def test_another_position_reopens_the_record_and_what_hangs_on_it(self) -> None:
        self.check("found.S1", "11", "rule_out", "recognise", "choose", "make_safe")

    def test_a_position_set_by_hand_stands_above_an_angle_read_before(self) -> None:
        state = changed(advanced(), "angle.VR1", {"degrees": 20, "within": 5, "nearest": "3"})
        self.assertEqual(changed(state, "found.VR1", "2")["angles"], {})

    def test_a_blind_reading_that_differs_reopens_the_record_and_one_that_agrees_does_not(self) -> None:
        self.assertTrue(done(changed(advanced(), "blind.S1", {"value": "01"}), "record"))
        self.check("blind.S1", {"value": "11"}, "rule_out", "recognise", "choose", "make_safe")

    def test_a_fact_reopens_the_plan_for_the_leaflets_table_hangs_on_it(self) -> None:
        fact = {"value": "DK2", "source": "plate"}
        self.check("fact.model", fact, "rule_out", "recognise", "choose", "make_safe", "record")

    def test_an_override_reopens_the_plan(self) -> None:
        state = self.check("override.R1", "3", "rule_out", "recognise", "choose", "make_safe", "record")
        self.assertEqual(value_at(state, "override.R1"), "3")
        self.assertEqual(changed(state, "override.R1", None)["overrides"], {})

    def test_a_reason_reopens_only_the_plan(self) -> None:
        state = changed(advanced(), "reason.trial", "owner accepts")
        self.assertFalse(done(state, "carry_over"))
        self.assertTrue(done(state, "fit"))
        self.assertEqual(waiting_for(state, "fit"), ["carry_over"])

    def test_taking_a_confirmation_back_takes_what_rests_on_it(self) -> None:
        state = changed(advanced(), "confirmed.carry_over", None)
        self.assertFalse(any(done(state, step) for step in ("carry_over", "fit", "prove")))

    def test_the_state_before_is_left_as_it_was(self) -> None:
        before = advanced()
        changed(before, "found.S1", "11")
        self.assertEqual(before["found"], {"S1": "01"})

    def test_function_names_with_dots_are_whole_names(self) -> None:
        state = changed(advanced(), "reason.purge.post", "why")
        self.assertEqual(value_at(state, "reason.purge.post"), "why")
