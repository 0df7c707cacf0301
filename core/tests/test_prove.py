"""Proving on the machine: events against bands, runs from data, and reasons by Bayes' rule."""

import json
from itertools import combinations
from pathlib import Path
from typing import Any

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from twincore import profile
from twincore.behaviour import make_twin, prove
from twincore.behaviour.simulate import run_values
from twincore.errors import DocumentError
from twincore.profile import Scenario, Step, Trace
from twincore.profile.trace import Seen
from twincore.prove import (
    compare_events,
    due_from_trace,
    expected_events,
    judge_run,
    likely_reasons,
    overrides_of,
    plan_proving,
    readings_of,
)
from twincore.prove.data import forcing_of
from twincore.prove.judging import _paired
from twincore.prove.making import steps_made
from twincore.rule_out import parse_rule_out

DEMO = Path(__file__).parents[2] / "demo"
FAMILY = {
    "format": "worthy-twin/family", "version": 1, "id": "f", "inputs": [{"id": "power"}, {"id": "go"}, {"id": "odd"}],
    "outputs": [{"id": "fan"}, {"id": "lamp", "compare": False}],
    "functions": [
        {"id": "wait", "type": "duration", "importance": "behaviour", "tolerance": {"below": 1, "above": 4}},
        {"id": "run", "type": "duration", "importance": "behaviour", "tolerance": {"below": 2, "above": 3}},
    ],
    "scenarios": [{"id": "s", "title": "One cycle", "steps": [{"at": 2, "set": {"go": True}}], "until": 60},
                  {"id": "o", "title": "Odd", "steps": [{"at": 1, "set": {"odd": True}}], "until": 9}],
    "proving": {"inputs": [{"input": "go", "way": "hand", "begin": "press"}, {"input": "odd", "way": "cannot", "why": "never"}],
                "runs": [{"id": "cycle", "scenario": "s", "kind": "full cycle"}, {"id": "odd", "scenario": "o", "kind": "fault"}],
                "readings": [{"id": "r", "title": "Current", "unit": "A", "band": {"to": 3}, "source": "x", "if": {"model": "M"}}],
                "overrides": [{"id": "held", "what": "Held", "time_out_s": 60}]},
}  # fmt: skip
BOARD = {
    "format": "worthy-twin/board", "version": 1, "part_number": "P", "maker": "M", "title": "t", "family": "f", "status": "current",
    "settings": [], "functions": {"wait": {"fixed": 10}, "run": {"fixed": 20}},
    "behaviour": {"start": "off", "states": {
        "off": {"on": [], "go": [{"to": "wait", "if": {"go": True}}, {"to": "odd", "if": {"odd": True}}]},
        "wait": {"on": [], "go": [{"to": "run", "after": "wait"}]},
        "run": {"on": ["fan"], "go": [{"to": "rest", "after": "run"}]},
        "rest": {"on": ["lamp"], "go": []}, "odd": {"on": ["fan"], "go": []}}},
}  # fmt: skip


def family(**more: Any) -> profile.Family:
    return profile.parse_family(json.dumps({**FAMILY, **more}).encode())


def board(**more: Any) -> profile.Board:
    return profile.parse_board(json.dumps({**BOARD, **more}).encode())


def trace(*seen: tuple[float, bool], until: float = 60, within: float = 0.5, timed: str = "by hand") -> Trace:
    scenario = Scenario("", (Step(2, (("go", True),)),), until)  # type: ignore[arg-type]
    return Trace("P", scenario, tuple(Seen(at, "fan", on, within) for at, on in seen), timed)  # type: ignore[arg-type]


VALUES = {"wait": 10, "run": 20}


class Bands(SimpleTestCase):
    def test_tolerances_of_every_duration_on_the_way_add_up(self) -> None:
        # by hand: on at 2 + 10 s, so 11 to 16 s; off 20 s later, so 12 + 20 - 1 - 2 = 29 to 32 + 4 + 3 = 39 s
        scenario = family().scenarios[0]
        due = expected_events(board(), VALUES, family(), scenario)
        self.assertEqual([(e.on, e.at, e.low, e.high) for e in due], [(True, 12, 11, 16), (False, 32, 29, 39)])

    def test_the_inputs_are_those_that_were_made_not_those_that_were_planned(self) -> None:
        late = Scenario("", (Step(5, (("go", True),)),), 60)
        self.assertEqual([e.at for e in expected_events(board(), VALUES, family(), late)], [15, 35])

    def test_only_outputs_that_the_family_compares_are_due(self) -> None:
        self.assertEqual({e.output for e in expected_events(board(), VALUES, family(), family().scenarios[0])}, {"fan"})


