"""Scenario: input changes over time, from rest at 0 s."""

from dataclasses import dataclass
from typing import Any

from twincore.profile.document import open_document
from twincore.profile.faults import FaultList
from twincore.profile.levels import Inputs, check_change
from twincore.profile.values import Number


@dataclass(frozen=True, slots=True)
class Step:
    """Input changes at one instant (seconds), made in the order written; a level is set to a value."""

    at: Number
    set: tuple[tuple[str, bool | Number], ...]


@dataclass(frozen=True, slots=True)
class Scenario:
    """Steps in order of time, up to and including `until` (seconds)."""

    title: str
    steps: tuple[Step, ...]
    until: Number


def parse_scenario(data: bytes, inputs: Inputs | None = None) -> Scenario:
    """Read a scenario document; with `inputs`, every change must be one that they can have."""
    root = open_document(data, "scenario").root
    faults = FaultList()
    scenario = build_scenario(root, inputs, "", faults)
    faults.done()
    return scenario


def build_scenario(node: dict[str, Any], inputs: Inputs | None, place: str, faults: FaultList) -> Scenario:
    """A scenario from a part of a document whose structure was checked."""
    last: Number = 0
    for index, step in enumerate(node["steps"]):
        if step["at"] < last:
            faults.add(f"{place}steps[{index}].at", f"expected a time not before the step above, {float(last):g} s")
        last = max(last, step["at"])
        for name, value in step["set"].items() if inputs is not None else ():
            check_change(name, value, inputs or {}, f"{place}steps[{index}].set.{name}", faults)
    if node["until"] < last:
        faults.add(f"{place}until", f"expected a time not before the last step, {float(last):g} s")
    steps = tuple(Step(step["at"], tuple(step["set"].items())) for step in node["steps"])
    return Scenario(node.get("title", ""), steps, node["until"])
