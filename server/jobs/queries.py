"""Reading jobs."""

from typing import Any, cast
from uuid import UUID

from django.db.models import Q, QuerySet
from django.db.models.functions import JSONObject

from config.errors import NotThere
from jobs.ledger.chaining import entry_node
from jobs.models import ENDS_A_STEP, Entry, Job, OtherBoard
from jobs.sheets import LEFT_OUT, LOADED, asked_for, sheet, with_revisions
from people.models import Person
from twincore.job import STEPS, Step, mended


def jobs(person: Person, show: str, search: str) -> QuerySet[Job]:
    """The jobs of the person's depot, last changed first, with those parts of their states that a list shows."""
    parts = JSONObject(**{name: f"state__{name}" for name in ("original", "replacement", "boards")})
    rows = Job.objects.filter(depot=person.depot_id).select_related("depot").defer("state").annotate(parts=parts)
    if show != "all":
        rows = rows.filter(closed_at__isnull=show == "open")
    if search:
        beside = OtherBoard.objects.filter(original_revision__board__part_number__icontains=search)
        found = Q(machine__icontains=search) | Q(original_revision__board__part_number__icontains=search)
        found |= Q(pk__in=beside.values("job"))
        digits = search.rsplit("-", 1)[-1]
        if digits.isdigit() and len(digits) < 9:
            found |= Q(number=int(digits))
        rows = rows.filter(found)
    return rows


def job(person: Person, asked: UUID | str) -> Job:
    """One job of the person's depot, with both boards: by its id, or by that of the sheet of one of its boards."""
    job_id, board = asked_for(str(asked))
    found = (
        Job.objects.filter(depot=person.depot_id, pk=job_id)
        .select_related("depot", "opened_by", *LOADED)
        .defer(*LEFT_OUT)
        .first()
    )
    if found is None:
        raise NotThere("Your depot has no such job.")
    with_revisions(found)
    return sheet(as_read(found), board)


def as_read(job: Job) -> Job:
    """A job with its state as this version has it: where what is stored is damaged, as its entries tell it."""
    found = mended(job.state, lambda: [entry_node(each) for each in job.entries.order_by("number")])
    job.state, job.void = cast(dict[str, Any], found.state), found.void
    return job


def jobs_with(part_number: str) -> QuerySet[Job]:
    """The jobs that have a board of this number on one of their sheets, coming out or going in."""
    here = Q(state__original=part_number) | Q(state__replacement=part_number)
    beside = OtherBoard.objects.filter(
        Q(original_revision__board__part_number=part_number) | Q(replacement_revision__board__part_number=part_number)
    )
    return Job.objects.filter(here | Q(pk__in=beside.values("job")))


ENDED_BY = {"original": "recognise", "replacement": "choose"}
"""The steps that end with what is said in them, and not with a confirmation."""


def steps_done(person: Person) -> list[Step]:
    """The steps that a person has ever ended in any job, in their order."""
    rows = Entry.objects.filter(by=person).filter(ENDS_A_STEP).order_by("target")
    ended = {
        ENDED_BY.get(name, name.removeprefix("confirmed.")) for name in rows.values_list("target", flat=True).distinct()
    }
    return [step for step in STEPS if step in ended]


def entries(job: Job) -> QuerySet[Entry]:
    """A job's history, newest first."""
    return job.entries.all()
