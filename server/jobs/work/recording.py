"""Record: what each entry's value must be, and what is still missing before the record is complete."""

import json
from collections.abc import Callable
from datetime import datetime
from typing import Any
from uuid import UUID

from bench.comparing import exactly, record_of, trimmer_reading
from catalogue.profiles import board_profile, family_profile
from config.errors import Faulty, Refused
from jobs.models import Job, Picture
from jobs.state import OVER_PORT
from people.models import Person
from twincore.errors import DocumentError
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
READ_HOW = ("by eye", "by eye, twice", "from a picture", "told by somebody", OVER_PORT, "by angle")
WIRE_TEXTS = ("tag", "colour", "end", "goes_to", "signal", "connector", "pin", "carry_by")
QUICK_WAYS = ("whole", "one by one")
PARTS = ("to move", "moved", "stays", "not there")
REMOVED = ("panel", "screw", "bracket", "routing", "tool", "plug", "part")
TRACE_KEYS = ("title", "steps", "seen", "until", "timed")
MOST_TRACED = 400
MARK_KEYS = {"x", "y", "text"}


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


def text_in(after: dict[str, Any], key: str, most: int = 200) -> str:
    """A text of a value's part, trimmed; empty where there is none."""
    value = after.get(key)
    if value is None:
        return ""
    if not isinstance(value, str) or len(value) > most:
        raise Faulty(f"Expected a text of at most {most} characters for {key}.")
    return value.strip()


def object_in(after: Any, keys: set[str]) -> dict[str, Any]:
    """A value that is an object with no other keys than these."""
    if not isinstance(after, dict) or not set(after) <= keys:
        raise Faulty(f"Expected any of {', '.join(sorted(keys))}.")
    return after


def _number(after: dict[str, Any], key: str, low: float, high: float) -> float | None:
    value = after.get(key)
    if value is None:
        return None
    if isinstance(value, bool) or not isinstance(value, int | float) or not low <= value <= high:
        raise Faulty(f"Expected a number from {low:g} to {high:g} for {key}.")
    return value


def position(board: Board, element: str, written: Any) -> Any:
    """A position as this board writes it, checked."""
    record = record_of(board, {element: written})
    return plain(written_positions(board, record.points))[element]


def _blind(job: Job, name: str, after: Any, person: Person, now: datetime) -> dict[str, Any]:
    board = original_of(job)[1]
    if name not in job.state["found"]:
        raise Refused(f"Read {name} first; then somebody reads it again without seeing the first reading.")
    return {"value": position(board, name, after), "by": person.shown_name, "at": now.isoformat(timespec="seconds")}


def _angle(job: Job, name: str, after: Any, person: Person, now: datetime) -> dict[str, Any]:
    given = object_in(after, {"degrees", "within"})
    degrees, within = _number(given, "degrees", -360, 360), _number(given, "within", 0, 90)
    if degrees is None or within is None:
        raise Faulty("Say the angle in degrees from the top, clockwise, and how well it can be read.")
    reading = trimmer_reading(original_of(job)[1], name, {"degrees": degrees, "within": within})
    return {"degrees": degrees, "within": within, "nearest": plain(reading.nearest)}


def _kept(job: Job, name: str, after: Any, person: Person, now: datetime) -> str:
    if all(each["id"] != name for each in remembered(original_of(job)[1])):
        raise Faulty(f"This board remembers nothing called {name}.")
    if not isinstance(after, str) or not after.strip() or len(after) > 2000:
        raise Faulty("Write down what it shows, or that it cannot be read.")
    return after.strip()


def _trace(job: Job, name: str, after: Any, person: Person, now: datetime) -> dict[str, Any]:
    uuid_in(name)
    given = object_in(after, set(TRACE_KEYS))
    _read_trace(job, given)
    if len(given.get("steps", ())) + len(given.get("seen", ())) > MOST_TRACED:
        raise Faulty(f"Expected at most {MOST_TRACED} events in one trace.")
    return {**given, "by": person.shown_name, "at": now.isoformat(timespec="seconds")}


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


def _wire(job: Job, name: str, after: Any, person: Person, now: datetime) -> dict[str, Any]:
    family, board = original_of(job)
    given = object_in(after, {*WIRE_TEXTS, "mm2"})
    texts = {key: text for key in WIRE_TEXTS if (text := text_in(given, key))}
    size = _number(given, "mm2", 0.01, 1000)
    value = {**texts, **({} if size is None else {"mm2": size})}
    if texts.get("connector") in job.state["plugs"]:
        raise Refused(f"{texts['connector']} moves without a record. Take that back first to record its wires.")
    faults = FaultList()
    wiring_of_values({name: value}, {}, board, family, faults)
    if faults.faults:
        raise Faulty("This wire cannot be kept.", faults.faults)
    return {**value, "n": job.state["wires"].get(name, {}).get("n", job.entry_count + 1)}


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


