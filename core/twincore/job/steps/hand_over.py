"""Hand over: defects left, numbers, the old board's way, time and money spent, and who signs."""

from datetime import date
from typing import Any

from twincore.errors import Refusal, WrongValue
from twincore.job.case import Case
from twincore.job.given import Check, Given, said
from twincore.job.rules.order import still_forced
from twincore.job.targets.hand_over import (
    CorrectionSaid,
    DefectSaid,
    FeedbackSaid,
    NumberedSaid,
    OldBoardSaid,
    SignedSaid,
)


def defect_value(case: Case, name: str, after: DefectSaid, given: Given) -> dict[str, Any]:
    """A defect that is left for later: what, until when, who sees to it."""
    if not (after["what"] and after["who"] and after["until"]):
        raise WrongValue("Say what is wrong, until when it is put right, and who sees to it.")
    try:
        date.fromisoformat(after["until"])
    except ValueError as error:
        raise WrongValue("Expected a date, such as 2026-04-30.") from error
    return {"done": False, **after}


def numbered_value(case: Case, name: str, after: NumberedSaid, given: Given) -> dict[str, Any]:
    """A part with its numbers: the old board and the new one, and remote parts that were changed along."""
    if not after["what"] or not (after.get("part_number") or after.get("serial")):
        raise WrongValue("Say which part it is, and its part number or its serial number.")
    return {"part_number": "", "serial": "", **after}


def old_board_value(case: Case, name: str, after: OldBoardSaid, given: Given) -> dict[str, Any]:
    """Where the old board goes."""
    return {"note": "", **after}


def signed_value(case: Case, name: str, after: SignedSaid, given: Given) -> dict[str, Any]:
    """The second person's word: signed, or sent back with a reason."""
    handed = case.state["confirmed"].get("hand_over")
    if handed is None:
        raise Refusal("This job is not handed over yet; there is nothing to sign.")
    if handed.get("by_id") == given.person_id:
        raise Refusal("A second person signs: not the one who handed the job over.")
    if not after["ok"] and not said(after.get("note", "")):
        raise WrongValue("Say what is to be put right before you sign.")
    return {"note": "", **after}


def correction_value(case: Case, name: str, after: CorrectionSaid, given: Given) -> dict[str, Any]:
    """Something that turned out to be wrong in a closed job: said beside it, with the entry that it is about."""
    if not after["what"]:
        raise WrongValue("Say what is wrong, and what it should say.")
    about = after.get("entry")
    if about is not None and about > case.entry_count:
        raise WrongValue(f"Expected the number of an entry of this job, 1 to {case.entry_count}.")
    if name in case.state["corrections"]:
        raise Refusal("A correction stays as it was said. Add another one.")
    return {"what": after["what"], "entry": about}


def feedback_value(case: Case, name: str, after: FeedbackSaid, given: Given) -> dict[str, Any]:
    """What somebody says of the replacement, at once (`now`) or after a month (`later`)."""
    note = after.get("note", "")
    if after["result"] != "worked" and not said(note):
        raise WrongValue("Say what did not work, or what was changed: the next one who takes this pairing reads it.")
    return {"result": after["result"], "note": note}


CHECKS: dict[str, Check] = {
    "defect": defect_value, "numbered": numbered_value, "old_board": old_board_value, "signed": signed_value,
    "correction": correction_value, "feedback": feedback_value,
}  # fmt: skip


def check_confirmed(case: Case, note: str) -> None:
    """Refuse to hand over a machine on which something is still overridden."""
    if on := still_forced(case.state):
        raise Refusal(f"Still overridden: {', '.join(on)}. Switch it off, and say so.", forced=on)
    if case.state["power"] == "off":
        raise Refusal(
            "The lock-off still stands. Put the supply back on, hold point by hold point, and look at the machine."
        )
