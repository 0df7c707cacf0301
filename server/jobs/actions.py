"""Use cases of a job: open it, and add entries. Permission, transaction and log stand here together."""

from collections.abc import Sequence
from datetime import datetime
from uuid import UUID

from django.db import transaction
from django.db.models import Max

from jobs.entries import StoredJob
from jobs.ledger.chaining import opening
from jobs.models import Job
from jobs.queries import as_read
from jobs.sheets import held, with_revisions
from people.access import depot_of
from people.models import Depot, Person
from twincore.job import empty_state
from twincore.job.values import is_name
from twinshown.entering.accepting import NewEntry
from twinshown.entering.entry import enter
from twinshown.entering.port import Maker
from twinshown.refusals import Faulty, NotThere, Refused


def machine_key(machine: str) -> str:
    """A machine's name as machines are told apart by it: without case, and spaces made even."""
    return " ".join(machine.split()).casefold()


@transaction.atomic
def open_job(person: Person, id: UUID, machine: str, complaint: str, now: datetime) -> Job:
    """Open a job in the person's depot; the id is made by the client, so that sending twice opens one."""
    depot = Depot.objects.select_for_update().get(pk=depot_of(person).pk)
    if there := Job.objects.filter(pk=id).first():
        if there.depot_id != depot.pk:
            raise Refused("This id is in use. Load the page again.")
        return there
    machine = " ".join(machine.split())
    if not machine or not is_name(machine):
        raise Faulty("Say which machine it is: its name, place or number, in letters that can be read.")
    last = depot.jobs.aggregate(last=Max("number"))["last"] or 0
    job = Job(
        id=id, depot=depot, number=last + 1, machine=machine, complaint=complaint.strip(),
        opened_at=now, changed_at=now, opened_by=person, state=empty_state(), machine_key=machine_key(machine),
    )  # fmt: skip
    job.opened_as = opening(depot, job.code, machine, job.complaint, now, person.shown_name)
    job.save(force_insert=True)
    return job


@transaction.atomic
def add_entry(person: Person, job_id: UUID, new: NewEntry, now: datetime) -> Job:
    """Add one entry and bring the job's state up to it. An entry that is there already changes nothing.

    Raises what `twinshown.entering.entry` refuses.
    """
    held = StoredJob(locked_job(person, job_id), person, now)
    return enter(held, new, Maker(person.pk, person.username, person.shown_name), now).job


def add_entries(person: Person, job_id: UUID, news: Sequence[NewEntry], now: datetime) -> int:
    """Add entries in their order, each by itself, until one is not taken; how many were. The rest was not touched."""
    for taken, new in enumerate(news):
        try:
            add_entry(person, job_id, new, now)
        except Exception:
            # what was taken stays, and is said to; the next one is sent alone, and hears what is wrong with it
            return taken
    return len(news)


def locked_job(person: Person, job_id: UUID) -> Job:
    """A job of the person's depot, held until the transaction ends. Raises NotThere."""
    job = held(job_id, person.depot_id)
    if job is None:
        raise NotThere("Your depot has no such job.")
    with_revisions(job)
    return as_read(job)
