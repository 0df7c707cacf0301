"""Record: what each entry's value must be, and what is still missing before the record is complete."""

from dataclasses import replace
from typing import Any, get_args

from twincore.carry_over import trimmer_reading
from twincore.errors import Refusal, WrongValue
from twincore.job.case import Case, new_board, original_of, position, remembered
from twincore.job.given import Captured, Check, Given
from twincore.job.rules.boards import title_of
from twincore.job.rules.order import done
from twincore.job.shared.between import places_of
from twincore.job.shared.holds import points_of
from twincore.job.shared.traces import check_length, read_own_trace
from twincore.job.shared.wires import findings_of, plugs_taken_apart, wiring_of_values
from twincore.job.targets.record import (
    AngleSaid,
    AssumedSaid,
    BetweenSaid,
    PictureSaid,
    QuickWay,
    ReadHow,
    Removal,
    RemovedSaid,
    SettledSaid,
    TemporarySaid,
    TraceSaid,
    WireSaid,
)
from twincore.profile import Board, doubtful_elements, written_positions
from twincore.profile.faults import FaultList
from twincore.profile.record import UNREADABLE
from twincore.profile.values import plain
from twincore.wiring import (
    NO_WIRE,
    Plug,
    agrees,
    plugs_of,
)

HELD_BACK: tuple[Removal, ...] = ("plug", "part", "routing")
"""What does not come off a machine while a hold point is still open."""
READ_HOW = get_args(ReadHow)


def powered_elements(board: Board) -> list[str]:
    """The elements that are read while the board still answers."""
    return [element.id for element in board.elements if element.rules.powered]


def brought_by_original(case: Case) -> dict[str, Any]:
    """What knowing the original brings: its kind, what it tells only while it lives, the hold points it makes needed."""
    family, board = original_of(case)
    return {
        "family": family.id,
        "powered": powered_elements(board),
        "remembered": [each["id"] for each in remembered(board)],
        "holds": [each.id for each in points_of(case)],
    }


def brought_by_unread(case: Case) -> dict[str, Any]:
    """Every element that nobody has read yet, as one that cannot be."""
    board = original_of(case)[1]
    unreadable = plain(written_positions(board, dict.fromkeys(board.points)))
    return {"found": {name: value for name, value in unreadable.items() if name not in case.state["found"]}}


def assumed_value(case: Case, name: str, after: AssumedSaid, given: Given) -> dict[str, Any]:
    """How an element that could not be read is taken to stand."""
    board = original_of(case)[1]
    value = position(board, name, after["value"])
    if UNREADABLE in str(value):
        raise WrongValue(f"{name}: an assumption says how every place of it stands.")
    if UNREADABLE not in str(case.state["found"].get(name, "")):
        raise Refusal(f"{name} was read, or nobody has looked at it yet. Only what cannot be read is assumed.")
    if after["source"] == "factory" and name in doubtful_elements(board.document, "factory"):
        raise Refusal(f"Nobody knows how {name} leaves its maker. Say from where else it is taken.")
    return {**after, "value": value}


def found_value(case: Case, name: str, after: Any, given: Given) -> Any:
    """A position of the old board, and how it was read."""
    if given.read_how not in READ_HOW:
        raise WrongValue(f"Say how it was read: {', '.join(READ_HOW)}.")
    return position(original_of(case)[1], name, after)


def blind_value(case: Case, name: str, after: Any, given: Given) -> dict[str, Any]:
    """A position read a second time, without seeing the first reading."""
    if name not in case.state["found"]:
        raise Refusal(f"Read {name} first; then somebody reads it again without seeing the first reading.")
    return {"value": position(original_of(case)[1], name, after)}


def angle_value(case: Case, name: str, after: AngleSaid, given: Given) -> dict[str, Any]:
    """A trimmer by its angle, with the mark that is nearest."""
    reading = trimmer_reading(original_of(case)[1], name, dict(after))
    return {**after, "nearest": plain(reading.nearest)}


def kept_value(case: Case, name: str, after: str, given: Given) -> str:
    """What the old board knew, as it shows it."""
    if all(each["id"] != name for each in remembered(original_of(case)[1])):
        raise WrongValue(f"This board remembers nothing called {name}.")
    return after


def trace_value(case: Case, name: str, after: TraceSaid, given: Given) -> TraceSaid:
    """What the live original was seen to do."""
    read_own_trace(case, dict(after))
    check_length(after)
    return after


