"""Record: what each entry's value must be, and what is still missing before the record is complete."""

import json
from typing import Any, get_args

from bench.comparing import exactly, record_of, trimmer_reading
from catalogue.profiles import board_profile, family_profile
from config.errors import Faulty, Refused
from jobs.front.facts import fact_values
from jobs.given import Check, Given
from jobs.models import Job, Picture
from twincore.errors import DocumentError
from twincore.job.targets.record import (
    MOST_TRACED,
    AngleSaid,
    PictureSaid,
    QuickWay,
    ReadHow,
    RemovedSaid,
    SettledSaid,
    TemporarySaid,
    TraceSaid,
    WireSaid,
)
from twincore.make_safe import hold_points
from twincore.profile import Board, Family, Trace, parse_trace, written_positions
from twincore.profile.faults import FaultList
from twincore.profile.values import plain
from twincore.wiring import (
    NO_WIRE,
    SETTLEMENTS,
    Plug,
    WiringFinding,
    WiringRecord,
    agrees,
    build_wiring,
    plugs_of,
    wiring_findings,
)

POWERED_KINDS = ("program", "parameter", "code")
"""Kinds of element that a board shows and that nobody can see on it."""
READ_HOW = get_args(ReadHow)
WIRE_TEXTS = ("tag", "colour", "end", "goes_to", "signal", "connector", "pin", "carry_by")
TRACE_KEYS = ("title", "steps", "seen", "until", "timed")


def original_of(job: Job) -> tuple[Family, Board]:
    """The family and the board coming out."""
    assert job.family_revision_id and job.original_revision_id  # what is recorded waits for the original
    return family_profile(job.family_revision_id), board_profile(job.original_revision_id)


def powered_elements(board: Board) -> list[str]:
    """The elements that are read while the board still answers."""
    return [element.id for element in board.elements if element.kind in POWERED_KINDS]


def remembered(board: Board) -> list[dict[str, Any]]:
    """What the board knows and a new one will not."""
    found: list[dict[str, Any]] = board.document.get("remembers", [])
    return found


def brought_by_original(job: Job) -> dict[str, Any]:
    """What knowing the original brings: its kind, what it tells only while it lives, the hold points it makes needed."""
    family, board = original_of(job)
    return {
        "family": family.id,
        "powered": powered_elements(board),
        "remembered": [each["id"] for each in remembered(board)],
        "holds": [each.id for each in hold_points(family, [board], fact_values(job))],
    }


def position(board: Board, element: str, written: Any) -> Any:
    """A position as this board writes it, checked."""
    record = record_of(board, {element: written})
    return plain(written_positions(board, record.points))[element]


def found_value(job: Job, name: str, after: Any, given: Given) -> Any:
    """A position of the old board, and how it was read."""
    if given.read_how not in READ_HOW:
        raise Faulty(f"Say how it was read: {', '.join(READ_HOW)}.")
    return position(original_of(job)[1], name, after)


def blind_value(job: Job, name: str, after: Any, given: Given) -> dict[str, Any]:
    """A position read a second time, without seeing the first reading."""
    if name not in job.state["found"]:
        raise Refused(f"Read {name} first; then somebody reads it again without seeing the first reading.")
    return {"value": position(original_of(job)[1], name, after)}


def angle_value(job: Job, name: str, after: AngleSaid, given: Given) -> dict[str, Any]:
    """A trimmer by its angle, with the mark that is nearest."""
    reading = trimmer_reading(original_of(job)[1], name, dict(after))
    return {**after, "nearest": plain(reading.nearest)}


def kept_value(job: Job, name: str, after: str, given: Given) -> str:
    """What the old board knew, as it shows it."""
    if all(each["id"] != name for each in remembered(original_of(job)[1])):
        raise Faulty(f"This board remembers nothing called {name}.")
    return after


def trace_value(job: Job, name: str, after: TraceSaid, given: Given) -> TraceSaid:
    """What the live original was seen to do."""
    _read_trace(job, dict(after))
    check_length(after)
    return after


