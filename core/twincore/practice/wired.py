"""The machine as it is wired: a device does what the place that its wires are on is driven to, and a place sees what hangs on it."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from twincore.behaviour import simulate
from twincore.errors import EndlessLoopError, UndecidedError
from twincore.practice.signals import input_of, kind_of, output_of, pins_of
from twincore.practice.task import Lead, Task
from twincore.practice.wires import Wiring
from twincore.profile import Family, Record, Scenario, Step

HIGH = ("mains",)
"""Classes of voltage that a place of another class does not stand (common practice)."""


def run_wired(task: Task, record: Record, wired: Wiring, scenario: Scenario) -> dict[str, Any]:
    """What the machine does in a run; nothing is said of what it should do."""
    family = task.boards.family
    steps = [{"at": step.at, "set": dict(step.set)} for step in scenario.steps]
    told: dict[str, Any] = {"steps": steps, "until": scenario.until, "outputs": [], "fault": ""}
    hangs = _signals_at(task, wired)
    if any(_burns(family, lead, on) for lead, on in hangs):
        return told | {"fault": "burnt"}
    if any(_is_dead(family, lead, on) for lead, on in hangs):
        return told | {"fault": "dead"}
    try:
        entries = simulate(task.boards.replacement, record, family, _as_seen(family, hangs, scenario))
    except UndecidedError:
        return told | {"fault": "stands still"}
    except EndlessLoopError:
        return told | {"fault": "never settles"}
    driven = _drivers(family, hangs)
    return told | {
        "outputs": [
            {"at": each.at, "on": [name for name in family.outputs if driven.get(name, {name}) <= {*each.on}]}
            for each in entries
        ]
    }


def _signals_at(task: Task, wired: Wiring) -> list[tuple[Lead, str | None]]:
    """Each wire with the signal of the place that it is on; None where it is on nothing that is driven or seen."""
    carries = {pin.place: pin.carries for pin in pins_of(task.boards.replacement, task.boards.family)}
    return [(lead, carries.get(wired.at.get(lead.id, ""))) for lead in task.leads]


def _burns(family: Family, lead: Lead, on: str | None) -> bool:
    """Whether a wire that brings a high voltage is on a place that does not stand it."""
    if on is None or kind_of(family, lead.signal)["kind"] == "output":
        return False
    return kind_of(family, lead.signal)["volts_class"] in HIGH and kind_of(family, on)["volts_class"] not in HIGH


def _is_dead(family: Family, lead: Lead, on: str | None) -> bool:
    """Whether a wire of the supply is where no supply of its voltage belongs; line and neutral taken for each other still feed it."""
    brings = kind_of(family, lead.signal)
    if brings["kind"] != "supply":
        return False
    takes = kind_of(family, on) if on is not None else {}
    return (takes.get("kind"), takes.get("volts_class")) != ("supply", brings["volts_class"])


def _drivers(family: Family, hangs: list[tuple[Lead, str | None]]) -> dict[str, set[str | None]]:
    """What must be on for a device to run: all that its wires are on; None is never on."""
    found: dict[str, set[str | None]] = {}
    for lead, on in hangs:
        if (device := output_of(family, lead.signal)) is not None:
            found.setdefault(device, set()).add(None if on is None else output_of(family, on))
    return found


def _as_seen(family: Family, hangs: list[tuple[Lead, str | None]], scenario: Scenario) -> Scenario:
    """A run as the board sees it: each input is what hangs on its place, and open where nothing does."""
    moved = {name for lead, on in hangs if on != lead.signal
             for name in (input_of(family, lead.signal), on and input_of(family, on)) if name}  # fmt: skip
    if not moved:
        return scenario
    sources: dict[str, set[str | None]] = {name: set() for name in moved}
    for lead, on in hangs:
        if on is not None and (seen := input_of(family, on)) in moved:
            sources[seen].add(input_of(family, lead.signal))
    now: dict[str, Any] = dict(family.rest)
    told = {name: bool(family.rest.get(name, False)) for name in moved}
    steps: list[Step] = []
    for step in (Step(0, ()), *scenario.steps):
        now |= dict(step.set)
        seen_now = {name: _closed(now, sources[name]) for name in moved}
        changes = tuple((name, value) for name, value in seen_now.items() if value != told[name])
        told |= seen_now
        steps.append(replace(step, set=(*(each for each in step.set if each[0] not in moved), *changes)))
    return replace(scenario, steps=tuple(each for each in steps if each.set))


def _closed(now: Mapping[str, Any], sources: set[str | None]) -> bool:
    return bool(sources) and all(name is not None and bool(now.get(name, False)) for name in sources)
