"""The wires of a job: as recorded, against the diagram, and the plan that carries them over."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from twincore.carry_over import exactly
from twincore.choose import devices_changed
from twincore.errors import DocumentError, LimitError, WrongValue
from twincore.job.case import Case, original_of
from twincore.job.shared.facts import fact_values
from twincore.measure import WireJudged, judge_wire
from twincore.profile import Board, Family
from twincore.profile.faults import FaultList
from twincore.profile.values import is_number
from twincore.wiring import (
    ORDERS,
    SETTLEMENTS,
    ByHand,
    Placed,
    Step,
    WiringFinding,
    WiringPlan,
    WiringRecord,
    build_wiring,
    carry_wires,
    plugs_of,
    wiring_findings,
)

WITH_PLUG = ("straight", "adapter")
"""Treatments by which a wire stays in its plug."""
WIRE_TEXTS = ("tag", "colour", "end", "goes_to", "signal", "connector", "pin", "carry_by")


def wiring_of_values(
    wires: Mapping[str, Any], plugs: Mapping[str, str], board: Board, family: Family, faults: FaultList
) -> WiringRecord:
    """A wiring record from what a job keeps; what is wrong is added to `faults`."""
    rows = sorted(wires.items(), key=lambda each: each[1].get("n", 0))
    node = {
        "part_number": board.part_number,
        "wires": [
            {"id": name, **{key: exactly(each[key]) for key in (*WIRE_TEXTS, "mm2") if key in each}}
            for name, each in rows
        ],
        "without_record": [name for name, way in plugs.items() if way == "whole"],
        "as_moved": [name for name, way in plugs.items() if way == "one by one"],
    }
    for row in node["wires"]:
        if not {"connector", "pin"} <= set(row):
            faults.add("wires", "expected the plug and the pin that the wire is on")
            return WiringRecord(board.part_number, (), ())
    try:
        return build_wiring(node, board, family, faults)
    except DocumentError:
        return WiringRecord(board.part_number, (), ())


def wiring_of(case: Case) -> WiringRecord:
    """The wires as recorded, with what was settled about those that differ from the diagram."""
    family, board = original_of(case)
    wires: dict[str, Any] = {}
    for name, wire in case.state["wires"].items():
        settled = case.state["settled"].get(f"{wire['connector']}.{wire['pin']}")
        wrong = settled is not None and settled["as"] == SETTLEMENTS[0]
        wires[name] = {**wire, "carry_by": "wire"} if wrong else wire
    return wiring_of_values(wires, case.state["plugs"], board, family, FaultList())


def by_hand_of(case: Case, record: WiringRecord) -> ByHand:
    """What somebody put by hand: a wire is called by its id or, where it is the only one there, by its old place."""
    called = {each.id: each.id for each in record.wires}
    for each in record.wires:
        called.setdefault(f"{each.connector}.{each.pin}", each.id)
    return ByHand(
        {
            called[name]: Placed(
                tuple(said["to"]), called.get(said.get("joined", ""), said.get("joined")), said.get("lead", "")
            )
            for name, said in case.state["placed"].items()
            if name in called
        },
        {name: said["to"] for name, said in case.state["plugs_put"].items()},
    )


def findings_of(case: Case) -> list[WiringFinding]:
    """Where the wires differ from the diagram."""
    family, board = original_of(case)
    record = wiring_of(case)
    return wiring_findings(board, family, [w for w in record.wires if w.recorded], record.without_record)


@dataclass(frozen=True, slots=True)
class SizeJudged:
    """A wire whose load is known, and whether it is thick enough for it."""

    wire: str
    place: str
    signal: str
    load_a: float
    judged: WireJudged


def sizes_of(case: Case) -> list[SizeJudged]:
    """The recorded wires whose size is written down and whose load somebody measured (`load.fan.line.amps`)."""
    facts = fact_values(case)
    supply = facts.get("supply.volts")
    volts = float(supply) if is_number(supply) else None
    found = []
    family, board = original_of(case)
    pins = {pin.place: pin for plug in plugs_of(board, family).values() for pin in plug.pins.values()}
    for name, wire in sorted(case.state["wires"].items(), key=lambda each: each[1].get("n", 0)):
        place = f"{wire.get('connector')}.{wire.get('pin')}"
        signal = wire.get("signal") or (pins[place].carries if place in pins else None)
        load = facts.get(f"load.{signal}.amps")
        if signal is None or not is_number(load) or not (wire.get("mm2") or wire.get("awg") is not None):
            continue
        judged = judge_wire(float(load), wire.get("mm2"), wire.get("awg"), wire.get("length_m"), volts)
        found.append(SizeJudged(name, place, signal, float(load), judged))
    return found


def plugs_taken_apart(case: Case) -> list[str]:
    """Plugs that were to move complete, without a record of their wires, and that the new board does not take so: once a wire
    is out of its plug, only the record tells which one it was.
    """
    if "whole" not in case.state["plugs"].values():
        return []
    found = wiring_plan(case)
    apart = {
        each.wire.connector
        for each in (found.plan.wires if found else ())
        if not each.wire.recorded and each.treatment not in WITH_PLUG
    }
    return [name for name, way in case.state["plugs"].items() if way == "whole" and name in apart]


def step_key(step: Step) -> str:
    """The name under which a step is ticked: what it moves, not its number, which may change."""
    return f"plug {step.plug}" if step.plug else f"wire {step.wires[0]}" if step.wires else f"link {step.place}"


@dataclass(frozen=True, slots=True)
class WiringOf:
    """The wiring plan of a job, with the findings that stand beside it."""

    plan: WiringPlan
    findings: list[WiringFinding]


def wiring_plan(case: Case) -> WiringOf | None:
    """The wiring plan; None where a board is not chosen or one of the profiles names no plugs."""
    family, original, replacement = case.family, case.original, case.replacement
    if family is None or original is None or replacement is None:
        return None
    if "connectors" not in original.document or "connectors" not in replacement.document:
        return None
    order = case.state["order"] or ORDERS[0]
    try:
        record = wiring_of(case)
        by_hand = by_hand_of(case, record)
        plan = carry_wires(original, record, replacement, family, case.shelf.adapters, order, by_hand)
    except LimitError as error:
        raise WrongValue(f"{error}.") from error
    changed = devices_changed(replacement.document.get("kit", ()), fact_values(case))
    wires = tuple(
        replace(each, marks=(*each.marks, "new device")) if each.carries in changed and each.to_pin else each
        for each in plan.wires
    )
    return WiringOf(replace(plan, wires=wires), findings_of(case))
