"""Entries that choose what a sheet rests on: the kind of machine, a board, another revision, the board that a sketch turned out to be."""

from collections.abc import Callable, Mapping
from typing import Any

from twincore.carry_over import record_of
from twincore.choose import TOGETHER
from twincore.errors import DocumentError, WrongValue
from twincore.profile import check_board_in_family
from twinshown.entering.port import BoardHeld, JobAtHand
from twinshown.refusals import Faulty, NotThere, Refused

NO_ORIGINAL = "Nobody has said yet which board comes out. Do that first, in Recognise."
NO_BOARD = "Choose the board first."


def _family(job: JobAtHand, code: str | None) -> str | None:
    job.held.original = job.held.replacement = None
    job.held.family = None if code is None else job.family(code)
    return code


def _original(job: JobAtHand, part_number: str | None) -> str | None:
    job.held.replacement = None
    job.held.original = None if part_number is None else job.board(part_number)
    if job.held.original is None:
        return None
    kind = job.held.original.family
    if job.held.family is None or job.held.family.code != kind:
        job.held.family = job.family(kind)
    return job.held.original.part_number


def _replacement(job: JobAtHand, part_number: str | None) -> str | None:
    if part_number is None:
        job.held.replacement = None
        return None
    try:
        board = job.board(part_number)
    except NotThere as error:
        if TOGETHER not in part_number:
            raise
        raise Refused("Nobody has written a profile of this set yet. Ask the parts lead to load one.") from error
    if job.held.family is None:
        raise Refused(NO_ORIGINAL)
    if board.family != job.held.family.code:
        raise Refused(f"{board.part_number} is of another family ({job.family_title(board.family)}).")
    job.held.replacement = board
    return board.part_number


def _original_profile(job: JobAtHand, number: int | None) -> int:
    job.held.original = _taken(job, job.held.original, number, job.state["found"])
    return job.held.original.revision


def _replacement_profile(job: JobAtHand, number: int | None) -> int:
    job.held.replacement = _taken(job, job.held.replacement, number, job.state["overrides"])
    return job.held.replacement.revision


def _taken(job: JobAtHand, old: BoardHeld | None, number: int | None, stands: dict[str, Any]) -> BoardHeld:
    """Another revision of a board that the job has already, with the kind of machine as it is now.

    Raises Faulty where what the job recorded does not fit it, or where the job's other board does not fit the kind.
    """
    if old is None:
        raise Refused(NO_BOARD)
    if number is None:
        raise Refused("Take another revision instead.")
    revision = job.revision(old, number)
    family = job.family(old.family)
    try:
        record_of(job.profile(revision), stands)
        for each in (job.held.original, job.held.replacement):
            if each is not None and each.key != old.key:
                check_board_in_family(job.profile(each), job.family_profile(family))
    except (DocumentError, WrongValue) as error:
        raise Faulty(
            f"Revision {number} does not agree with this job. Take back what does not, then take the revision.",
            error.faults,
        ) from error
    job.held.family = family
    return revision


def _original_joined(job: JobAtHand, number: str | None) -> str:
    board = _joined(job, job.held.original, number, job.state["found"])
    if job.held.family is None or job.held.family.code != board.family:
        job.held.replacement = None
    job.held.original, job.held.family = board, job.family(board.family)
    return board.part_number


def _replacement_joined(job: JobAtHand, number: str | None) -> str:
    board = _joined(job, job.held.replacement, number, job.state["overrides"])
    if job.held.family is None:
        raise Refused(NO_ORIGINAL)
    if board.family != job.held.family.code:
        raise Refused(f"{board.part_number} is of another kind ({job.family_title(board.family)}). Choose again.")
    job.held.replacement = board
    return board.part_number


def _joined(job: JobAtHand, old: BoardHeld | None, number: str | None, stands: dict[str, Any]) -> BoardHeld:
    """The board that a sketch of this job turned out to be, by the parts lead's word."""
    if old is None:
        raise Refused(NO_BOARD)
    if number is None or number != job.joined_to(old):
        raise Refused(f"Nobody said that {old.part_number} is this board. The parts lead joins them.")
    board = job.board(number)
    try:
        record_of(job.profile(board), stands)
    except (DocumentError, WrongValue) as error:
        raise Faulty(
            f"What this job recorded does not fit {number}. Take back what does not, then go on with it.", error.faults
        ) from error
    return board


CHOOSING: Mapping[str, Callable[[JobAtHand, Any], Any]] = {
    "family": _family, "original": _original, "replacement": _replacement,
    "original_profile": _original_profile, "replacement_profile": _replacement_profile,
    "original_joined": _original_joined, "replacement_joined": _replacement_joined,
}  # fmt: skip
