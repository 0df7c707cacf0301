"""Dialogues: the way that answers lead, its presses against a search by a library of graphs, and what is refused."""

from typing import Any

import networkx
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builders import DEMO, demo_board, encoded, record, small_board
from tests.test_programming import graph
from twincore import profile, programming
from twincore.errors import DocumentError
from twincore.programming import GuidedPanel, find_slips, plan_presses, told
from twincore.programming.slips import Slip

SETTINGS = [
    {"id": "P1", "kind": "parameter", "min": 0, "max": 7, "step": 1, "factory": 0},
    {"id": "kind", "kind": "program", "values": ["A", "B", "C"], "factory": "A"},
    {"id": "P2", "kind": "parameter", "min": 0, "max": 3, "step": 1, "factory": 1},
]
KEYS = {"enter": "OK", "up": "+", "down": "−"}
STEPS: dict[str, Any] = {
    "pair": {"do": "Hold the pad's key", "press": "round", "hold_s": 5, "until": "lamp:", "blinks": 3, "then": "kind"},
    "kind": {"asks": "Which kind?", "shows": "1", "sets": "kind", "then": {"A": "time", "B": "more"}},
    "time": {"asks": "How long?", "shows": "2", "sets": "P1", "then": "more"},
    "more": {"asks": "How often?", "shows": "3", "sets": "P2", "then": "store"},
    "store": {"do": "Store", "press": "OK", "hold_s": 3, "until": "End"},
}


def dialogue(steps: dict[str, Any] = STEPS, **more: Any) -> dict[str, Any]:
    return {"kind": "guided", "title": "Dialogue", "keys": KEYS, "steps": steps, **more}


def board_with(panel: dict[str, Any]) -> profile.Board:
    return profile.parse_board(encoded(small_board(None, settings=SETTINGS, panels=[panel])))


BOARD = board_with(dialogue(open=[{"press": "OK", "hold_s": 4, "shows": "PAd"}]))
(PANEL,) = programming.panels_of(BOARD)
assert isinstance(PANEL, GuidedPanel)


def places(p1: int, kind: str, p2: int) -> profile.Record:
    return record(BOARD, P1=p1, kind=kind, P2=p2)


