"""The shortest series of presses from what a panel shows to what it shall hold, with what is seen after each."""

from collections import deque
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import inf

from twincore.profile import Board, Record, Value
from twincore.programming.guided import DONE, GuidedPanel, guided_panel
from twincore.programming.panel import Panel, Shown, plain_panel


@dataclass(frozen=True, slots=True)
class Press:
    """Press a key so many times; `shows` is what must then be seen. `action` is what the key does here.

    In a dialogue, `asks` is the question that is answered; a line with `do` is something to do until its sign is seen.
    """

    key: str
    action: str
    times: int
    shows: str
    hold_s: float = 0.0
    asks: str = ""
    do: str = ""


@dataclass(frozen=True, slots=True)
class PanelPlan:
    """One panel's presses in order, and the elements that they set."""

    panel: Panel
    start: Shown
    presses: tuple[Press, ...]
    sets: tuple[str, ...]

    @property
    def count(self) -> int:
        """How many presses in all, opening included."""
        return sum(press.times for press in self.presses)


@dataclass(frozen=True, slots=True)
class PressPlan:
    """Every panel's plan; `by_hand` are elements that differ and that no panel sets (switches, jumpers), `unasked` those that
    a dialogue would set and, answered so, never asks for.
    """

    panels: tuple[PanelPlan, ...]
    by_hand: tuple[str, ...]
    unasked: tuple[str, ...] = ()

    @property
    def count(self) -> int:
        """How many presses in all."""
        return sum(plan.count for plan in self.panels)


def panels_of(board: Board) -> list[Panel]:
    """The panels of a board, in the order of its file."""
    return [
        guided_panel(node, board) if node["kind"] == "guided" else plain_panel(node, board)
        for node in board.document.get("panels", ())
    ]


def plan_presses(board: Board, start: Record, target: Record) -> PressPlan:
    """The presses that bring a board from one record to another, panel by panel; both must be readable where they differ.

    Shortest for each panel from where it opens. Raises ValueError where a position to be set is not known.
    """
    elements = {element.id: element for element in board.elements}
    left = [
        name
        for name, element in elements.items()
        if any(start.points[point.id] != target.points[point.id] for point in element.points)
    ]
    plans = []
    unasked: list[str] = []
    for panel in panels_of(board):
        sets = tuple(name for name in dict.fromkeys(panel.items) if name in left)
        if not sets:
            continue
        left = [name for name in left if name not in sets]
        if isinstance(panel, GuidedPanel):
            asked = {panel.items[step] for step in panel.asked(_answers(panel, board, target))}
            unasked += [name for name in sets if name not in asked]
            sets = tuple(name for name in sets if name in asked)
        if sets:
            plans.append(_panel_plan(panel, board, start, target, sets))
    return PressPlan(tuple(plans), tuple(left), tuple(unasked))


def _answers(panel: Panel, board: Board, target: Record) -> dict[str, Value | None]:
    points = {element.id: element.points[0].id for element in board.elements}
    return {name: target.points[points[name]] for name in panel.items if name}


def _panel_plan(panel: Panel, board: Board, start: Record, target: Record, sets: tuple[str, ...]) -> PanelPlan:
    values = tuple(indices(panel, number, board, start) for number in range(len(panel.items)))
    goals = {number: indices(panel, number, board, target) for number, name in enumerate(panel.items) if name in sets}
    here = panel.at_rest(values)
    presses = [
        Press(each["press"], "open", 1, each.get("shows", ""), float(each.get("hold_s", 0))) for each in panel.opening
    ]
    return PanelPlan(panel, here, (*presses, *told(panel, here, shortest(panel, here, goals))), sets)


def indices(panel: Panel, item: int, board: Board, record: Record) -> tuple[int, ...]:
    """Where an item's places stand in its domain. Raises ValueError for one that is not known."""
    if not panel.items[item]:
        return ()
    element = next(each for each in board.elements if each.id == panel.items[item])
    found = []
    for point in element.points:
        value = record.points[point.id]
        if value is None:
            raise ValueError(f"expected a known position of {point.id}; read it, or start from the factory's")
        found.append(point.domain.index(value))
    return tuple(found)


def shortest(panel: Panel, here: Shown, goals: Mapping[int, tuple[int, ...]]) -> list[str]:
    """The fewest actions from a panel's state to the values wanted; nothing else is changed on the way."""
    if isinstance(panel, GuidedPanel):
        return panel.way(here, goals, _value_moves)
    match panel.kind:
        case "menu":
            return _through_menu(panel, here, goals)
        case "digits":
            return _digits(panel, here, goals[0])
    moves = _value_moves(panel, here.draft[0], goals[0][0], len(panel.domains[0]))
    return moves + (["store"] if "store" in panel.keys and here.values[0] != goals[0] else [])


