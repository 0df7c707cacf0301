"""Make a machine safe before the board is touched: what is left out ends the task, and says what would have happened."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from math import exp
from typing import Any

from twincore.make_safe import HoldPoint, hold_points
from twincore.practice.outcome import Outcome, Row
from twincore.practice.task import Task

LONGEST_S = 3600


@dataclass(frozen=True, slots=True)
class Safety:
    """What was done in which order, how long the supply has been off, and whether the board was touched."""

    done: tuple[str, ...] = ()
    off_s: float | None = None
    early: tuple[str, ...] = ()
    """Hold points that were said to hold before they could."""
    touched: bool = False


def points_of(task: Task) -> list[HoldPoint]:
    """The hold points of this machine in their order."""
    return hold_points([task.boards.family], [task.boards.original], {})


def begin(task: Task) -> Safety:
    """The machine is on."""
    return Safety()


def act(task: Task, state: Safety, action: Mapping[str, Any]) -> Safety:
    """Do a hold point, wait, or touch the board. Raises ValueError for what is none of these."""
    points = {each.id: each for each in points_of(task)}
    match action["do"]:
        case "hold":
            point = points.get(action["point"])
            if point is None:
                raise ValueError(f'expected a hold point of this machine, found "{action["point"]}"')
            if point.id in state.done:
                return state
            off = 0.0 if point.kind == "isolate" and state.off_s is None else state.off_s
            early = point.wait_s > 0 and (off is None or off < point.wait_s)
            return replace(
                state, done=(*state.done, point.id), off_s=off, early=(*state.early, point.id) if early else state.early
            )
        case "wait":
            seconds = float(action["seconds"])
            if not 0 < seconds <= LONGEST_S:
                raise ValueError(f"expected from 1 to {LONGEST_S} seconds")
            return state if state.off_s is None else replace(state, off_s=state.off_s + seconds)
        case "touch":
            return replace(state, touched=True)
    raise ValueError(f'expected "hold", "wait", "touch" or "done", found "{action["do"]}"')


def ended(task: Task, state: Safety) -> bool:
    """Whoever has touched the board knows how it ends."""
    return state.touched


def shown(task: Task, state: Safety) -> dict[str, Any]:
    """What can be done, in no order that would tell; what was done."""
    points = points_of(task)
    mixed = task.rng("order").sample(points, len(points))
    return {
        "points": [
            {
                "id": each.id, "title": each.title, "say": [*each.say, *_leaflet(each, task)],
                "done": each.id in state.done,
            }
            for each in mixed
        ],
        "done": list(state.done),
        "off_s": state.off_s,
    }  # fmt: skip


def _leaflet(point: HoldPoint, task: Task) -> tuple[str, ...]:
    """What says how long to wait: what the board's leaflet tells of its capacitor."""
    if not point.wait_s:
        return ()
    node: Mapping[str, Any] | None = task.boards.original.document.get("stored_energy")
    if node is None:
        return (f"No leaflet says how long: {point.wait_s:g} s then (common practice).",)
    known = [
        f"{node[name]:g} {unit}"
        for name, unit in (("capacitance_uf", "µF"), ("volts", "V"), ("bleed_kohm", "kΩ across it"))
        if name in node
    ]
    # where it has a bleeder and no wait, the wait follows from these
    wait = [] if "bleed_kohm" in node and "wait_s" not in node else [f"wait {point.wait_s:g} s"]
    return (f"Its leaflet: {', '.join([*known, *wait])}.",)


def volts_left(point: HoldPoint, task: Task, off_s: float | None) -> float:
    """What is still on the capacitor: V·exp(−t/RC); all of it where nothing bleeds it, or the supply is on."""
    node = task.boards.original.document.get("stored_energy", {})
    volts, bleed = float(node.get("volts", 0)), float(node.get("bleed_kohm", 0))
    if off_s is None or not bleed:
        return volts
    return volts * exp(-off_s / (bleed * 1e3 * float(node.get("capacitance_uf", 0)) * 1e-6))


def outcome(task: Task, state: Safety) -> Outcome:
    """Point by point: done, in its order, and not before it could hold; what was on the board when it was touched."""
    points = points_of(task)
    rows: list[Row] = []
    told: list[tuple[str, dict[str, Any]]] = []
    for place, point in enumerate(points):
        did = _how(point, [each.id for each in points[:place]], state)
        rows.append(Row(point.title, "done", did, did == "done", "wait" if point.wait_s else "order"))
        if did == "left out" and state.touched:
            told.append((f"touched: {point.kind}", _found(point, task, state)))
        elif did == "too early":
            told.append(("too early", _found(point, task, state)))
    return Outcome(tuple(rows), told=tuple(told))


def _how(point: HoldPoint, before: list[str], state: Safety) -> str:
    if point.id not in state.done:
        return "left out"
    if point.id in state.early:
        return "too early"
    then = state.done[: state.done.index(point.id)]
    later = [each for each in before if each in state.done and each not in then]
    return "out of order" if later else "done"


def _found(point: HoldPoint, task: Task, state: Safety) -> dict[str, Any]:
    left = volts_left(point, task, state.off_s) if point.wait_s else 0.0
    off = state.off_s or 0.0
    return {"point": point.title, "volts": round(left, 1), "wait_s": point.wait_s, "off_s": off}
