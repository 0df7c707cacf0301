"""Reading jobs."""

from typing import Any, cast
from uuid import UUID

from django.db.models import Q, QuerySet
from django.db.models.functions import JSONObject

from jobs.ledger.chaining import entry_node
from jobs.models import ENDS_A_STEP, Entry, Job, OtherBoard
from jobs.sheets import asked_for, at_hand, sheet, with_revisions
from people.models import Person
from twincore.job import STEPS, TARGETS, Step, mended
from twinshown.refusals import NotThere


def _in_lists(depot: int | None, show: str) -> QuerySet[Job]:
    """The jobs of a depot, last changed first, with those parts of their states that a list shows."""
    parts = JSONObject(**{name: f"state__{name}" for name in ("original", "replacement", "boards")})
    rows = Job.objects.filter(depot=depot).select_related("depot").defer("state").annotate(parts=parts)
    return rows if show == "all" else rows.filter(closed_at__isnull=show == "open")


def jobs(person: Person, show: str, search: str) -> QuerySet[Job]:
    """The jobs of the person's depot in which something is found, last changed first."""
    beside = OtherBoard.objects.filter(original_revision__board__part_number__icontains=search)
    found = Q(machine__icontains=search) | Q(original_revision__board__part_number__icontains=search)
    found |= Q(pk__in=beside.values("job"))
    digits = search.rsplit("-", 1)[-1]
    if digits.isdigit() and len(digits) < 9:
        found |= Q(number=int(digits))
    return _in_lists(person.depot_id, show).filter(found)


def all_jobs(person: Person, show: str, start: int, stop: int) -> tuple[list[Job], int]:
    """A page of the jobs of the person's depot, last changed first, and how many there are: what everybody looks at."""
    rows = _in_lists(person.depot_id, show)
    return list(rows[start:stop]), rows.count()


def job(person: Person, asked: UUID | str) -> Job:
    """One job of the person's depot, with both boards: by its id, or by that of the sheet of one of its boards."""
    job_id, board = asked_for(str(asked))
    found = at_hand(job_id, person.depot_id)
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


ENDED_BY = {kind: target.step for kind, target in TARGETS.items() if target.ends_step}
"""The steps that end with what is said in them, and not with a confirmation."""


def steps_done(person: Person) -> list[Step]:
    """The steps that a person has ever ended in any job, in their order."""
    ends = (
        Entry.objects.filter(ENDS_A_STEP, by=person.pk).order_by("target").values_list("target", flat=True).distinct()
    )
    ended = {ENDED_BY.get(name, name.removeprefix("confirmed.")) for name in ends}
    return [step for step in STEPS if step in ended]


def entries(job: Job) -> QuerySet[Entry]:
    """A job's history, newest first."""
    return job.entries.all()
