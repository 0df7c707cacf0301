"""The rules of a job: the order of the work, what entries do, and what their values may be."""

import json
from datetime import UTC, datetime
from pathlib import Path
from typing import Any, get_type_hints

import jsonschema
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from tests.builders import encoded
from twincore.errors import DocumentError, WrongValue
from twincore.job import (
    STEPS,
    TARGETS,
    VERSION,
    EntryMade,
    State,
    changed,
    current,
    done,
    empty_state,
    step_in_hand,
    step_of,
    value_at,
    waiting_for,
)
from twincore.job.case import Case
from twincore.job.record.schema import published, value_schemas
from twincore.job.rules.changing import KEPT_BESIDE
from twincore.job.shared.meanings import checked_meaning
from twincore.job.steps import CAPTURED
from twincore.job.target import AS_SAID, Confirmation, Subject, Target
from twincore.profile import parse_board, parse_family
from twincore.sketch import board_document, kind_document, read_lines

WHATEVER_THE_SUPPLY = {
    "answers": "whether the board answers at all",
    "unread": "nothing is touched to say that nothing can be read",
    "assumed": "said from papers",
    "picture": "taken through the open door, or of the plate",
    "settled": "a word on what was recorded",
    "between": "said from the diagram, or seen",
    "temporary": "what was found held or bridged, said at any time",
    "kit": "counted out of the box",
    "in_hand": "read off a board that is not in the machine",
    "readback": "read off the board in the hand, or on its display",
    "forced": "that an override is off can always be said",
}
"""What is said in steps at the machine, and is true however its supply stands: why."""
AT = datetime(2026, 3, 2, 3, 0, tzinfo=UTC)


def said(state: State, target: str, value: Any, read_how: str = "", **adds: Any) -> State:
    """The state after somebody says this."""
    return changed(state, EntryMade(7, AT, "somebody", target, value, "", read_how, adds))


YES = {"note": ""}


def advanced(*targets: str) -> State:
    """A state after the usual entries, up to those named."""
    usual: dict[str, object] = {
        "confirmed.rule_out": YES, "original": "A", "replacement": "B", "confirmed.make_safe": YES, "found.S1": "01",
        "confirmed.record": YES, "confirmed.carry_over": YES, "confirmed.fit": YES, "confirmed.prove": YES,
    }  # fmt: skip
    state = empty_state()
    for target in targets or usual:
        state = said(state, target, usual[target])
    return state


class Order(SimpleTestCase):
    def test_the_step_in_hand_follows_the_work(self) -> None:
        seen = []
        state = empty_state()
        for target in ("confirmed.rule_out", "original", "replacement", "confirmed.make_safe", "confirmed.record",
                       "confirmed.carry_over", "confirmed.fit", "confirmed.prove"):  # fmt: skip
            seen.append(step_in_hand(state))
            state = said(state, target, YES if "." in target else "A")
        self.assertEqual(seen, list(STEPS[:-1]))
        self.assertEqual(step_in_hand(state), "hand_over")

    def test_the_hold_point_stands_before_everything_that_is_touched(self) -> None:
        state = advanced("original", "replacement")
        for step in ("record", "carry_over", "fit", "prove", "hand_over"):
            self.assertTrue(waiting_for(state, step), step)
        self.assertEqual(waiting_for(state, "record"), ["make_safe"])
        self.assertEqual(waiting_for(state, "make_safe"), [])

    def test_every_target_belongs_to_a_step_and_has_its_place_in_the_state(self) -> None:
        fresh = empty_state()
        for kind, target in TARGETS.items():
            with self.subTest(kind):
                self.assertIn(target.step, STEPS)
                self.assertEqual(step_of(f"{kind}.x.y" if target.named else kind), target.step)
                self.assertEqual(fresh[target.key], {} if target.named else "on" if kind == "power" else None)  # type: ignore[literal-required]
                self.assertLessEqual(set(target.takes_back), set(STEPS))
        self.assertEqual(len({target.key for target in TARGETS.values()}), len(TARGETS))
        self.assertEqual([step_of(f"confirmed.{step}") for step in STEPS], list(STEPS))

    def test_the_state_is_declared_whole(self) -> None:
        declared = set(get_type_hints(State)) - {"closed_as"}
        self.assertEqual(set(empty_state()), declared)
        self.assertEqual(empty_state()["version"], VERSION)
        self.assertEqual(current({"found": {"S1": "1"}})["found"], {"S1": "1"})