class Judged(SimpleTestCase):
    def verdicts(self, *seen: tuple[float, bool], **more: Any) -> list[str]:
        return [e.verdict for e in judge_run(board(), VALUES, family(), trace(*seen, **more)).events]

    def test_each_event_against_its_band_and_the_doubt_of_the_timing(self) -> None:
        self.assertEqual(self.verdicts((12.0, True), (32.0, False)), ["in time", "in time"])
        self.assertEqual(self.verdicts((20.0, True), (32.0, False)), ["late", "in time"])
        self.assertEqual(self.verdicts((5.0, True), (32.0, False)), ["early", "in time"])
        # 0.5 s for the event and 0.5 s for the input before it: 0.707 s, so 16.5 s may be inside 16 s or not
        self.assertEqual(self.verdicts((16.5, True), (32.0, False)), ["cannot tell", "in time"])
        run = judge_run(board(), VALUES, family(), trace((16.5, True), (32.0, False)))
        # by hand: the root of 0.25 + 0.25 (JCGM 100:2008, 5.1.2: root sum of squares)
        self.assertAlmostEqual(run.events[0].uncertainty_s, 0.70710678)
        self.assertEqual(run.verdict, "cannot tell")

    def test_missing_and_extra_events_are_named_and_do_not_shift_the_others(self) -> None:
        self.assertEqual(self.verdicts(), ["missing", "missing"])
        self.assertEqual(
            self.verdicts((4.0, True), (5.0, False), (12.0, True), (32.0, False)),
            ["extra", "extra", "in time", "in time"],
        )

    def test_what_was_hardly_due_when_the_run_ended_is_not_missing(self) -> None:
        self.assertEqual(self.verdicts((12.0, True), until=30), ["in time"])
        self.assertEqual(self.verdicts((12.0, True), until=36), ["in time", "cannot tell"])
        self.assertEqual(self.verdicts((12.0, True), until=41), ["in time", "missing"])

    def test_a_board_nobody_wrote_down_is_held_against_what_it_was_seen_to_do(self) -> None:
        observed = trace((12.0, True), (32.0, False))
        made = Trace(
            "Q",
            Scenario("", (Step(7, (("go", True),)),), 60),
            (Seen(17, "fan", True, 1), Seen(44, "fan", False, 1)),
            "x",
        )  # type: ignore[arg-type]
        due = due_from_trace(observed, made)
        self.assertEqual([(e.at, e.low, e.high) for e in due], [(17.0, 16.5, 17.5), (37.0, 36.5, 37.5)])
        found = compare_events(due, made, family())
        self.assertEqual([e.verdict for e in found.events], ["in time", "late"])

    @settings(max_examples=150)
    @given(
        st.lists(st.tuples(st.booleans(), st.integers(0, 30)), max_size=5),
        st.lists(st.tuples(st.booleans(), st.integers(0, 30)), max_size=5),
    )
    def test_pairing_is_the_best_of_every_pairing_there_is(self, due: list[Any], seen: list[Any]) -> None:
        """Full enumeration of order-preserving pairings, separate from the product's own recurrence."""
        due, seen = (
            [(on, float(at)) for on, at in sorted(due, key=lambda e: e[1])],
            [(on, float(at)) for on, at in sorted(seen, key=lambda e: e[1])],
        )
        best = min(
            (-size, sum(abs(due[i][1] - seen[j][1]) for i, j in zip(mine, theirs, strict=True)))
            for size in range(min(len(due), len(seen)) + 1)
            for mine in combinations(range(len(due)), size)
            for theirs in combinations(range(len(seen)), size)
            if all(due[i][0] == seen[j][0] for i, j in zip(mine, theirs, strict=True))
        )
        pairs = _paired(due, seen)
        both = [(i, j) for i, j in pairs if i is not None and j is not None]
        self.assertEqual((-len(both), sum(abs(due[i][1] - seen[j][1]) for i, j in both)), best)
        self.assertEqual([i for i, _ in pairs if i is not None], list(range(len(due))))
        self.assertEqual([j for _, j in pairs if j is not None], list(range(len(seen))))