def check_length(after: TraceSaid) -> None:
    """Refuse a trace or run with more events than one is kept with."""
    if len(after.get("steps", ())) + len(after.get("seen", ())) > MOST_TRACED:
        raise Faulty(f"Expected at most {MOST_TRACED} events in one trace.")


def traces_of(job: Job) -> dict[str, Trace]:
    """What the live original was seen to do, run by run."""
    return {
        name: _read_trace(job, {key: node[key] for key in TRACE_KEYS if key in node})
        for name, node in job.state["traces"].items()
    }


def _read_trace(job: Job, node: dict[str, Any]) -> Trace:
    family, board = original_of(job)
    return read_trace(family, board.part_number, node)


def read_trace(family: Family, part_number: str, node: dict[str, Any]) -> Trace:
    """A trace of a board from plain data. Raises Faulty with every fault and its place."""
    document = {"format": "worthy-twin/trace", "version": 1, "part_number": part_number, **node}
    try:
        return parse_trace(json.dumps(document).encode(), family)
    except DocumentError as error:
        raise Faulty("The trace cannot be kept.", error.faults) from error


def wire_value(job: Job, name: str, after: WireSaid, given: Given) -> dict[str, Any]:
    """A wire on a pin of the old board, what was left empty left out."""
    family, board = original_of(job)
    value = {key: each for key, each in after.items() if each not in (None, "")}
    if value.get("connector") in job.state["plugs"]:
        raise Refused(f"{value['connector']} moves without a record. Take that back first to record its wires.")
    faults = FaultList()
    wiring_of_values({name: value}, {}, board, family, faults)
    if faults.faults:
        raise Faulty("This wire cannot be kept.", faults.faults)
    return value


