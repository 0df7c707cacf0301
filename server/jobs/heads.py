"""The head of a stored job, as its pages show it."""

from catalogue.models import BoardRevision
from catalogue.queries import joined_to
from jobs.models import Job
from people.models import Depot
from twinshown.sheet.head import Head, Rules
from twinshown.sheet.schemas import BoardRef


def head_of(job: Job) -> Head:
    """The head of the sheet at hand."""
    return Head(
        id=str(job.pk),
        code=job.code,
        machine=job.machine,
        complaint=job.complaint,
        opened_at=job.opened_at,
        opened_by=job.opened_by.shown_name,
        changed_at=job.changed_at,
        closed_at=job.closed_at,
        rules=rules_of(job.depot),
        original=ref_of(job.original_revision),
        replacement=ref_of(job.replacement_revision),
        origin=job.origin,
        void=job.void,
    )


def rules_of(depot: Depot) -> Rules:
    """What a depot has decided."""
    return Rules(
        school_when_agreed=depot.school_when_agreed,
        school_when_not=depot.school_when_not,
        second_person=depot.second_person,
        assumptions=depot.assumptions,
        currency=depot.currency,
    )


def ref_of(revision: BoardRevision | None) -> BoardRef | None:
    """A board in the revision that a job keeps."""
    if revision is None:
        return None
    board = revision.board
    now = board.current
    return BoardRef(
        part_number=board.part_number, title=board.title, maker=board.maker, revision=revision.number,
        newer=now.number if now is not None and now.pk != revision.pk else None, joined=joined_to(board),
    )  # fmt: skip