def wire_value(case: Case, name: str, after: WireSaid, given: Given) -> dict[str, Any]:
    """A wire on a pin of the old board, what was left empty left out."""
    family, board = original_of(case)
    value = {key: each for key, each in after.items() if each not in (None, "")}
    if value.get("connector") in case.state["plugs"]:
        raise Refusal(f"{value['connector']} moves without a record. Take that back first to record its wires.")
    faults = FaultList()
    wiring_of_values({name: value}, {}, board, family, faults)
    if faults.faults:
        raise WrongValue("This wire cannot be kept.", faults.faults)
    return value


def plug_value(case: Case, name: str, after: QuickWay, given: Given) -> QuickWay:
    """A plug whose wires need no record, and why."""
    family, board = original_of(case)
    plug = plugs_of(board, family).get(name)
    if plug is None:
        raise WrongValue(f"{board.part_number} has no plug {name}.")
    if after == "whole" and not plug.keyed:
        raise Refusal(f"{name} is not keyed: it goes in more than one way. Record its wires.")
    if after == "one by one" and not moves_one_by_one(case, plug):
        raise Refusal(f"Not every wire of {name} has its place on the board chosen. Record its wires.")
    if any(wire["connector"] == name for wire in case.state["wires"].values()):
        raise Refusal(f"Wires of {name} are recorded. Take them out first.")
    if after == "whole" and name not in plugs_complete(case):
        way = "Move them one by one, straight to the new board, or record" if moves_one_by_one(case, plug) else "Record"
        raise Refusal(
            f"{name} does not go complete onto {new_board(case).part_number}: its wires come out of the plug. {way} each wire first."
        )
    return after


def plugs_complete(case: Case) -> list[str]:
    """The keyed plugs that move with all their wires in them, as far as the new board is known: these need no record."""
    family, board = original_of(case)
    with_wires = {wire["connector"] for wire in case.state["wires"].values()}
    keyed = [name for name, plug in plugs_of(board, family).items() if plug.keyed and name not in with_wires]
    whole: dict[str, QuickWay] = dict.fromkeys(keyed, "whole")
    apart = plugs_taken_apart(replace(case, state={**case.state, "plugs": {**case.state["plugs"], **whole}}))
    return [name for name in keyed if name not in apart]


def moves_one_by_one(case: Case, plug: Plug) -> bool:
    """Whether the wires of a plug may go straight from the old board to the new: each has its place there."""
    if case.replacement is None:
        return False
    pins = [pin for each in plugs_of(case.replacement, original_of(case)[0]).values() for pin in each.pins.values()]
    carrying = [(pin, pin.carries) for pin in plug.pins.values() if pin.carries is not None]
    return bool(carrying) and all(any(agrees(pin, carries, other) for other in pins) for pin, carries in carrying)


def settled_value(case: Case, name: str, after: SettledSaid, given: Given) -> dict[str, Any]:
    """What is said of a difference between wires and diagram."""
    if after["as"] == NO_WIRE:
        _check_bare(case, name)
    elif all(each.place != name for each in findings_of(case)):
        raise WrongValue(f"There is no finding at {name}.")
    return {"note": "", **after}


def _check_bare(case: Case, place: str) -> None:
    """Refuse to say that no wire was on a pin which this board does not have, or on which one is recorded."""
    family, board = original_of(case)
    pins = {pin.place for plug in plugs_of(board, family).values() for pin in plug.pins.values()}
    if place not in pins:
        raise WrongValue(f"{board.part_number} has no pin {place}.")
    if any(f"{wire['connector']}.{wire['pin']}" == place for wire in case.state["wires"].values()):
        raise Refusal(f"A wire is recorded on {place}. Take it out first.")


def removed_value(case: Case, name: str, after: RemovedSaid, given: Given) -> dict[str, Any]:
    """Something that came off on the way in."""
    if not after["what"]:
        raise WrongValue("Say what comes off.")
    if not after.get("back"):
        _check_may_come_off(case, after["kind"])
    return {
        "what": after["what"], "kind": after["kind"], "count": after.get("count") or 1,
        "place": after.get("place", ""), "back": after.get("back", False),
    }  # fmt: skip


def _check_may_come_off(case: Case, kind: str) -> None:
    """Covers come off a machine that is locked off, while a wait still runs; what may be live comes off when all points hold."""
    state = case.state
    if done(state, "make_safe") or state["energised"] is not None:
        return
    if state["power"] == "on":
        raise Refusal("Lock the supply off first. Covers may then come off while a wait runs.")
    if kind in HELD_BACK:
        raise Refusal("Every hold point must hold before this comes off. Until then: covers, screws, brackets.")


