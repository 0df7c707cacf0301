"""Hand over: defects left, numbers, the old board's way, time and money spent, and who signs."""

from datetime import date
from typing import Any

from config.errors import Faulty, Refused
from jobs.finish.proving import still_forced
from jobs.given import Check, Given
from jobs.models import Job
from twincore.job.targets.hand_over import CorrectionSaid, DefectSaid, NumberedSaid, OldBoardSaid, SignedSaid


def defect_value(job: Job, name: str, after: DefectSaid, given: Given) -> dict[str, Any]:
    """A defect that is left for later: what, until when, who sees to it."""
    if not (after["what"] and after["who"] and after["until"]):
        raise Faulty("Say what is wrong, until when it is put right, and who sees to it.")
    try:
        date.fromisoformat(after["until"])
    except ValueError as error:
        raise Faulty("Expected a date, such as 2026-04-30.") from error
    return {"done": False, **after}


def numbered_value(job: Job, name: str, after: NumberedSaid, given: Given) -> dict[str, Any]:
    """A part with its numbers: the old board and the new one, and remote parts that were changed along."""
    if not after["what"] or not (after.get("part_number") or after.get("serial")):
        raise Faulty("Say which part it is, and its part number or its serial number.")
    return {"part_number": "", "serial": "", **after}


def old_board_value(job: Job, name: str, after: OldBoardSaid, given: Given) -> dict[str, Any]:
    """Where the old board goes."""
    return {"note": "", **after}


def signed_value(job: Job, name: str, after: SignedSaid, given: Given) -> dict[str, Any]:
    """The second person's word: signed, or sent back with a reason."""
    handed = job.state["confirmed"].get("hand_over")
    if handed is None:
        raise Refused("This job is not handed over yet; there is nothing to sign.")
    if handed.get("by_id") == given.person.pk:
        raise Refused("A second person signs: not the one who handed the job over.")
    if not after["ok"] and not after.get("note"):
        raise Faulty("Say what is to be put right before you sign.")
    return {"note": "", **after}


def correction_value(job: Job, name: str, after: CorrectionSaid, given: Given) -> dict[str, Any]:
    """Something that turned out to be wrong in a closed job: said beside it, with the entry that it is about."""
    if not after["what"]:
        raise Faulty("Say what is wrong, and what it should say.")
    about = after.get("entry")
    if about is not None and about > job.entry_count:
        raise Faulty(f"Expected the number of an entry of this job, 1 to {job.entry_count}.")
    if name in job.state["corrections"]:
        raise Refused("A correction stays as it was said. Add another one.")
    return {"what": after["what"], "entry": about}


CHECKS: dict[str, Check] = {
    "defect": defect_value, "numbered": numbered_value, "old_board": old_board_value, "signed": signed_value,
    "correction": correction_value,
}  # fmt: skip


def check_handed(job: Job, note: str) -> None:
    """Refuse to hand over a machine on which something is still overridden."""
    if on := still_forced(job):
        raise Refused(f"Still overridden: {', '.join(on)}. Switch it off, and say so.", forced=on)
