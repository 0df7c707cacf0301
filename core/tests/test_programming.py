from typing import Any

import networkx
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builders import encoded, record, small_board
from twincore import profile, programming
from twincore.errors import DocumentError
from twincore.programming import Panel, Shown

MENU_KEYS = {"next": "▶", "previous": "◀", "enter": "OK", "up": "+", "down": "−"}


def panel(kind: str, **more: Any) -> Panel:
    settings = {
        "menu": [
            {"id": "P1", "kind": "parameter", "min": 0, "max": 7, "step": 1, "factory": 0},
            {"id": "P2", "kind": "parameter", "min": 0, "max": 3, "step": 1, "factory": 1},
            {"id": "P3", "kind": "program", "values": ["A", "B", "C"], "factory": "A"},
        ],
        "digits": [{"id": "key", "kind": "code", "places": 3, "symbols": "0123", "factory": "000"}],
        "cycle": [{"id": "prog", "kind": "program", "values": ["A", "B", "C", "D"], "factory": "A"}],
        "dial": [{"id": "prog", "kind": "program", "values": ["A", "B", "C", "D"], "factory": "A"}],
    }[kind]
    items = {"items": ["P1", "P2", "P3"]} if kind == "menu" else {"element": settings[0]["id"]}
    board = profile.parse_board(encoded(small_board(None, settings=settings, panels=[{"kind": kind, **items, **more}])))
    return programming.panels_of(board)[0]


def graph(of: Panel, start: Shown) -> networkx.DiGraph:
    """Every state that a panel can come to, by a library of graphs."""
    found = networkx.DiGraph()
    waiting = [start]
    while waiting:
        here = waiting.pop()
        for action in of.keys:
            there = of.press(here, action)
            if there not in found:
                waiting.append(there)
            if there != here:
                found.add_edge(here, there)
    return found


PANELS = {
    "menu on a ring": panel("menu", keys=MENU_KEYS),
    "menu in a row": panel("menu", keys=MENU_KEYS, wraps=False),
    "menu with one way only, values on a ring": panel(
        "menu", keys={"next": "▶", "enter": "OK", "up": "+"}, values_wrap=True
    ),
    "menu with fast keys and a way out": panel(
        "menu", keys={**MENU_KEYS, "fast_up": "++", "store": "SET", "leave": "ESC"}, fast=3
    ),
    "digits on a ring": panel("digits", keys={"next": "▶", "previous": "◀", "up": "+", "down": "−", "store": "OK"}),
    "digits with two keys": panel("digits", keys={"next": "▶", "up": "+", "store": "OK"}),
    "cycle": panel("cycle", keys={"next": "A + B"}, hold_s=3),
    "cycle that stores": panel("cycle", keys={"next": "A + B", "store": "OK"}),
    "dial": panel("dial", keys={"next": "right", "previous": "left", "store": "push"}, wraps=False),
}


def values(of: Panel, draw: Any) -> tuple[tuple[int, ...], ...]:
    return tuple(
        tuple(draw(st.integers(0, len(domain) - 1)) for _ in range(length))
        for domain, length in zip(of.domains, of.lengths, strict=True)
    )


class Shortest(SimpleTestCase):
    """Against breadth-first search over the panel as a state machine, by networkx."""

    @settings(max_examples=150)
    @given(st.sampled_from(sorted(PANELS)), st.data())
    def test_no_series_of_presses_is_shorter(self, name: str, data: st.DataObject) -> None:
        of = PANELS[name]
        start, goal = of.at_rest(values(of, data.draw)), values(of, data.draw)
        goals = {item: goal[item] for item in range(len(of.items))}
        actions = programming.shortest(of, start, goals)
        shown = start
        for action in actions:
            shown = of.press(shown, action)
        self.assertEqual((shown.values, shown.editing), (goal, of.kind != "menu"))
        self.assertEqual(sum(press.times for press in programming.told(of, start, actions)), len(actions))
        states = graph(of, start)
        ends = [s for s in states if s.values == goal and s.editing == (of.kind != "menu")]
        lengths = networkx.single_source_shortest_path_length(states, start) if start in states else {}
        ways = [lengths[each] for each in ends if each in lengths and (of.kind == "menu" or each.draft == goal[0])]
        self.assertEqual(len(actions), 0 if start.values == goal else min(ways))

    @settings(max_examples=60)
    @given(st.sampled_from(sorted(PANELS)), st.data())
    def test_a_single_slip_is_found_and_the_way_on_leads_to_the_goal(self, name: str, data: st.DataObject) -> None:
        of = PANELS[name]
        start, goal = of.at_rest(values(of, data.draw)), values(of, data.draw)
        goals = {item: goal[item] for item in range(len(of.items))}
        actions = programming.shortest(of, start, goals)
        if not actions:
            return
        slip = data.draw(st.integers(0, len(actions) - 1))
        shown = start
        for action in [*actions[:slip], data.draw(st.sampled_from(sorted(of.keys)))]:
            shown = of.press(shown, action)
        found = programming.find_slips(of, start, actions[: slip + 1], of.text(shown), goals)
        self.assertIn(shown, [each.now for each in found])
        for each in found:
            after = each.now
            for press in each.back or ():
                for _ in range(press.times):
                    after = of.press(after, press.action)
            if each.back is not None:
                self.assertEqual(after.values, goal)


class Plans(SimpleTestCase):
    def test_a_plan_says_what_must_be_seen_after_each_press(self) -> None:
        board = profile.parse_board(
            encoded(
                small_board(
                    None,
                    settings=[
                        {"id": "P1", "kind": "parameter", "min": 0, "max": 300, "step": 5, "factory": 60},
                        {"id": "P2", "kind": "parameter", "min": 0, "max": 9, "step": 1, "factory": 0},
                        {"id": "S1", "kind": "dip", "positions": 2, "factory": "00"},
                    ],
                    panels=[{"kind": "menu", "keys": MENU_KEYS, "items": ["P1", "P2"], "wraps": True,
                             "open": [{"press": "OK", "hold_s": 5, "shows": "P1"}]}],
                )
            )
        )  # fmt: skip
        plan = programming.plan_presses(board, profile.factory_record(board), record(board, P1=75, P2=9, S1="01"))
        shown = [(press.key, press.times, press.shows) for press in plan.panels[0].presses]
        self.assertEqual(shown, [("OK", 1, "P1"), ("OK", 1, "60"), ("+", 3, "75"), ("OK", 1, "P1"), ("▶", 1, "P2"),
                                 ("OK", 1, "0"), ("+", 9, "9"), ("OK", 1, "P2")])  # fmt: skip
        self.assertEqual((plan.count, plan.by_hand), (18, ("S1",)))
        with self.assertRaises(ValueError):
            programming.plan_presses(board, record(board, P2=0, S1="00"), record(board, P1=75, P2=9, S1="01"))

    def test_a_panel_names_what_its_board_has(self) -> None:
        document = small_board(None, panels=[{"kind": "menu", "keys": MENU_KEYS, "items": ["P9"]},
                                             {"kind": "cycle", "keys": {"next": "x", "store": "x"}, "element": "P9"}])  # fmt: skip
        with self.assertRaises(DocumentError) as caught:
            profile.parse_board(encoded(document))
        self.assertEqual([f.place for f in caught.exception.faults],
                         ["panels[0].items[0]", "panels[1].element", "panels[1].keys"])  # fmt: skip
