from typing import Any

from django.test import SimpleTestCase

from tests.builders import demo_board, demo_family, encoded, record, small_board, small_family
from twincore import behaviour, profile, settings
from twincore.errors import DocumentError, TwinError
from twincore.profile import Scenario, Step


def trace_of(shown: list[Any], scenario: Scenario, part_number: str, shift: float = 0.0) -> dict[str, Any]:
    """A trace as somebody would have timed a run."""
    seen, before = [], set[str]()
    for entry in shown:
        for output in sorted(set(entry.on) ^ before):
            seen.append({"at": float(entry.at) + shift, "output": output, "on": output in entry.on, "within_s": 0.5})
        before = set(entry.on)
    return {
        "format": "worthy-twin/trace", "version": 1, "part_number": part_number, "until": float(scenario.until) + 1,
        "steps": [{"at": float(step.at), "set": dict(step.set)} for step in scenario.steps], "seen": seen,
    }  # fmt: skip


class Compared(SimpleTestCase):
    def setUp(self) -> None:
        self.family, self.original = demo_family(), demo_board("TVH-2210-B")
        self.found = record(self.original, S1="010110")
        steps = [(2, "call", True), (5, "airflow", True), (28, "flame", True), (90, "call", False)]
        self.scenario = Scenario("bake", tuple(Step(at, ((name, value),)) for at, name, value in steps), 260)
        shown = behaviour.simulate(self.original, self.found, self.family, self.scenario)
        self.document = trace_of(shown, self.scenario, "TVH-2210-B")

    def check(self, board: Any, positions: Any, document: dict[str, Any], wanted: Any = None) -> Any:
        trace = profile.parse_trace(encoded(document), self.family)
        return behaviour.check_trace(board, positions, self.family, trace, wanted)

    def test_a_board_makes_its_own_trace_and_a_timing_that_is_off_shows_where(self) -> None:
        self.assertTrue(self.check(self.original, self.found, self.document).agrees)
        late = {**self.document, "seen": [dict(each) for each in self.document["seen"]]}
        late["seen"][-1]["at"] += 3
        found = self.check(self.original, self.found, late)
        self.assertEqual([e.verdict for e in found.events if e.verdict != "in time"], ["early"])
        shorter = self.check(self.original, record(self.original, S1="010010"), self.document)
        self.assertEqual([(e.output, e.verdict) for e in shorter.events if e.verdict != "in time"], [("fan", "early")])

    def test_another_board_is_in_register_within_the_functions_tolerances(self) -> None:
        replacement = demo_board("OFN-U3")
        carried = settings.carry(self.original, self.found, replacement, self.family)
        assert carried.record is not None
        wanted = settings.wanted_functions(self.original, self.found, self.family)
        found = self.check(replacement, carried.record, self.document, wanted)
        self.assertTrue(found.agrees, found.events)

    def test_what_was_not_seen_or_is_not_made_is_named(self) -> None:
        cut = {**self.document, "seen": [each for each in self.document["seen"] if each["output"] != "igniter"]}
        found = self.check(self.original, self.found, cut)
        self.assertEqual(
            {(e.output, e.verdict) for e in found.events if e.verdict != "in time"}, {("igniter", "extra")}
        )
        more = {**self.document, "seen": [*self.document["seen"], {"at": 255, "output": "alarm", "on": True}]}
        found = self.check(self.original, self.found, more)
        self.assertEqual(
            [(e.output, e.verdict) for e in found.events if e.verdict != "in time"], [("alarm", "missing")]
        )

    def test_a_bad_trace_is_refused_and_an_unknown_behaviour_is_said(self) -> None:
        bad = {**self.document, "seen": [{"at": 5, "output": "fan", "on": False}, {"at": 3, "output": "x", "on": True}]}
        with self.assertRaises(DocumentError) as caught:
            profile.parse_trace(encoded(bad), self.family)
        self.assertEqual([f.place for f in caught.exception.faults], ["seen[0].on", "seen[1].at", "seen[1].output"])
        with self.assertRaises(TwinError):
            self.check(demo_board("OFN-K2"), profile.factory_record(demo_board("OFN-K2")), self.document)


class Drafted(SimpleTestCase):
    def timed(self, real: Any, family: Any, run: list[tuple[int, str, bool]]) -> Any:
        scenario = Scenario("", tuple(Step(at, ((name, value),)) for at, name, value in run), 120)
        shown = behaviour.simulate(real, profile.factory_record(real), family, scenario)
        return profile.parse_trace(encoded(trace_of(shown, scenario, "S-1", shift=0.2)), family)

    def test_a_machine_is_found_again_from_what_it_was_seen_to_do(self) -> None:
        family = profile.parse_family(encoded(small_family()))
        machine = {
            "start": "idle",
            "states": {
                "idle": {"on": [], "go": [{"to": "run", "if": {"a": True}}]},
                "run": {"on": ["x"], "go": [{"to": "late", "if": {"a": False}}, {"to": "full", "after": 20}]},
                "full": {"on": ["x", "y"], "go": [{"to": "late", "if": {"a": False}}]},
                "late": {"on": ["y"], "go": [{"to": "idle", "after": 7}]},
            },
        }
        real = profile.parse_board(encoded(small_board(machine)))
        unknown = profile.parse_board(encoded(small_board(None)))
        runs = [
            [(3, "a", True), (13, "a", False), (40, "a", True), (70, "a", False)],
            [(5, "a", True), (60, "a", False), (90, "a", True), (95, "a", False)],
        ]
        unseen = [(4, "a", True), (10, "a", False), (30, "a", True), (58, "a", False), (70, "a", True)]
        *traces, held_back = [self.timed(real, family, run) for run in [*runs, unseen]]
        draft = behaviour.draft_behaviour(unknown, family, traces)
        self.assertEqual(draft.made, (True, True))
        self.assertLessEqual(len(draft.behaviour["states"]), 4)
        drafted = behaviour.drafted_board(unknown, draft.behaviour)
        self.assertTrue(behaviour.check_trace(drafted, profile.factory_record(drafted), family, held_back).agrees)
        with self.assertRaises(TwinError):
            behaviour.draft_behaviour(unknown, family, [])
