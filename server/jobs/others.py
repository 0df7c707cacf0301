"""What others said of a machine's supply: other open jobs on it, and other people on this one."""

from typing import Any

from django.db import connection
from django.db.models import QuerySet

from jobs.models import Entry, Job
from people.models import Person
from twincore.job import about_supply, contradicts, current, supply_needed, supply_said, value_at
from twinshown.entering.accepting import NewEntry, rests_on_supply
from twinshown.refusals import Changed, Refused

MOST_TOLD = 6
MACHINE_LOCK = "select pg_advisory_xact_lock(hashtextextended(%s, 720412))"
"""Held until what was said of a machine's supply is kept."""


def check_supply(job: Job, new: NewEntry) -> None:
    """Refuse what cannot be true beside another open job on the same machine: one says dead, the other has power."""
    needed = supply_needed(job.state, new.target, new.read_how) if new.after is not None else None
    if needed is None and not about_supply(new.target):
        return
    # of two jobs on one machine the second waits here until the first is kept, and then sees what it said
    with connection.cursor() as cursor:
        cursor.execute(MACHINE_LOCK, [f"{job.depot_id} {job.machine_key}"])
    if needed is None:
        return
    for other in machine_jobs_open(job):
        if contradicts(needed, supply_said(current(other.state))):
            said = "has this machine locked off" if needed == "on" else "says that this machine has power again"
            raise Refused(
                f"{other.code} {said}. One of the two is wrong, or somebody is at work there: go and look, and say in "
                "the job that is wrong how the supply stands."
            )


def machine_jobs_open(job: Job) -> QuerySet[Job]:
    """The other open jobs on a job's machine."""
    return (
        Job.objects.filter(depot=job.depot_id, machine_key=job.machine_key, closed_at__isnull=True, origin__isnull=True)
        .exclude(pk=job.pk)
        .select_related("depot")
        .order_by("number")
    )


def check_seen(job: Job, person: Person, new: NewEntry) -> None:
    """Refuse what rests on the supply where somebody else, or the same person on another device, said meanwhile how it
    stands: hold points are never joined unseen.
    """
    if new.seen is None or new.seen >= job.entry_count or not rests_on_supply(job.state, new):
        return
    since = job.entries.filter(number__gt=new.seen)
    others = since.exclude(device=new.device, by=person) if new.device else since.exclude(by=person)
    said = [each for each in others.order_by("number") if about_supply(each.target)]
    if said:
        changes = [told(each) for each in said[-MOST_TOLD:]]
        raise Changed(
            f"Meanwhile {said[-1].by_name} said otherwise how the supply of this machine stands. Go and look, then say it again.",
            changes=changes, now=value_at(job.state, new.target),
        )  # fmt: skip


def told(entry: Entry) -> dict[str, Any]:
    """An entry as it is told to whoever said otherwise."""
    return {
        "target": entry.target, "before": entry.before, "after": entry.after, "by": entry.by_name, "at": entry.at.isoformat()
    }  # fmt: skip