class Changes(SimpleTestCase):
    def check(self, target: str, value: object, *still_done: str) -> State:
        state = said(advanced(), target, value)
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
        state = said(advanced(), "angle.VR1", {"degrees": 20, "within": 5, "nearest": "3"})
        self.assertEqual(said(state, "found.VR1", "2")["angles"], {})

    def test_a_blind_reading_that_differs_reopens_the_record_and_one_that_agrees_does_not(self) -> None:
        self.assertTrue(done(said(advanced(), "blind.S1", {"value": "01"}), "record"))
        self.check("blind.S1", {"value": "11"}, "rule_out", "recognise", "choose", "make_safe")

    def test_a_fact_reopens_the_plan_for_the_leaflets_table_hangs_on_it(self) -> None:
        fact = {"value": "DK2", "source": "plate"}
        self.check("fact.model", fact, "rule_out", "recognise", "choose", "make_safe", "record")

    def test_an_override_reopens_the_plan(self) -> None:
        state = self.check("override.R1", "3", "rule_out", "recognise", "choose", "make_safe", "record")
        self.assertEqual(value_at(state, "override.R1"), "3")
        self.assertEqual(said(state, "override.R1", None)["overrides"], {})

    def test_a_reason_reopens_only_the_plan(self) -> None:
        state = said(advanced(), "reason.trial", "owner accepts")
        self.assertFalse(done(state, "carry_over"))
        self.assertTrue(done(state, "fit"))
        self.assertEqual(waiting_for(state, "fit"), ["carry_over"])

    def test_taking_a_confirmation_back_takes_what_rests_on_it(self) -> None:
        state = said(advanced(), "confirmed.carry_over", None)
        self.assertFalse(any(done(state, step) for step in ("carry_over", "fit", "prove")))

    def test_the_state_before_is_left_as_it_was(self) -> None:
        before = advanced()
        said(before, "found.S1", "11")
        self.assertEqual(before["found"], {"S1": "01"})

    def test_function_names_with_dots_are_whole_names(self) -> None:
        state = said(advanced(), "reason.purge.post", "why")
        self.assertEqual(value_at(state, "reason.purge.post"), "why")

    def test_every_declared_consequence_comes_true(self) -> None:
        values: dict[str, Any] = {
            "energised": {"released": []},
            "angle": {"nearest": "3"},
            "signed": {"ok": True, "note": ""},
        }
        for kind, target in TARGETS.items():
            if kind in ("family", "original", "replacement", "power", "hold", "blind", "board"):
                continue  # they do more than take confirmations back; told apart below
            with self.subTest(kind):
                before = advanced()
                value = values.get(kind, {} if target.keep is not AS_SAID else "x")
                after = said(before, f"{kind}.x" if target.named else kind, value)
                gone = {step for step in STEPS if step in before["confirmed"] and step not in after["confirmed"]}
                self.assertEqual(gone, set(target.takes_back) & set(before["confirmed"]))

    def test_what_speaks_of_something_else_goes_and_the_rest_stays(self) -> None:
        full = empty_state()
        for target in TARGETS.values():
            full[target.key] = {"x": "y"} if target.named else "y"  # type: ignore[literal-required]
        order: list[Subject] = ["machine", "kind", "original", "replacement"]
        for kind, subject in (("family", "kind"), ("original", "original"), ("replacement", "replacement")):
            after = said(full, kind, "Z", family="y")
            for target in TARGETS.values():
                if target.kind in ("family", "original", "replacement", "power"):
                    continue
                with self.subTest(kind, target=target.kind):
                    stays = order.index(target.of) < order.index(subject)  # type: ignore[arg-type]
                    self.assertEqual(bool(after[target.key]), stays)  # type: ignore[literal-required]

    def test_the_supply_coming_back_opens_every_hold_point(self) -> None:
        held = said(advanced(), "hold.isolate", {"where": "main switch"}, isolates=True)
        self.assertEqual((held["power"], list(held["holds"])), ("off", ["isolate"]))
        for target, value, adds in (
            ("power", "on", {}), ("hold.isolate", None, {"isolates": True}), ("test.supply", {"result": "good"}, {"powered": True}),
        ):  # fmt: skip
            with self.subTest(target):
                after = said(held, target, value, **adds)
                self.assertEqual((after["power"], after["holds"], done(after, "make_safe")), ("on", {}, False))
        dead = said(held, "test.fuse", {"result": "good"}, powered=False)
        self.assertEqual(dead["power"], "off")

    def test_a_refused_signature_is_kept_and_reopens_the_handing_over(self) -> None:
        state = said(advanced(), "confirmed.hand_over", YES, by_id=3)
        after = said(state, "signed", {"ok": False, "note": "serial is missing"})
        self.assertEqual((after["signed"], len(after["refused"]), done(after, "hand_over")), (None, 1, False))

    def test_what_is_kept_beside_a_value_is_never_sent(self) -> None:
        for kind, schema in value_schemas("#/{model}")["EntryValues"]["properties"].items():
            named = value_schemas("#/{model}").get(schema.get("$ref", "").removeprefix("#/"), schema)
            self.assertFalse(set(named.get("properties", {})) & set(KEPT_BESIDE), kind)

    def test_what_captures_something_says_so_and_something_is_captured(self) -> None:
        at_the_place = {kind for kind, target in TARGETS.items() if target.chooses} | {
            "picture",
            "signed",
        }  # see twinshown.entering
        self.assertEqual({kind for kind, target in TARGETS.items() if target.captures}, {*CAPTURED, *at_the_place})
        for kind, target in TARGETS.items():
            self.assertTrue(target.captures or not (target.untold or target.captures_always), kind)

    def test_no_target_is_declared_without_a_word_on_the_supply(self) -> None:
        with self.assertRaisesRegex(TypeError, "supply"):
            Target("smell", "record", str, "smells", "original")  # type: ignore[call-arg]
        with self.assertRaisesRegex(TypeError, "supply"):
            Confirmation("record")  # type: ignore[call-arg]
        unminded = {
            kind for kind, each in TARGETS.items() if each.supply == "any" and each.step in ("record", "fit", "prove")
        }
        self.assertEqual(unminded, set(WHATEVER_THE_SUPPLY), "each is looked at, and its reason is written down here")


