"""Scenario: input changes over time, from rest at 0 s."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from twincore.profile.document import open_document
from twincore.profile.faults import FaultList, known
from twincore.profile.values import Number


@dataclass(frozen=True, slots=True)
class Step:
    """Input changes at one instant (seconds), made in the order written."""

    at: Number
    set: tuple[tuple[str, bool], ...]


@dataclass(frozen=True, slots=True)
class Scenario:
    """Steps in order of time, up to and including `until` (seconds)."""

    title: str
    steps: tuple[Step, ...]
    until: Number


def parse_scenario(data: bytes, inputs: Sequence[str] | None = None) -> Scenario:
    """Read a scenario document; with `inputs`, every name must be one of them."""
    root = open_document(data, "scenario").root
    faults = FaultList()
    scenario = build_scenario(root, inputs, "", faults)
    faults.done()
    return scenario


def build_scenario(node: dict[str, Any], inputs: Sequence[str] | None, place: str, faults: FaultList) -> Scenario:
    """A scenario from a part of a document whose structure was checked."""
    last: Number = 0
    for index, step in enumerate(node["steps"]):
        if step["at"] < last:
            faults.add(f"{place}steps[{index}].at", f"expected a time not before the step above, {float(last):g} s")
        last = max(last, step["at"])
        for name in step["set"] if inputs is not None else ():
            if name not in inputs:  # type: ignore[operator]  # the loop is empty where inputs is None
                faults.add(
                    f"{place}steps[{index}].set.{name}", f"expected an input of the family ({known(inputs or ())})"
                )
    if node["until"] < last:
        faults.add(f"{place}until", f"expected a time not before the last step, {float(last):g} s")
    steps = tuple(Step(step["at"], tuple(step["set"].items())) for step in node["steps"])
    return Scenario(node.get("title", ""), steps, node["until"])
