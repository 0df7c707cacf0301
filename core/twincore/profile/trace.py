"""Trace: what a real board was seen to do, timed by a person or over the service port."""

from dataclasses import dataclass
from typing import Any

from twincore.profile.document import open_document
from twincore.profile.family import Family
from twincore.profile.faults import FaultList, known
from twincore.profile.scenario import Scenario, build_scenario
from twincore.profile.values import Number

BY_HAND_S = 0.5
"""How well a tap is timed where a trace does not say (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Seen:
    """One output seen to go on or off, at a time in seconds, give or take `within_s`."""

    at: Number
    output: str
    on: bool
    within_s: Number


@dataclass(frozen=True, slots=True)
class Trace:
    """The input changes, and what the outputs were seen to do; `timed` says how ("by hand", "over the port")."""

    part_number: str
    scenario: Scenario
    seen: tuple[Seen, ...]
    timed: str


def parse_trace(data: bytes, family: Family | None = None) -> Trace:
    """Read a trace document; with a family, its names must be the family's. Raises DocumentError."""
    root = open_document(data, "trace").root
    faults = FaultList()
    trace = build_trace(root, family, faults)
    faults.done()
    return trace


def build_trace(node: dict[str, Any], family: Family | None, faults: FaultList) -> Trace:
    """A trace from a part of a document whose structure was checked."""
    scenario = build_scenario(node, family.inputs if family else None, "", faults)
    last: Number = 0
    stands: dict[str, bool] = {}
    seen = []
    for index, each in enumerate(node["seen"]):
        if not last <= each["at"] <= node["until"]:
            faults.add(f"seen[{index}].at", f"expected a time from {float(last):g} to {float(node['until']):g} s")
        if family and each["output"] not in family.outputs:
            faults.add(f"seen[{index}].output", f"expected an output of the family ({known(family.outputs)})")
        if stands.get(each["output"], False) == each["on"]:
            faults.add(f"seen[{index}].on", f"expected a change of {each['output']}, which stands so already")
        last, stands[each["output"]] = each["at"], each["on"]
        seen.append(Seen(each["at"], each["output"], each["on"], each.get("within_s", BY_HAND_S)))
    return Trace(node["part_number"], scenario, tuple(seen), node.get("timed", "by hand"))
