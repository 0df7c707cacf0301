"""What of an entry hangs on the depot's catalogue and store: the boards chosen, the candidates as they stand, pictures."""

from collections.abc import Callable
from typing import Any
from uuid import UUID

from catalogue import queries as catalogue
from catalogue.models import Board, BoardRevision
from catalogue.profiles import board_profile, family_profile
from jobs.candidates import choice_made
from jobs.cases import case_of
from jobs.ledger.chaining import documents_carried, picture_name
from jobs.models import Job, Picture
from twincore.carry_over import record_of
from twincore.choose import TOGETHER
from twincore.errors import DocumentError, WrongValue
from twincore.job import Target
from twincore.job.adding import brought, in_form
from twincore.job.adding import value_of as checked_value
from twincore.job.given import Given
from twincore.profile import check_board_in_family
from twinshown.refusals import Faulty, Refused


def value_of(job: Job, target: Target, name: str, after: Any, given: Given) -> Any:
    """What is said at a target; None takes it back. A board that is chosen is held in its current revision."""
    if target.kind in BOARDS:
        return BOARDS[target.kind](job, in_form(target, after))
    value = checked_value(case_of(job), target, name, after, given)
    if target.kind == "picture" and value is not None and not Picture.objects.filter(name=name, job=job).exists():
        raise Faulty("Send the picture itself first.")
    return value


def brings(job: Job, target: Target, name: str, value: Any, given: Given) -> dict[str, Any] | None:
    """What an entry brings along from data that no entry holds; of the profiles that it chooses, and of a picture, their digests."""
    if target.kind == "replacement":
        brings = None if value is None else {"choice": choice_made(job, value, given)}
    elif target.kind == "picture":
        return None if value is None else picture_carried(job, name)
    else:
        brings = brought(case_of(job), target, name, value)
    if target.kind in CHOOSE_PROFILES:
        return {**(brings or {}), "documents": documents_carried(job)}
    return brings


CHOOSE_PROFILES = (
    "family", "original", "replacement", "original_profile", "replacement_profile", "original_joined", "replacement_joined",
)  # fmt: skip
"""The targets at which the profiles are chosen that a sheet rests on."""


def picture_carried(job: Job, name: str) -> dict[str, Any] | None:
    """The size of a picture and its file's name in a package."""
    picture = job.pictures.filter(name=UUID(name)).first()
    return (
        None if picture is None else {"file": picture_name(picture), "width": picture.width, "height": picture.height}
    )


def _family(job: Job, after: str | None) -> str | None:
    job.original_revision = job.replacement_revision = None
    if after is None:
        job.family_revision = None
        return None
    family = catalogue.family(after, job.depot_id)
    job.family_revision = family.current
    return family.code


def _original(job: Job, after: str | None) -> str | None:
    job.replacement_revision = None
    if after is None:
        job.original_revision = None
        return None
    board = catalogue.board(after, job.depot_id)
    job.original_revision = board.current
    if job.family_revision is None or job.family_revision.family_id != board.family_id:
        job.family_revision = board.family.current
    return board.part_number


def _replacement(job: Job, after: str | None) -> str | None:
    if after is None:
        job.replacement_revision = None
        return None
    if TOGETHER in after and not Board.objects.seen_by(job.depot_id).filter(part_number=after).exists():
        raise Refused("Nobody has written a profile of this set yet. Ask the parts lead to load one.")
    board = catalogue.board(after, job.depot_id)
    if job.family_revision is None:
        raise Refused("Nobody has said yet which board comes out. Do that first, in Recognise.")
    if board.family_id != job.family_revision.family_id:
        raise Refused(f"{board.part_number} is of another family ({board.family.title}).")
    job.replacement_revision = board.current
    return board.part_number


def _original_profile(job: Job, number: int | None) -> int:
    job.original_revision = _taken(job, job.original_revision, number, job.state["found"])
    return job.original_revision.number


def _replacement_profile(job: Job, number: int | None) -> int:
    job.replacement_revision = _taken(job, job.replacement_revision, number, job.state["overrides"])
    return job.replacement_revision.number


def _original_joined(job: Job, number: str | None) -> str:
    revision = _joined(job, job.original_revision, number, job.state["found"])
    if job.family_revision is None or job.family_revision.family_id != revision.board.family_id:
        job.replacement_revision = None
    job.original_revision, job.family_revision = revision, revision.board.family.current
    return revision.board.part_number


def _replacement_joined(job: Job, number: str | None) -> str:
    revision = _joined(job, job.replacement_revision, number, job.state["overrides"])
    if job.family_revision is None:
        raise Refused("Nobody has said yet which board comes out. Do that first, in Recognise.")
    if revision.board.family_id != job.family_revision.family_id:
        raise Refused(f"{revision.board.part_number} is of another kind ({revision.board.family.title}). Choose again.")
    job.replacement_revision = revision
    return revision.board.part_number


def _joined(job: Job, old: BoardRevision | None, number: str | None, stands: dict[str, Any]) -> BoardRevision:
    """The board that a sketch of this job turned out to be, by the parts lead's word."""
    if old is None:
        raise Refused("Choose the board first.")
    if number is None or number != catalogue.joined_to(old.board):
        raise Refused(f"Nobody said that {old.board.part_number} is this board. The parts lead joins them.")
    revision = catalogue.board(number, job.depot_id).current
    assert revision is not None  # queries.board refuses boards without one
    try:
        record_of(board_profile(revision.pk), stands)
    except (DocumentError, WrongValue) as error:
        raise Faulty(
            f"What this job recorded does not fit {number}. Take back what does not, then go on with it.", error.faults
        ) from error
    return revision


def _taken(job: Job, old: BoardRevision | None, number: int | None, stands: dict[str, Any]) -> BoardRevision:
    """Another revision of a board that the job has already, with the kind of machine as it is now.

    Raises Refused where what the job recorded does not fit it, or where the job's other board does not fit the kind.
    """
    if old is None:
        raise Refused("Choose the board first.")
    if number is None:
        raise Refused("Take another revision instead.")
    revision = catalogue.revision(old.board, number)
    family = old.board.family.current
    assert family is not None  # a board was loaded into it
    try:
        record_of(board_profile(revision.pk), stands)
        for each in (job.original_revision_id, job.replacement_revision_id):
            if each is not None and each != old.pk:
                check_board_in_family(board_profile(each), family_profile(family.pk))
    except (DocumentError, WrongValue) as error:
        raise Faulty(
            f"Revision {number} does not agree with this job. Take back what does not, then take the revision.",
            error.faults,
        ) from error
    job.family_revision = family
    return revision


BOARDS: dict[str, Callable[[Job, Any], Any]] = {
    "family": _family, "original": _original, "replacement": _replacement,
    "original_profile": _original_profile, "replacement_profile": _replacement_profile,
    "original_joined": _original_joined, "replacement_joined": _replacement_joined,
}  # fmt: skip