def moving_value(case: Case, name: str, after: str, given: Given) -> str:
    """Whether a part of the old board moves across."""
    board = original_of(case)[1]
    if all(each["id"] != name for each in board.document.get("moves", [])):
        raise WrongValue(f"No part {name} of {board.part_number} moves.")
    return after


def temporary_value(case: Case, name: str, after: TemporarySaid, given: Given) -> dict[str, Any]:
    """Something overridden, bridged or held."""
    if not after["what"]:
        raise WrongValue("Say what is overridden, bridged or held.")
    return {"what": after["what"], "undone": after.get("undone", False)}


def between_value(case: Case, name: str, after: BetweenSaid, given: Given) -> dict[str, Any]:
    """Wires from one board of the machine to another."""
    ends = (after["one"], after["other"])
    if ends[0]["board"] == ends[1]["board"]:
        raise WrongValue("Expected two boards. A wire that comes back to the same board is among its own wires.")
    cases = {each.state["board"]: each for each in case.boards}
    for end in ends:
        if end["board"] not in cases:
            raise WrongValue(f"This job has no board {end['board']}. Add it first.")
        places = places_of(cases[end["board"]])
        if places is not None and end["place"] not in places:
            title = title_of(case.state, end["board"])
            raise WrongValue(
                f"{title} has no {end['place']}. Expected a plug or a pin of it, such as {', '.join(places[:2])}."
            )
    if ("." in ends[0]["place"]) != ("." in ends[1]["place"]):
        raise WrongValue(
            "Expected two pins, or two plugs: a single wire goes from pin to pin, a lead from plug to plug."
        )
    return dict(after)


def picture_value(case: Case, name: str, after: PictureSaid, given: Given) -> dict[str, Any]:
    """What is said of a picture that was sent."""
    marks = [{**mark, "text": mark.get("text", "")} for mark in after.get("marks", [])]
    return {"caption": after.get("caption", ""), "of": after.get("of", ""), "marks": marks}


CHECKS: dict[str, Check] = {
    "found": found_value, "assumed": assumed_value, "blind": blind_value, "angle": angle_value, "kept": kept_value, "trace": trace_value,
    "wire": wire_value, "plug": plug_value, "settled": settled_value, "removed": removed_value, "moving": moving_value,
    "temporary": temporary_value, "picture": picture_value, "between": between_value,
}  # fmt: skip


def differing(case: Case) -> dict[str, tuple[Any, Any]]:
    """Elements that two readings of which the second was blind show differently."""
    return {
        name: (case.state["found"][name], each["value"])
        for name, each in case.state["blind"].items()
        if name in case.state["found"] and case.state["found"][name] != each["value"]
    }


def check_confirmed(case: Case, note: str) -> None:
    """Refuse a record that is not complete."""
    if missing := missing_of(case):
        raise Refusal(
            f"The record is not complete: {'; '.join(missing)}. Record it, or mark what cannot be read as unreadable.",
            missing=missing,
        )


def missing_of(case: Case) -> list[str]:
    """What is not recorded yet, in words."""
    family, board = original_of(case)
    state = case.state
    unread = [element.id for element in board.elements if element.id not in state["found"]]
    found = [f"not read: {', '.join(unread)}"] if unread else []
    with_wires = {wire["connector"] for wire in state["wires"].values()}
    plugs = [name for name in plugs_of(board, family) if name not in with_wires and name not in state["plugs"]]
    if plugs:
        found.append(f"wires not recorded: {', '.join(plugs)}")
    if apart := plugs_taken_apart(case):
        found.append(
            f"wires to record one by one, for the new board does not take the plug complete: {', '.join(apart)}"
        )
    unsettled = [each for each in findings_of(case) if each.place not in state["settled"]]
    if unwired := [each.place for each in unsettled if each.kind == "wire missing"]:
        found.append(f"no wire recorded, and not said that none was there: {', '.join(unwired)}")
    if open_findings := [each.place for each in unsettled if each.kind != "wire missing"]:
        found.append(f"not settled with the wiring diagram: {', '.join(open_findings)}")
    if different := differing(case):
        found.append(f"two readings differ: {', '.join(different)}")
    if state["answers"] != "no" and (left := [e["what"] for e in remembered(board) if e["id"] not in state["kept"]]):
        found.append(f"not written down: {', '.join(left)}")
    return found


CAPTURED: dict[str, Captured] = {
    **dict.fromkeys(
        ("original", "original_profile", "original_joined"), lambda case, name, value: brought_by_original(case)
    ),
    "unread": lambda case, name, value: brought_by_unread(case),
}