def _plug(job: Job, name: str, after: Any, person: Person, now: datetime) -> str:
    family, board = original_of(job)
    plug = plugs_of(board, family).get(name)
    if plug is None:
        raise Faulty(f"{board.part_number} has no plug {name}.")
    if after not in QUICK_WAYS:
        raise Faulty(f"Expected one of {', '.join(QUICK_WAYS)}.")
    if after == "whole" and not plug.keyed:
        raise Refused(f"{name} is not keyed: it goes in more than one way. Record its wires.")
    if after == "one by one" and not moves_one_by_one(job, plug):
        raise Refused(f"Not every wire of {name} has its place on the board chosen. Record its wires.")
    if any(wire["connector"] == name for wire in job.state["wires"].values()):
        raise Refused(f"Wires of {name} are recorded. Take them out first.")
    return str(after)


def moves_one_by_one(job: Job, plug: Plug) -> bool:
    """Whether the wires of a plug may go straight from the old board to the new: each has its place there."""
    if job.replacement_revision_id is None:
        return False
    replacement = board_profile(job.replacement_revision_id)
    pins = [pin for each in plugs_of(replacement, original_of(job)[0]).values() for pin in each.pins.values()]
    return all(
        any(agrees(pin, pin.carries, other) for other in pins) for pin in plug.pins.values() if pin.carries is not None
    )


def _settled(job: Job, name: str, after: Any, person: Person, now: datetime) -> dict[str, Any]:
    given = object_in(after, {"as", "note"})
    if given.get("as") == NO_WIRE:
        _check_bare(job, name)
    elif all(each.place != name for each in findings_of(job)):
        raise Faulty(f"There is no finding at {name}.")
    elif given.get("as") not in SETTLEMENTS:
        raise Faulty(f"Expected one of {', '.join((*SETTLEMENTS, NO_WIRE))}.")
    return {
        "as": given["as"], "note": text_in(given, "note", 2000), "by": person.shown_name,
        "at": now.isoformat(timespec="seconds"),
    }  # fmt: skip


def _check_bare(job: Job, place: str) -> None:
    """Refuse to say that no wire was on a pin which this board does not have, or on which one is recorded."""
    family, board = original_of(job)
    pins = {pin.place for plug in plugs_of(board, family).values() for pin in plug.pins.values()}
    if place not in pins:
        raise Faulty(f"{board.part_number} has no pin {place}.")
    if any(f"{wire['connector']}.{wire['pin']}" == place for wire in job.state["wires"].values()):
        raise Refused(f"A wire is recorded on {place}. Take it out first.")


def _removed(job: Job, name: str, after: Any, person: Person, now: datetime) -> dict[str, Any]:
    uuid_in(name)
    given = object_in(after, {"what", "kind", "count", "place", "back"})
    count = _number(given, "count", 1, 500)
    if given.get("kind") not in REMOVED:
        raise Faulty(f"Expected one of {', '.join(REMOVED)}.")
    what = text_in(given, "what")
    if not what:
        raise Faulty("Say what comes off.")
    return {
        "what": what, "kind": given["kind"], "count": count or 1, "place": text_in(given, "place"),
        "back": given.get("back") is True, "n": job.state["removed"].get(name, {}).get("n", job.entry_count + 1),
    }  # fmt: skip


def _moving(job: Job, name: str, after: Any, person: Person, now: datetime) -> str:
    board = original_of(job)[1]
    if all(each["id"] != name for each in board.document.get("moves", [])):
        raise Faulty(f"No part {name} of {board.part_number} moves.")
    if after not in PARTS:
        raise Faulty(f"Expected one of {', '.join(PARTS)}.")
    return str(after)


def _temporary(job: Job, name: str, after: Any, person: Person, now: datetime) -> dict[str, Any]:
    given = object_in(after, {"what", "undone"})
    what = text_in(given, "what")
    if not what:
        raise Faulty("Say what is overridden, bridged or held.")
    return {
        "what": what, "undone": given.get("undone") is True, "by": person.shown_name,
        "at": now.isoformat(timespec="seconds"),
    }  # fmt: skip


def _picture(job: Job, name: str, after: Any, person: Person, now: datetime) -> dict[str, Any]:
    given = object_in(after, {"caption", "of", "marks"})
    if not Picture.objects.filter(name=uuid_in(name), job=job).exists():
        raise Faulty("Send the picture itself first.")
    marks = given.get("marks", [])
    if not isinstance(marks, list) or len(marks) > 60:
        raise Faulty("Expected at most 60 marks on a picture.")
    kept = []
    for mark in marks:
        each = object_in(mark, MARK_KEYS)
        x, y = _number(each, "x", 0, 1), _number(each, "y", 0, 1)
        if x is None or y is None:
            raise Faulty("Expected a mark inside the picture.")
        kept.append({"x": x, "y": y, "text": text_in(each, "text", 120)})
    return {"caption": text_in(given, "caption"), "of": text_in(given, "of"), "marks": kept}


def uuid_in(name: str) -> UUID:
    """An id that a client made for something of its own."""
    try:
        return UUID(name)
    except ValueError as error:
        raise Faulty(f"Expected an id made by the client, found {name[:40]}.") from error


CHECKS: dict[str, Callable[[Job, str, Any, Person, datetime], Any]] = {
    "blind": _blind, "angle": _angle, "kept": _kept, "trace": _trace, "wire": _wire, "plug": _plug,
    "settled": _settled, "removed": _removed, "moving": _moving, "temporary": _temporary, "picture": _picture,
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
