"""What an entry says, in words: of what, and which value; for the history of a job, and for what waits on a device."""

import re
from collections.abc import Iterable, Mapping
from typing import Any

from twincore.job.case import Case
from twincore.job.shared.holds import points_of
from twincore.job.shared.kit_steps import kit_steps
from twincore.job.shared.looking import check_list, line_words
from twincore.profile import Board
from twinshown.words.banks import seen_words
from twinshown.words.schemas import ChangesGiven, EntryWords
from twinshown.words.steps import NAMES

ABOUT = {
    "angle": "Angle of {}", "answered": "Answer of the depot", "answers": "Does the old board still answer", "asked": "Question to the depot",
    "assumed": "{}, assumed", "between": "Wire between two boards", "blind": "{}, read a second time",
    "board": "Another board of this machine", "boards_order": "Order of the boards", "cause": "Cause: {}", "check": "Check list: {}",
    "confirmed": "Step done: {}", "correction": "Correction", "cost": "Figure for costs: {}", "decision": "Carried over by, for {}",
    "defect": "Defect that is left", "energised": "Power back on", "fact": "{}", "family": "Machine type", "feature": "Feature: {}",
    "feedback": "How the new board does: {}", "forced": "Override", "found": "{} as found", "hold": "Hold point: {}",
    "in_hand": "Number on the board in hand", "kept": "What the old board knew: {}", "kit": "Part of the kit: {}", "kit_step": "Kit: {}",
    "learned": "Learning run", "look": "Looked at: {}", "meaning": "What a setting does: {}", "moving": "Part that moves: {}",
    "numbered": "Part and serial number", "old_board": "Where the old board goes", "order": "Order of the wires", "original": "Old board",
    "original_joined": "Old board, brought in", "original_profile": "Revision of the old board’s profile", "override": "{}, set by hand",
    "picture": "Picture", "placed": "Wire of {}, put by hand", "plate": "Nameplate", "plug": "Plug {}", "plug_put": "Plug {}, put by hand", "power": "Power", "readback": "{}, read back blind",
    "reading": "Reading: {}", "reason": "Reason for a difference: {}", "reentered": "Entered again: {}", "removed": "Taken off",
    "repair": "Repair", "replacement": "New board", "replacement_joined": "New board, brought in",
    "replacement_profile": "Revision of the new board’s profile", "report": "Report: {}", "revision": "Revision of {}", "run": "Machine test",
    "same_board": "Which board of the same number", "school": "Setting method", "serial": "Serial number", "settled": "Unclear wire {}",
    "signed": "Second signature", "spent": "Spent: {}", "symptom": "Symptom “{}”", "temporary": "Only for now", "test": "Test: {}",
    "ticked": "Wiring step done: {}", "trace": "Timed run of the old board", "unread": "Why something cannot be read", "wire": "Wire at {}",
    "wish": "Wanted: {}",
}  # fmt: skip
"""How each target is called; {} is what it is about, by its title where it has one."""
FIELDS = {
    "what": "", "text": "", "value": "", "title": "", "note": "", "result": "", "where": "at", "tag": "tag", "instrument": "instrument",
    "reading": "reading", "readings": "readings", "checked_before": "instrument proved before", "checked_after": "instrument proved after",
    "skipped": "skipped", "reason": "because", "part_number": "number", "serial": "serial number", "goes_to": "goes to",
    "carry_by": "carried by", "length_m": "length in m", "awg": "gauge AWG", "at_c": "at °C", "as_found": "found", "within": "within ±",
    "time_out_s": "ends after s", "measured_mm": "mm", "ok": "", "of": "of", "who": "by", "until": "until", "scheme": "scheme", "way": "",
    "to": "to", "joined": "joined with the wire of", "lead": "through", "because": "because", "which": "", "released": "released", "left": "left undone",
}  # fmt: skip
"""What stands before a value of this name; nothing where the value speaks for itself. Others are called as they are named."""
BARE = re.compile(r"[01?]{3,}")
"""The settings of a bank where nobody is there who knows how it hangs: never said without which place is first."""
BANKS = ("found", "blind", "readback", "assumed")
"""Targets that speak of a setting of the old board or, read back, of the new one."""


def entry_words(case: Case, target: str, before: Any, after: Any) -> EntryWords:
    """An entry in words, by the titles of the boards and the machine type as they are now."""
    kind, _, name = target.partition(".")
    return EntryWords(
        about=_about(case, kind, name), before=_said(case, kind, name, before), after=_said(case, kind, name, after)
    )


def changes_words(case: Case, given: ChangesGiven) -> list[EntryWords]:
    """Entries in words."""
    return [entry_words(case, each.target, each.before, each.after) for each in given.changes]


def _about(case: Case, kind: str, name: str) -> str:
    words = ABOUT.get(kind, kind.replace("_", " ").capitalize() + (" {}" if name else ""))
    return words.replace("{}", _title(case, kind, name)).strip()


def _title(case: Case, kind: str, name: str) -> str:
    titles: dict[str, str] = {}
    if kind == "confirmed":
        titles = dict(NAMES)
    elif kind == "hold":
        titles = {each.id: each.title for each in points_of(case)}
    elif kind == "check" and case.family is not None:
        titles = {each.id: line_words(each, case.family) for each in check_list(case)}
    elif kind == "kit_step" and case.replacement is not None:
        titles = {each.id: each.what for each in kit_steps(case)}
    elif kind in ("symptom", "test", "cause", "reading") and case.shelf.rule_out is not None:
        data = case.shelf.rule_out
        titles = _titled([*data.symptoms, *data.tests, *data.causes])
    elif kind in ("wish", "decision", "reason", "meaning", "fact") and case.family is not None:
        titles = {each["id"]: str(each["title"]) for each in case.family.document.get("facts", ())} | _titled(
            case.family.functions
        )
    return titles.get(name, name.replace("_", " "))


def _titled(things: Iterable[Any]) -> dict[str, str]:
    return {each.id: each.title for each in things}


def _said(case: Case, kind: str, name: str, value: Any) -> str:
    if kind in (*BANKS, "override"):
        written = value.get("value") if isinstance(value, Mapping) else value
        board = case.original if kind in ("found", "blind", "assumed") else case.replacement
        if isinstance(written, str) and board is not None and _is_bank(board, name):
            rest = {key: each for key, each in value.items() if key != "value"} if isinstance(value, Mapping) else {}
            return "; ".join(filter(None, [seen_words(board, name, written), value_words(rest) if rest else ""]))
    if kind == "placed" and isinstance(value, Mapping) and not value.get("to") and not value.get("joined"):
        return "insulated and tied back"
    return value_words(value)


def _is_bank(board: Board, element: str) -> bool:
    return any(each.id == element and each.kind == "dip" for each in board.elements)


def value_words(value: Any) -> str:
    """A value that was said, in words: of an object each part."""
    if value is None:
        return "nothing"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, Mapping):
        parts = [_part(key, each) for key, each in value.items() if each not in (None, "", [], {})]
        return ", ".join(filter(None, parts)) or "confirmed"
    if isinstance(value, list | tuple):
        return ", ".join(value_words(each) for each in value)
    if isinstance(value, str) and BARE.fullmatch(value):
        return f"{value}, place 1 first"
    return str(int(value)) if isinstance(value, float) and value.is_integer() else str(value)


def _part(name: str, value: Any) -> str:
    label = FIELDS.get(name, name.replace("_", " "))
    if name == "ok":
        return "in order" if value else "not in order"
    if isinstance(value, bool) and label:
        return label if value else f"not {label}"
    return f"{label} {value_words(value)}".strip()