def _through_menu(panel: Panel, here: Shown, goals: Mapping[int, tuple[int, ...]]) -> list[str]:
    """Finish or leave what is being changed, then visit every item that is still to be changed."""
    todo = {item: goal for item, goal in goals.items() if here.values[item] != goal}
    store = "store" if "store" in panel.keys else "enter"
    actions: list[str] = []
    if here.editing:
        goal = todo.pop(here.item, here.values[here.item])
        if "leave" in panel.keys and goal == here.values[here.item]:
            actions = ["leave"]
        else:
            actions = [*_value_moves(panel, here.draft[0], goal[0], len(panel.domains[here.item])), store]
    ring = _Ring(len(panel.items), panel.wraps, "next" in panel.keys, "previous" in panel.keys)
    position = here.item
    for item in ring.walk(position, sorted(todo)):
        size = len(panel.domains[item])
        edit = ["enter", *_value_moves(panel, here.values[item][0], todo[item][0], size), store]
        actions += [*ring.moves(position, item), *edit]
        position = item
    return actions


@dataclass(frozen=True, slots=True)
class _Ring:
    """Places in a row or a ring, with a key onward, a key back, or both."""

    count: int
    wraps: bool
    onward: bool
    back: bool

    def moves(self, one: int, two: int) -> list[str]:
        """Single steps the shorter way. Raises ValueError where no key leads there."""
        ways = []
        if self.onward and (two >= one or self.wraps):
            ways.append(((two - one) % self.count, "next"))
        if self.back and (one >= two or self.wraps):
            ways.append(((one - two) % self.count, "previous"))
        if not ways:
            raise ValueError("expected a key that leads back; leave the panel and open it anew")
        count, key = min(ways)
        return [key] * count

    def walk(self, start: int, stops: list[int]) -> list[int]:
        """The order of stops with the fewest steps: one way round, or to one side first and then to the other."""
        if self.wraps:
            onward = sorted(stops, key=lambda stop: (stop - start) % self.count)
            cuts = [(onward[:cut], onward[cut:][::-1]) for cut in range(len(onward) + 1)]
        else:
            cuts = [([s for s in stops if s >= start], [s for s in stops if s < start][::-1])]
        orders = [order for ahead, behind in cuts for order in (ahead + behind, behind + ahead)]
        return min(orders, key=lambda order: (self._length([start, *order]), order))

    def _length(self, places: list[int]) -> float:
        try:
            return sum(len(self.moves(one, two)) for one, two in pairwise(places))
        except ValueError:
            return inf


def _value_moves(panel: Panel, one: int, two: int, size: int) -> list[str]:
    """The fewest presses that change a value: breadth first, for fast keys may overshoot and come back."""
    steps = {"up": 1, "down": -1, "fast_up": panel.fast, "fast_down": -panel.fast}
    wraps = panel.values_wrap
    if panel.kind in ("cycle", "dial"):
        steps, wraps = {"next": 1, "previous": -1}, panel.kind == "cycle" or panel.wraps
    came: dict[int, tuple[int, str] | None] = {one: None}
    waiting = deque([one])
    while waiting and two not in came:
        here = waiting.popleft()
        for name, by in steps.items():
            there = (here + by) % size if wraps else min(max(here + by, 0), size - 1)
            if name in panel.keys and there not in came:
                came[there] = (here, name)
                waiting.append(there)
    if two not in came:
        raise ValueError("expected a key that leads back; leave the panel and open it anew")
    actions: list[str] = []
    at = two
    while (step := came[at]) is not None:
        at, name = step
        actions.append(name)
    return actions[::-1]


def _digits(panel: Panel, here: Shown, goal: tuple[int, ...]) -> list[str]:
    """Cursor and step: visit every place to be changed, the shorter way round."""
    stops = [place for place, value in enumerate(goal) if here.draft[place] != value]
    ring = _Ring(panel.lengths[0], panel.wraps, "next" in panel.keys, "previous" in panel.keys)
    actions: list[str] = []
    cursor = here.cursor
    for place in ring.walk(cursor, stops):
        actions += ring.moves(cursor, place)
        actions += _value_moves(panel, here.draft[place], goal[place], len(panel.domains[0]))
        cursor = place
    return actions + (["store"] if "store" in panel.keys and here.values[0] != goal else [])


def told(panel: Panel, start: Shown, actions: Sequence[str]) -> list[Press]:
    """Actions as keys with what is seen after each; the same key several times in a row is one line."""
    presses: list[Press] = []
    shown = start
    for action in actions:
        before, shown = shown, panel.press(shown, action)
        seen = panel.text(shown)
        if isinstance(panel, GuidedPanel):
            _tell(panel, before, action, seen, presses)
            continue
        last = presses[-1] if presses else None
        if last is not None and last.action == action and action not in ("enter", "store", "leave"):
            presses[-1] = Press(last.key, action, last.times + 1, seen, panel.hold_s)
        else:
            presses.append(Press(panel.keys[action], action, 1, seen, panel.hold_s))
    return presses


def _tell(panel: GuidedPanel, before: Shown, action: str, seen: str, presses: list[Press]) -> None:
    """One action in a dialogue, told with its question; something to do is told with the sign that ends it."""
    step = panel.steps[before.item]
    last = presses[-1] if presses else None
    if action == DONE:
        presses.append(Press(step.key, DONE, 1, step.sign, step.hold_s, "", step.do))
    elif last is not None and last.action == action and last.asks == step.asks and action != "enter":
        presses[-1] = Press(last.key, action, last.times + 1, seen, 0.0, step.asks)
    else:
        presses.append(Press(panel.keys[action], action, 1, seen, 0.0, step.asks))
