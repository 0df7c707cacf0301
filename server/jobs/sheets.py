"""The sheets of a job, one for each of its boards: asked for, turned to, and kept."""

from copy import copy
from typing import Annotated, NamedTuple
from uuid import UUID

from pydantic import StringConstraints

from catalogue.models import BoardRevision, FamilyRevision
from config.joined import Joined
from jobs.models import Job, OtherBoard
from twincore.job import FIRST, names_of, turned
from twinshown.refusals import NotThere

SheetId = Annotated[str, StringConstraints(pattern=r"^[0-9a-fA-F-]{32,36}(\.[1-6])?$")]
"""The id of a job; of another board's sheet with its number after a dot."""


class Revisions(NamedTuple):
    """The family and the boards of one sheet, in the revisions that the job keeps."""

    family: FamilyRevision | None = None
    original: BoardRevision | None = None
    replacement: BoardRevision | None = None


def asked_for(sheet: str) -> tuple[UUID, str]:
    """The job and the board of a sheet's id. Raises NotThere."""
    job, _, board = sheet.partition(".")
    try:
        return UUID(job), board or FIRST
    except ValueError as error:
        raise NotThere("Your depot has no such job.") from error


def id_of(job: Job) -> str:
    """The id of a sheet."""
    return str(job.pk) if job.board == FIRST else f"{job.pk}.{job.board}"


def revisions_of(job: Job) -> Revisions:
    """The family and the boards of the sheet at hand."""
    return Revisions(job.family_revision, job.original_revision, job.replacement_revision)


def beside(job: Job) -> dict[str, Revisions]:
    """Those of the job's other boards, by board."""
    if job.others is None:
        rows = (
            list(OtherBoard.objects.filter(job=job).select_related("family_revision").defer(LEFT_OUT))
            if job.state["boards"]
            else []
        )
        with_revisions(*rows)
        job.others = {
            row.name: Revisions(row.family_revision, row.original_revision, row.replacement_revision) for row in rows
        }
    return job.others


def sheet(job: Job, board: str) -> Job:
    """The sheet of one of the job's boards: the job with that board's own parts and revisions. Raises NotThere."""
    if board == job.board:
        return job
    if board not in names_of(job.state):
        raise NotThere("This job has no such board. Open the job again.")
    others = beside(job)
    found = copy(job)
    found.board, found.state = board, turned(job.state, board)
    here = others.get(board, Revisions())
    found.family_revision, found.original_revision, found.replacement_revision = here
    found.others = {name: each for name, each in others.items() if name != board} | {job.board: revisions_of(job)}
    return found


def sheets_of(job: Job) -> list[Job]:
    """Every sheet of a job, in the order of its boards."""
    return [sheet(job, name) for name in names_of(job.state)]


CHANGES = (
    "closed_at", "family_revision", "original_revision", "replacement_revision", "state", "step", "entry_count", "said", "changed_at",
)  # fmt: skip
"""What of a job's row an entry may change."""


def keep(job: Job) -> Job:
    """Save a job, whichever of its sheets is at hand; and each of its other boards in a row of its own."""
    whole = sheet(job, FIRST)
    whole.save(update_fields=None if whole._state.adding else CHANGES)
    boards = whole.state.get("boards", {})
    kept = beside(whole) if boards else {}
    for name in boards:
        here = kept.get(name, Revisions())
        values = {
            "family_revision": here.family,
            "original_revision": here.original,
            "replacement_revision": here.replacement,
        }
        OtherBoard.objects.update_or_create(job=whole, name=name, defaults=values)
    if job.others:
        OtherBoard.objects.filter(job=whole).exclude(name__in=list(boards)).delete()
    return whole


SIDES = ("original_revision", "replacement_revision")
LEFT_OUT = "family_revision__document"
"""What lists and sheets leave in the database."""
JOBS = Joined(Job, beside=("depot", "opened_by", "family_revision"), left_out=(LEFT_OUT,))
"""Jobs, with what their sheets look at."""
REVISIONS = Joined(BoardRevision, beside=("board", "board__current"), left_out=("document", "board__current__document"))
"""Revisions of boards, with the boards as they are now."""


def at_hand(pk: UUID | str, depot: int | None) -> Job | None:
    """One job of a depot, with what its sheet looks at; None where the depot has no such job."""
    return JOBS.first("where it.id = %s and it.depot_id = %s", pk, depot)


def held(pk: UUID | str, depot: int | None) -> Job | None:
    """The same, held until the transaction ends."""
    return JOBS.hold("where it.id = %s and it.depot_id = %s", pk, depot)


def with_revisions(*rows: Job | OtherBoard) -> None:
    """Have the revisions of boards at hand, with their boards as they are now: one query for all, and not one of many joins,
    of which the database spends more time on planning than on reading.
    """
    ids = [each for each in {getattr(row, f"{side}_id") for row in rows for side in SIDES} if each is not None]
    if not ids:
        return
    found = {revision.pk: revision for revision in REVISIONS("where it.id = any(%s)", ids)}
    for row in rows:
        for side in SIDES:
            if (revision := found.get(getattr(row, f"{side}_id"))) is not None:
                setattr(row, side, revision)
