"""Key values in on a board's own panel: it shows what it shows, and keeps what was stored."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from random import Random
from typing import Any

from twincore.practice.outcome import Outcome, Row
from twincore.practice.task import NoTask, Task
from twincore.profile import Board, Family, Record, Value, factory_record, written_positions
from twincore.profile.values import plain
from twincore.programming import Panel, Shown, indices, panels_of, plan_presses
from twincore.settings import decode

MOST_ITEMS, FARTHEST = 3, 8
"""So many values are to be keyed in, none farther from where it stands than so many steps."""
DRAWS = 20


@dataclass(frozen=True, slots=True)
class Keyed:
    """Every key that was pressed: on which panel, and what it does there."""

    pressed: tuple[tuple[int, str], ...] = ()


def names_on_panels(board: Board) -> tuple[str, ...]:
    """The elements that the board's panels set."""
    return tuple(dict.fromkeys(name for panel in panels_of(board) for name in panel.items if name))


def drawn_target(board: Board, family: Family, rng: Random) -> Record:
    """What is to be keyed in. Raises NoTask where no panel of the board sets anything."""
    names = names_on_panels(board)
    elements = [each for each in board.elements if each.id in names]
    if not elements:
        raise NoTask(f"{board.part_number} has no panel on which anything is keyed in")
    start = factory_record(board)
    for _ in range(DRAWS):
        points: dict[str, Value | None] = dict(start.points)
        for element in rng.sample(elements, min(MOST_ITEMS, len(elements))):
            for point in element.points:
                at = point.domain.index(start.points[point.id])
                points[point.id] = rng.choice(point.domain[max(0, at - FARTHEST) : at + FARTHEST + 1])
        target = replace(start, points=points)
        plan = plan_presses(board, start, target)
        decided = all(each.decided for each in decode(board, target, family).values())
        if plan.count and decided and not (plan.by_hand or plan.unasked):
            return target
    raise NoTask(f"what is keyed in on {board.part_number} hangs together too closely")


def begin(task: Task) -> Keyed:
    """Every panel was just opened."""
    return Keyed()


def act(task: Task, state: Keyed, action: Mapping[str, Any]) -> Keyed:
    """Press a key. Raises ValueError for a panel or key that is not there."""
    if action["do"] != "press":
        raise ValueError(f'expected "press" or "done", found "{action["do"]}"')
    panels = panels_of(task.boards.replacement)
    number = action["panel"]
    if not isinstance(number, int) or not 0 <= number < len(panels):
        raise ValueError(f"expected a panel from 0 to {len(panels) - 1}")
    if action["action"] not in panels[number].keys:
        raise ValueError(f"expected a key of this panel ({', '.join(panels[number].keys)})")
    return Keyed((*state.pressed, (number, action["action"])))


def standing(task: Task, state: Keyed) -> list[tuple[Panel, Shown]]:
    """Every panel with where it stands."""
    board = task.boards.replacement
    start = factory_record(board)
    found = []
    for number, panel in enumerate(panels_of(board)):
        shown = panel.at_rest(tuple(indices(panel, item, board, start) for item in range(len(panel.items))))
        for where, action in state.pressed:
            shown = panel.press(shown, action) if where == number else shown
        found.append((panel, shown))
    return found


def stored(task: Task, state: Keyed) -> dict[str, Value]:
    """What each element that a panel sets holds now, as a record writes it."""
    points: dict[str, Value | None] = dict(factory_record(task.boards.replacement).points)
    elements = {each.id: each for each in task.boards.replacement.elements}
    for panel, shown in standing(task, state):
        for item, name in enumerate(panel.items):
            for point, index in zip(elements[name].points if name else (), shown.values[item], strict=False):
                points[point.id] = point.domain[index]
    written = written_positions(task.boards.replacement, points)
    names = names_on_panels(task.boards.replacement)
    return {name: value for name, value in written.items() if name in names}


def wanted_of(task: Task) -> dict[str, Value]:
    """What is to be held in the end by every element that a panel sets."""
    names = names_on_panels(task.boards.replacement)
    written = written_positions(task.boards.replacement, task.stood.points)
    return {name: value for name, value in written.items() if name in names}


def shown(task: Task, state: Keyed) -> dict[str, Any]:
    """What the displays show, the keys, and what is to be keyed in."""
    elements = {each.id: each for each in task.boards.replacement.elements}
    factory = written_positions(task.boards.replacement, factory_record(task.boards.replacement).points)
    return {
        "panels": [
            {
                "title": panel.title or panel.kind, "shows": panel.text(now),
                "keys": [{"key": key, "action": panel.meant(now, key)} for key in dict.fromkeys(panel.keys.values())],
            }
            for panel, now in standing(task, state)
        ],
        "wanted_keys": [
            {"element": name, "title": elements[name].title, "value": str(plain(value)), "unit": elements[name].unit}
            for name, value in wanted_of(task).items()
            if value != factory[name]
        ],
        "presses": len(state.pressed),
    }  # fmt: skip


def least_presses(task: Task) -> int:
    """The fewest presses, but for opening a panel: it is open."""
    plan = plan_presses(task.boards.replacement, factory_record(task.boards.replacement), task.stood)
    return sum(press.times for each in plan.panels for press in each.presses if press.action != "open")


def outcome(task: Task, state: Keyed) -> Outcome:
    """What each element holds; what was not stored is not held, whatever the display showed."""
    held = stored(task, state)
    rows = tuple(
        Row(name, str(plain(value)), str(plain(held[name])), held[name] == value, "keys")
        for name, value in wanted_of(task).items()
    )
    told: tuple[tuple[str, dict[str, Any]], ...] = (
        ("presses", {"took": len(state.pressed), "least": least_presses(task)}),
    )
    if any(
        now.editing and now.item < len(now.values) and now.draft != now.values[now.item]
        for _, now in standing(task, state)
    ):
        told = (*told, ("not stored", {}))
    return Outcome(rows, told=told)