def wiring_of_values(
    wires: dict[str, Any], plugs: dict[str, str], board: Board, family: Family, faults: FaultList
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


def wiring_of(job: Job) -> WiringRecord:
    """The wires as recorded, with what was settled about those that differ from the diagram."""
    family, board = original_of(job)
    settled = job.state["settled"]
    wires = {
        name: {**wire, "carry_by": "wire"}
        if settled.get(f"{wire['connector']}.{wire['pin']}", {}).get("as") == SETTLEMENTS[0]
        else wire
        for name, wire in job.state["wires"].items()
    }
    return wiring_of_values(wires, job.state["plugs"], board, family, FaultList())


def findings_of(job: Job) -> list[WiringFinding]:
    """Where the wires differ from the diagram."""
    family, board = original_of(job)
    record = wiring_of(job)
    return wiring_findings(board, family, [w for w in record.wires if w.recorded], record.without_record)


def plug_value(job: Job, name: str, after: QuickWay, given: Given) -> QuickWay:
    """A plug whose wires need no record, and why."""
    family, board = original_of(job)
    plug = plugs_of(board, family).get(name)
    if plug is None:
        raise Faulty(f"{board.part_number} has no plug {name}.")
    if after == "whole" and not plug.keyed:
        raise Refused(f"{name} is not keyed: it goes in more than one way. Record its wires.")
    if after == "one by one" and not moves_one_by_one(job, plug):
        raise Refused(f"Not every wire of {name} has its place on the board chosen. Record its wires.")
    if any(wire["connector"] == name for wire in job.state["wires"].values()):
        raise Refused(f"Wires of {name} are recorded. Take them out first.")
    return after


def moves_one_by_one(job: Job, plug: Plug) -> bool:
    """Whether the wires of a plug may go straight from the old board to the new: each has its place there."""
    if job.replacement_revision_id is None:
        return False
    replacement = board_profile(job.replacement_revision_id)
    pins = [pin for each in plugs_of(replacement, original_of(job)[0]).values() for pin in each.pins.values()]
    return all(
        any(agrees(pin, pin.carries, other) for other in pins) for pin in plug.pins.values() if pin.carries is not None
    )


def settled_value(job: Job, name: str, after: SettledSaid, given: Given) -> dict[str, Any]:
    """What is said of a difference between wires and diagram."""
    if after["as"] == NO_WIRE:
        _check_bare(job, name)
    elif all(each.place != name for each in findings_of(job)):
        raise Faulty(f"There is no finding at {name}.")
    return {"note": "", **after}


def _check_bare(job: Job, place: str) -> None:
    """Refuse to say that no wire was on a pin which this board does not have, or on which one is recorded."""
    family, board = original_of(job)
    pins = {pin.place for plug in plugs_of(board, family).values() for pin in plug.pins.values()}
    if place not in pins:
        raise Faulty(f"{board.part_number} has no pin {place}.")
    if any(f"{wire['connector']}.{wire['pin']}" == place for wire in job.state["wires"].values()):
        raise Refused(f"A wire is recorded on {place}. Take it out first.")


def removed_value(job: Job, name: str, after: RemovedSaid, given: Given) -> dict[str, Any]:
    """Something that came off on the way in."""
    if not after["what"]:
        raise Faulty("Say what comes off.")
    return {
        "what": after["what"], "kind": after["kind"], "count": after.get("count") or 1,
        "place": after.get("place", ""), "back": after.get("back", False),
    }  # fmt: skip


def moving_value(job: Job, name: str, after: str, given: Given) -> str:
    """Whether a part of the old board moves across."""
    board = original_of(job)[1]
    if all(each["id"] != name for each in board.document.get("moves", [])):
        raise Faulty(f"No part {name} of {board.part_number} moves.")
    return after


def temporary_value(job: Job, name: str, after: TemporarySaid, given: Given) -> dict[str, Any]:
    """Something overridden, bridged or held."""
    if not after["what"]:
        raise Faulty("Say what is overridden, bridged or held.")
    return {"what": after["what"], "undone": after.get("undone", False)}


def picture_value(job: Job, name: str, after: PictureSaid, given: Given) -> dict[str, Any]:
    """What is said of a picture that was sent."""
    if not Picture.objects.filter(name=name, job=job).exists():
        raise Faulty("Send the picture itself first.")
    marks = [{**mark, "text": mark.get("text", "")} for mark in after.get("marks", [])]
    return {"caption": after.get("caption", ""), "of": after.get("of", ""), "marks": marks}


CHECKS: dict[str, Check] = {
    "found": found_value, "blind": blind_value, "angle": angle_value, "kept": kept_value, "trace": trace_value,
    "wire": wire_value, "plug": plug_value, "settled": settled_value, "removed": removed_value, "moving": moving_value,
    "temporary": temporary_value, "picture": picture_value,
}  # fmt: skip


def differing(job: Job) -> dict[str, tuple[Any, Any]]:
    """Elements that two readings of which the second was blind show differently."""
    return {
        name: (job.state["found"][name], each["value"])
        for name, each in job.state["blind"].items()
        if name in job.state["found"] and job.state["found"][name] != each["value"]
    }


def missing_of(job: Job) -> list[str]:
    """What is not recorded yet, in words."""
    family, board = original_of(job)
    state = job.state
    unread = [element.id for element in board.elements if element.id not in state["found"]]
    found = [f"not read: {', '.join(unread)}"] if unread else []
    with_wires = {wire["connector"] for wire in state["wires"].values()}
    plugs = [name for name in plugs_of(board, family) if name not in with_wires and name not in state["plugs"]]
    if plugs:
        found.append(f"wires not recorded: {', '.join(plugs)}")
    unsettled = [each for each in findings_of(job) if each.place not in state["settled"]]
    if unwired := [each.place for each in unsettled if each.kind == "wire missing"]:
        found.append(f"no wire recorded, and not said that none was there: {', '.join(unwired)}")
    if open_findings := [each.place for each in unsettled if each.kind != "wire missing"]:
        found.append(f"not settled with the wiring diagram: {', '.join(open_findings)}")
    if different := differing(job):
        found.append(f"two readings differ: {', '.join(different)}")
    if state["answers"] != "no" and (left := [e["what"] for e in remembered(board) if e["id"] not in state["kept"]]):
        found.append(f"not written down: {', '.join(left)}")
    return found
