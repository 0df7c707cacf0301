"""What of an entry hangs on the depot's catalogue and store: the boards chosen, the candidates as they stand, pictures."""

from typing import Any

from catalogue import queries as catalogue
from catalogue.models import Board
from config.errors import Faulty, Refused
from jobs.candidates import choice_made
from jobs.cases import case_of
from jobs.models import Job, Picture
from twincore.choose import TOGETHER
from twincore.job import Target
from twincore.job.adding import brought, in_form
from twincore.job.adding import value_of as checked_value
from twincore.job.given import Given


def value_of(job: Job, target: Target, name: str, after: Any, given: Given) -> Any:
    """What is said at a target; None takes it back. A board that is chosen is held in its current revision."""
    if target.kind in BOARDS:
        return BOARDS[target.kind](job, in_form(target, after))
    value = checked_value(case_of(job), target, name, after, given)
    if target.kind == "picture" and value is not None and not Picture.objects.filter(name=name, job=job).exists():
        raise Faulty("Send the picture itself first.")
    return value


def brings(job: Job, target: Target, name: str, value: Any, given: Given) -> dict[str, Any] | None:
    """What an entry brings along from data that no entry holds."""
    if target.kind == "replacement":
        return None if value is None else {"choice": choice_made(job, value, given)}
    return brought(case_of(job), target, name, value)


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
    assert job.family_revision is not None  # choose waits for recognise
    if board.family_id != job.family_revision.family_id:
        raise Refused(f"{board.part_number} is of another family ({board.family.title}).")
    job.replacement_revision = board.current
    return board.part_number


BOARDS = {"family": _family, "original": _original, "replacement": _replacement}
