"""Hand over: defects left, numbers, the old board's way, time and money spent, and who signs."""

from datetime import date, datetime
from typing import Any

from config.errors import Faulty, Refused
from jobs.finish.proving import still_forced
from jobs.given import Given
from jobs.models import Job
from jobs.work.recording import object_in, text_in, uuid_in
from people.models import Person

OLD_BOARD = ("scrap", "core return", "kept for parts", "repaired")
NUMBERED = ("old", "new")
SPENT = ("minutes", "travel_minutes", "parts_trade", "parts_retail", "other")


def defect_value(job: Job, name: str, after: Any, given: Given, person: Person, now: datetime) -> dict[str, Any]:
    """A defect that is left for later: what, until when, who sees to it."""
    uuid_in(name)
    node = object_in(after, {"what", "until", "who", "done"})
    what, who, until = text_in(node, "what", 500), text_in(node, "who", 120), text_in(node, "until", 10)
    if not (what and who and until):
        raise Faulty("Say what is wrong, until when it is put right, and who sees to it.")
    try:
        date.fromisoformat(until)
    except ValueError as error:
        raise Faulty("Expected a date, such as 2026-04-30.") from error
    return {"what": what, "until": until, "who": who, "done": node.get("done") is True}


def numbered_value(job: Job, name: str, after: Any, given: Given, person: Person, now: datetime) -> dict[str, Any]:
    """A part with its numbers: the old board and the new one, and remote parts that were changed along."""
    uuid_in(name)
    node = object_in(after, {"what", "side", "part_number", "serial"})
    if node.get("side") not in NUMBERED:
        raise Faulty(f"Expected a side: {' or '.join(NUMBERED)}.")
    found = {key: text_in(node, key, 120) for key in ("what", "part_number", "serial")}
    if not found["what"] or not (found["part_number"] or found["serial"]):
        raise Faulty("Say which part it is, and its part number or its serial number.")
    return {**found, "side": node["side"]}


def old_board_value(job: Job, name: str, after: Any, given: Given, person: Person, now: datetime) -> dict[str, Any]:
    """Where the old board goes."""
    node = object_in(after, {"way", "note"})
    if node.get("way") not in OLD_BOARD:
        raise Faulty(f"Expected one of {', '.join(OLD_BOARD)}.")
    return {"way": node["way"], "note": text_in(node, "note", 500)}


def spent_value(job: Job, name: str, after: Any, given: Given, person: Person, now: datetime) -> float:
    """Time or money that this job took."""
    if name not in SPENT:
        raise Faulty(f"Expected one of {', '.join(SPENT)}.")
    if isinstance(after, bool) or not isinstance(after, int | float) or not 0 <= after <= 1_000_000:
        raise Faulty("Expected a number from 0 to 1,000,000.")
    return after


def signed_value(job: Job, name: str, after: Any, given: Given, person: Person, now: datetime) -> dict[str, Any]:
    """The second person's word: signed, or sent back with a reason."""
    node = object_in(after, {"ok", "note"})
    handed = job.state["confirmed"].get("hand_over")
    if handed is None:
        raise Refused("This job is not handed over yet; there is nothing to sign.")
    if handed.get("by_id") == person.pk:
        raise Refused("A second person signs: not the one who handed the job over.")
    note = text_in(node, "note", 2000)
    if node.get("ok") is not True and not note:
        raise Faulty("Say what is to be put right before you sign.")
    return {
        "ok": node.get("ok") is True,
        "note": note,
        "by": person.shown_name,
        "at": now.isoformat(timespec="seconds"),
    }


def correction_value(job: Job, name: str, after: Any, given: Given, person: Person, now: datetime) -> dict[str, Any]:
    """Something that turned out to be wrong in a closed job: said beside it, with the entry that it is about."""
    uuid_in(name)
    node = object_in(after, {"what", "entry"})
    what, about = text_in(node, "what", 2000), node.get("entry")
    if not what:
        raise Faulty("Say what is wrong, and what it should say.")
    if about is not None and (
        isinstance(about, bool) or not isinstance(about, int) or not 1 <= about <= job.entry_count
    ):
        raise Faulty(f"Expected the number of an entry of this job, 1 to {job.entry_count}.")
    if name in job.state["corrections"]:
        raise Refused("A correction stays as it was said. Add another one.")
    return {"what": what, "entry": about, "by": person.shown_name, "at": now.isoformat(timespec="seconds")}


def check_handed(job: Job, note: str) -> None:
    """Refuse to hand over a machine on which something is still overridden."""
    if on := still_forced(job):
        raise Refused(f"Still overridden: {', '.join(on)}. Switch it off, and say so.", forced=on)
