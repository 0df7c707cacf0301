"""Read a board: what stands, as it hangs in the machine, and what cannot be read."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from twincore.practice.outcome import Outcome, Row
from twincore.practice.task import Task
from twincore.profile import written_positions


@dataclass(frozen=True, slots=True)
class Reading:
    """What was read so far."""

    said: Mapping[str, Any]


def begin(task: Task) -> Reading:
    """Nothing was read yet."""
    return Reading({})


def act(task: Task, state: Reading, action: Mapping[str, Any]) -> Reading:
    """Say how an element stands."""
    if action["do"] != "read":
        raise ValueError(f'expected "read" or "done", found "{action["do"]}"')
    return Reading({**state.said, **action["positions"]})


def shown(task: Task, state: Reading) -> dict[str, Any]:
    """What the board shows: it is drawn so."""
    original = task.boards.original
    return {"positions": written_positions(original, task.read().points), "said": dict(state.said)}


def outcome(task: Task, state: Reading) -> Outcome:
    """Element by element; a place that cannot be read is said to be one, and never guessed."""
    original = task.boards.original
    rows: list[Row] = []
    for element in original.elements:
        points = task.read().points
        should = element.write([points[point.id] for point in element.points])
        did = state.said.get(element.id, "?" * len(element.points) if element.placed else "?")
        burnt = any(point.id in task.burnt for point in element.points)
        rows.append(Row(element.id, should, did, did == should, "unreadable" if burnt else "read"))
    return Outcome(tuple(rows))