class Plans(SimpleTestCase):
    def plan(self, replacement: profile.Board, **more: Any) -> Any:
        kind = family(**more)
        original = board()
        empty = profile.factory_record(original)
        twin = make_twin(original, empty, replacement, empty, kind)
        return plan_proving(kind, twin, prove(twin).counter_case, {}, replacement, twin.values[1], {})

    def test_a_pair_in_register_gets_the_checkout_and_is_told_what_stays_unproved(self) -> None:
        plan = self.plan(board())
        self.assertEqual(
            [(run.id, run.why, run.cannot) for run in plan.runs],
            [("cycle", "checkout", ()), ("odd", "checkout", ("odd",))],
        )
        self.assertEqual((plan.unmade, plan.unreached, plan.impossible), (("power", "odd"), (("m0", "odd"),), ("odd",)))

    def test_the_counter_case_comes_first(self) -> None:
        slow = board(part_number="Q", functions={"wait": {"fixed": 30}, "run": {"fixed": 20}})
        plan = self.plan(slow)
        self.assertEqual((plan.runs[0].id, [s.input for s in plan.runs[0].steps]), ("counter-case", ["go"]))
        self.assertEqual(plan.runs[0].steps[0].forcing.begin, "press")

    def test_one_that_cannot_be_made_is_looked_for_anew_another_way(self) -> None:
        states = BOARD["behaviour"]["states"]  # type: ignore[index]
        odd = board(part_number="Q", behaviour={"start": "off", "states": {**states, "odd": {"on": [], "go": []}, "rest": {
            "on": ["fan"], "go": []}}})  # fmt: skip
        plan = self.plan(odd)
        self.assertEqual([(r.id, r.cannot) for r in plan.runs[:2]], [("counter-case", ("odd",)), ("another-way", ())])
        only = board(part_number="Q", behaviour={"start": "off", "states": {**states, "odd": {"on": [], "go": []}}})
        self.assertEqual([r.id for r in self.plan(only).runs], ["counter-case", "cycle", "odd"])

    def test_how_a_change_is_made_is_right_in_the_order_of_the_work(self) -> None:
        """An input that follows an output begins and ends by itself only while that output says so."""
        lamp = {"input": "odd", "way": "follows", "begin": "it lights", "end": "it goes out", "with": "fan",
                "make_begin": "hold a match to it", "make_end": "shut the cock", "keep_off": "shut the cock", "undo": "open the cock"}  # fmt: skip
        # the fan runs from 12 to 32 s
        start = {"at": 2, "set": {"go": True}}
        runs: dict[str, list[dict[str, Any]]] = {
            "by itself": [start, {"at": 14, "set": {"odd": True}}, {"at": 33, "set": {"odd": False}}],
            "by hand": [start, {"at": 14, "set": {"odd": True}}, {"at": 20, "set": {"odd": False}}],
            "kept away": [start],
            "early": [start, {"at": 5, "set": {"odd": True}}],
        }
        scenarios = [{"id": name, "title": name, "steps": steps, "until": 60} for name, steps in runs.items()]
        proving = {"inputs": [lamp], "runs": [{"id": n, "scenario": n, "kind": "full cycle"} for n in runs]}
        states = BOARD["behaviour"]["states"]  # type: ignore[index]
        deaf = board(
            behaviour={
                "start": "off",
                "states": {**states, "off": {"on": [], "go": [{"to": "wait", "if": {"go": True}}]}},
            }
        )
        plan = {run.id: run for run in self.plan(deaf, scenarios=scenarios, proving=proving).runs}

        kind = family(scenarios=scenarios, proving=proving)
        scenario = next(each for each in kind.scenarios if each.title == "early")
        exactly = (scenario, forcing_of(kind), run_values(deaf, VALUES, kind, scenario), True)  # type: ignore[arg-type]

        def told(name: str) -> list[tuple[Any, ...]]:
            return [(s.at, s.way, s.how) for s in plan[name].steps if s.input == "odd"]

        self.assertEqual(told("by itself"), [(14, "follows", "it lights"), (33, "follows", "it goes out")])
        self.assertEqual(told("by hand"), [(14, "follows", "it lights"), (20, "hand", "shut the cock")])
        # the times of a checkout run are about when things happen; in a counter-case they are exact
        self.assertEqual(told("early"), [(5, "follows", "it lights")])
        self.assertEqual(
            [(s.way, s.how) for s in steps_made(*exactly)[0] if s.input == "odd"], [("hand", "hold a match to it")]
        )
        kept = {name: [(k.how, k.undo) for k in plan[name].kept] for name in runs}
        self.assertEqual(
            kept, {"by itself": [], "by hand": [], "early": [], "kept away": [("shut the cock", "open the cock")]}
        )

    def test_the_ovens_runs_say_who_shuts_the_cock_and_when(self) -> None:
        """A defect: a normal bake said to shut the gas cock at its end, and the run with the cock shut never said to shut it."""
        kind = profile.parse_family((DEMO / "families" / "deck-oven.family.json").read_bytes())
        oven = profile.parse_board((DEMO / "boards" / "TVH-2210-B.board.json").read_bytes())
        record = profile.factory_record(oven)
        twin = make_twin(oven, record, oven, record, kind)
        plan = {run.id: run for run in plan_proving(kind, twin, None, {}, oven, twin.values[1], {}).runs}
        flames = {name: [(s.value, s.way) for s in run.steps if s.input == "flame"] for name, run in plan.items()}
        self.assertEqual(flames["bake"], [(True, "follows"), (False, "follows")])
        self.assertEqual(flames["flame-loss"], [(True, "follows"), (False, "hand")])
        self.assertEqual([k.input for k in plan["no-gas"].kept], ["flame"])
        self.assertEqual(plan["bake"].kept, ())

    def test_names_that_a_family_does_not_have_are_refused_with_their_place(self) -> None:
        for change, place in (
            ({"inputs": [{"input": "no", "way": "hand"}]}, "proving.inputs[0].input"),
            ({"inputs": [{"input": "go", "way": "cannot"}]}, "proving.inputs[0].why"),
            ({"inputs": [{"input": "go", "way": "follows", "with": "no"}]}, "proving.inputs[0].with"),
            ({"runs": [{"id": "x", "scenario": "no", "kind": "fault"}]}, "proving.runs[0].scenario"),
            ({"readings": [{"id": "x", "title": "x", "unit": "A", "band": {"from": 3, "to": 2}, "source": "s"}]}, "proving.readings[0].band"),
        ):  # fmt: skip
            with self.assertRaises(DocumentError) as caught:
                family(proving=change)
            self.assertEqual([f.place for f in caught.exception.faults], [place])

    def test_readings_and_overrides_come_from_the_family_as_far_as_the_machine_has_them(self) -> None:
        self.assertEqual([r.id for r in readings_of(family(), {"model": "M"})], ["r"])
        self.assertEqual(readings_of(family(), {"model": "N"}), [])
        self.assertEqual([o.time_out_s for o in overrides_of(family())], [60.0])


class Reasons(SimpleTestCase):
    def test_suspects_are_weighed_by_bayes_rule(self) -> None:
        data = parse_rule_out((DEMO / "rule-out/deck-oven.rule-out.json").read_bytes())
        sign = next(each for each in data.signs if each.output == "fan")
        weights = {each.id: each.weight / (2 if each.id == "board" else 1) for each in data.suspects}
        total = sum(weights[name] * sign.likelihoods[name] for name in weights)
        best = max(weights, key=lambda name: weights[name] * sign.likelihoods[name])
        found = likely_reasons(data, "fan", "missing")
        self.assertEqual(found[0].suspect, best)
        self.assertAlmostEqual(found[0].weight, weights[best] * sign.likelihoods[best] / total)
        self.assertEqual(likely_reasons(data, "lamp", "missing"), [])
        only = {each.id: float(each.id == "supply") for each in data.suspects}
        self.assertEqual([r.suspect for r in likely_reasons(data, "fan", "late", only)], ["supply"])