class Ways(SimpleTestCase):
    def test_each_answer_leads_to_the_next_question_and_signs_are_waited_for(self) -> None:
        plan = plan_presses(BOARD, places(0, "A", 1), places(2, "A", 1))
        lines = [(p.do or p.asks, p.key, p.times, p.hold_s, p.shows) for p in plan.panels[0].presses]
        self.assertEqual(
            lines,
            [
                ("", "OK", 1, 4.0, "PAd"), ("Hold the pad's key", "round", 1, 5.0, "lamp: 3 blinks"),
                ("Which kind?", "OK", 1, 0.0, "2 0"), ("How long?", "+", 2, 0.0, "2 2"), ("How long?", "OK", 1, 0.0, "3 1"),
                ("How often?", "OK", 1, 0.0, ""), ("Store", "OK", 1, 3.0, "End"),
            ],
        )  # fmt: skip
        self.assertEqual((plan.panels[0].sets, plan.by_hand, plan.unasked), (("P1",), (), ()))

    def test_what_these_answers_never_ask_for_is_told(self) -> None:
        plan = plan_presses(BOARD, places(0, "A", 1), places(5, "B", 1))
        self.assertEqual((plan.panels[0].sets, plan.unasked), (("kind",), ("P1",)))
        self.assertNotIn("How long?", [press.asks for press in plan.panels[0].presses])
        # C ends the dialogue at once, and nothing after it is asked
        self.assertEqual(plan_presses(BOARD, places(0, "C", 1), places(5, "C", 3)).unasked, ("P1", "P2"))
        self.assertEqual(plan_presses(BOARD, places(0, "C", 1), places(5, "C", 3)).panels, ())

    @settings(max_examples=120)
    @given(st.data())
    def test_no_series_of_presses_is_shorter(self, data: st.DataObject) -> None:
        """Against breadth-first search over the dialogue as a state machine, by networkx."""

        def some() -> tuple[tuple[int, ...], ...]:
            return tuple((data.draw(st.integers(0, len(domain) - 1)),) if domain else () for domain in PANEL.domains)

        start, goal = PANEL.at_rest(some()), some()
        names = {PANEL.items[i]: PANEL.domains[i][each[0]] for i, each in enumerate(goal) if each}
        asked = PANEL.asked(names)
        actions = programming.shortest(PANEL, start, dict(enumerate(goal)))
        shown = start
        for action in actions:
            shown = PANEL.press(shown, action)
        self.assertTrue(PANEL.left(shown))
        wanted = tuple(goal[i] if i in asked else start.values[i] for i in range(len(goal)))
        self.assertEqual(shown.values, wanted)
        self.assertEqual(sum(press.times for press in told(PANEL, start, actions)), len(actions))
        lengths = networkx.single_source_shortest_path_length(graph(PANEL, start), start)
        self.assertEqual(len(actions), min(n for s, n in lengths.items() if PANEL.left(s) and s.values == wanted))

    def test_a_slip_in_an_answer_is_found_by_what_is_asked_then(self) -> None:
        start = PANEL.at_rest(((), (0,), (0,), (1,), ()))
        found = find_slips(PANEL, start, ["done", "enter"], "3 1", {1: (0,)})
        self.assertEqual([(slip.kind, slip.key, slip.now.item) for slip in found], [("once too often", "OK", 3)])
        # the kind was moved on, and not confirmed
        found = find_slips(PANEL, start, ["done", "enter"], "1 B", {1: (0,)})
        self.assertEqual([(slip.kind, slip.press, slip.key) for slip in found], [("other key", 2, "+")])
        self.assert_leads_back(found[0])

    def assert_leads_back(self, slip: Slip) -> None:
        assert slip.back is not None
        shown = slip.now
        for press in slip.back:
            for _ in range(press.times):
                shown = PANEL.press(shown, press.action)
        self.assertEqual((PANEL.left(shown), shown.values[1]), (True, (0,)))

    def test_the_demo_board_is_asked_by_a_pad_that_is_paired_first(self) -> None:
        board = demo_board("OFN-S4")
        family = profile.parse_family((DEMO / "families/steam-generator.family.json").read_bytes())
        profile.check_board_in_family(board, family)
        at = {"P01": 120, "P02": 2, "P03": 5, "P04": 5, "P05": 40, "P06": 30, "P07": "0", "P08": "yes"}
        plan = plan_presses(board, record(board, **at), record(board, **{**at, "P06": 35, "P08": "no"}))
        self.assertEqual(plan.unasked, ("P06",))
        self.assertEqual([p.shows for p in plan.panels[0].presses if p.do][:2], ["the board's lamp: 3 blinks", "End"])


class Refused(SimpleTestCase):
    def test_a_dialogue_that_cannot_be_is_told_where(self) -> None:
        ask = {"asks": "?", "sets": "P1"}
        for steps, place, words in (
            ({"a": {**ask, "then": "b"}}, "panels[0].steps.a.then", "a step of this dialogue"),
            ({"a": {**ask, "then": {"9": "a"}}}, "panels[0].steps.a.then", "answers that can be given"),
            ({"a": {"do": "wait", "then": {"x": "a"}}}, "panels[0].steps.a.then", "nothing is answered here"),
            ({"a": {**ask, "then": "b"}, "b": {"do": "wait", "then": "a"}}, "panels[0].steps.a.then", "comes to an end"),
            ({"a": {"asks": "?", "sets": "P9"}}, "panels[0].steps.a.sets", "an element of this board"),
            ({"a": {"asks": "?"}}, "panels[0].steps.a", ""), ({}, "panels[0].steps", ""),
        ):  # fmt: skip
            with self.subTest(steps), self.assertRaises(DocumentError) as caught:
                board_with(dialogue(steps))
            told_of = [(fault.place, fault.expected) for fault in caught.exception.faults]
            self.assertTrue(any(at.startswith(place) and words in expected for at, expected in told_of), told_of)
        with self.assertRaises(DocumentError):
            board_with(dialogue(start="nowhere"))