class Values(SimpleTestCase):
    def faults(self, kind: str, value: Any) -> list[str]:
        try:
            TARGETS[kind].checked(value, "after")
        except DocumentError as error:
            return [str(fault) for fault in error.faults]
        return []

    def test_a_wrong_value_is_told_with_its_place(self) -> None:
        self.assertEqual(self.faults("symptom", "maybe"), ["after: expected one of yes, no"])
        self.assertEqual(self.faults("cost", -1), ["after: expected a number from 0 to 1,000,000"])
        self.assertEqual(self.faults("cost", True), ["after: expected a number from 0 to 1,000,000"])
        self.assertEqual(self.faults("kit", 1.5), ["after: expected a whole number from 0 to 1,000"])
        self.assertEqual(
            self.faults("fact", {"value": [1], "source": "seen"}),
            ["after.value: expected a number, a text, true or false"],
        )
        self.assertEqual(self.faults("found", True), ["after: expected a number or a text"])
        self.assertEqual(
            self.faults("wire", {"tag": "x", "length": 3}), ["after.length: expected nothing of that name"]
        )
        trace = {"steps": [{"at": "soon", "set": {"call": "on", "temp": 31.5, "door": True}}]}
        self.assertEqual(
            self.faults("trace", trace),
            ["after.steps[0].at: expected a number", "after.steps[0].set.call: expected true or false, or a number"],
        )
        self.assertEqual(
            self.faults("defect", {"what": "x"}), ["after.until: expected a value", "after.who: expected a value"]
        )
        self.assertEqual(self.faults("kept", "x" * 2001), ["after: expected a text of at most 2,000 characters"])

    def test_the_published_schema_is_what_is_declared(self) -> None:
        path = Path(__file__).resolve().parents[2] / "docs/formats/entry-values.schema.json"
        self.assertEqual(json.loads(path.read_text()), json.loads(json.dumps(published())))
        jsonschema.Draft202012Validator.check_schema(published())

    def test_the_published_schema_takes_what_is_taken(self) -> None:
        schema = jsonschema.Draft202012Validator(published())
        for kind, good, wrong in (
            ("wire", {"connector": "C1", "pin": "1", "mm2": 0.5}, {"mm2": -1}), ("symptom", "yes", "maybe"),
            ("settled", {"as": "was wired wrong"}, {"as": "fine"}), ("kit", 3, 1.5), ("found", "01?", True),
            ("picture", {"marks": [{"x": 0.5, "y": 1}]}, {"marks": [{"x": 2, "y": 1}]}), ("look", True, False),
        ):  # fmt: skip
            with self.subTest(kind):
                self.assertEqual((self.faults(kind, good), bool(self.faults(kind, wrong))), ([], True))
                properties = [
                    each.path[0] for value in (good, wrong) for each in schema.iter_errors({kind: value}) if each.path
                ]
                self.assertEqual(set(properties), {kind})
                self.assertFalse([each for each in schema.iter_errors({kind: good}) if each.path])

    def test_texts_are_trimmed_and_an_empty_one_is_none(self) -> None:
        self.assertEqual(TARGETS["report"].checked("  E7 "), "E7")
        self.assertIsNone(TARGETS["report"].checked("   "))

    @given(st.recursive(st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=8),
                        lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=6), inner, max_size=3), max_leaves=6),
           st.sampled_from(sorted(TARGETS)))  # fmt: skip
    def test_any_value_is_taken_or_refused_and_nothing_else(self, value: Any, kind: str) -> None:
        try:
            taken = TARGETS[kind].checked(value)
        except DocumentError as error:
            self.assertTrue(error.faults)
        else:
            json.dumps(taken, allow_nan=False)  # whatever is taken can be stored and written


class Meanings(SimpleTestCase):
    def test_places_with_very_many_positions_are_counted_and_not_made(self) -> None:
        sketch, _ = read_lines("P1 number 0..90000; P2 number 0..90000; P3 number 0..90000")
        board = parse_board(encoded(board_document(sketch, "K7", "", "", "mangle")))
        case = Case(
            state=empty_state(), family=parse_family(encoded(kind_document("mangle", "Mangle"))), original=board
        )
        said: Any = {"of": "K7", "title": "Drain", "type": "duration", "points": ["P1", "P2", "P3"], "values": ["1"]}
        with self.assertRaisesRegex(WrongValue, "a value for each way in which P1, P2, P3 may stand"):
            checked_meaning(case, "original/drain", said)
