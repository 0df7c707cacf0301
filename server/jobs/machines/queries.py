"""Machine history: every job on a machine, which board is in it now, and how it was left."""

from typing import Any

from django.db.models import Count, Max, QuerySet

from jobs.actions import machine_key as key_of
from jobs.cases import case_of
from jobs.machines.schemas import AlsoOpen, BoardIn, MachineLine, MachineNow
from jobs.models import Job
from jobs.sheets import sheets_of
from people.models import Person
from twincore.job import FIRST, State, current, sheets, supply_said, title_of
from twincore.job.shared.left import left_in_order
from twinshown.refusals import NotThere

__all__ = ["jobs_on", "key_of", "machine_lines", "machine_now", "machines"]


MOST_LOOKED_AT = 50


def machines(person: Person, search: str) -> QuerySet[Job, Any]:
    """The depot's machines by name: key, count of jobs, and when the last one was opened."""
    rows = Job.objects.filter(depot=person.depot_id)
    if search:
        rows = rows.filter(machine__icontains=search)
    return rows.values("machine_key").annotate(jobs=Count("id"), last_at=Max("opened_at")).order_by("machine_key")


def machine_lines(person: Person, rows: list[dict[str, Any]]) -> list[MachineLine]:
    """One page of machines, each with the board that is in it."""
    mine = Job.objects.filter(depot=person.depot_id, machine_key__in=[row["machine_key"] for row in rows])
    newest = mine.order_by("machine_key", "-opened_at").distinct("machine_key")
    fields = ("machine_key", "machine", "state__replacement", "state__serial")
    last = {each["machine_key"]: each for each in newest.values(*fields)}
    fitted = newest.filter(closed_at__isnull=False).exclude(state__left=None)
    done = {each["machine_key"]: each for each in fitted.values(*fields)}
    return [
        MachineLine(
            machine=last[key]["machine"], jobs=row["jobs"], last_at=row["last_at"],
            board=_parts(done.get(key, {}))["replacement"], serial=_parts(last[key])["serial"],
        )
        for row in rows
        for key in (row["machine_key"],)
    ]  # fmt: skip


def _parts(row: dict[str, Any]) -> State:
    """The parts of a state that a row holds, as this version reads them."""
    return current({name.removeprefix("state__"): part for name, part in row.items() if part is not None})


def _last_fitted(jobs: list[Job]) -> Job | None:
    """The last job that ended with a new board in the machine; `jobs` newest first."""
    return next((job for job in jobs if job.closed_at and any(each["left"] for each in sheets(job.state))), None)


def _others_in(done: Job) -> list[BoardIn]:
    """The further boards that a job put into its machine."""
    return [
        BoardIn(
            title=title_of(each.state, each.board), board=each.state["replacement"], left=left_in_order(case_of(each))
        )
        for each in sheets_of(done)
        if each.board != FIRST and each.state["left"]
    ]


def _serial(jobs: list[Job]) -> str | None:
    return next((job.state["serial"] for job in jobs if job.state.get("serial")), None)


def jobs_on(person: Person, machine_key: str) -> QuerySet[Job]:
    """Every job on a machine, newest first."""
    return (
        Job.objects.filter(depot=person.depot_id, machine_key=machine_key)
        .select_related("depot")
        .order_by("-opened_at")
    )


def _also_open(job: Job) -> AlsoOpen:
    state = job.state
    supply = supply_said(state)
    said = (
        state["energised"]
        if supply == "on"
        else next((h for h in state["holds"].values() if not h.get("skipped")), None)
    )
    return AlsoOpen(
        id=job.pk, code=job.code, step=job.step, original=state["original"], supply=supply, by=said["by"] if said else "",
        at=said["at"] if said else "",
    )  # fmt: skip


def machine_now(person: Person, machine_key: str, but: Job | None = None) -> MachineNow:
    """A machine as it stands by its records; `but` leaves a job out, for one that is just begun."""
    rows = jobs_on(person, machine_key)
    if but is not None:
        rows = rows.exclude(pk=but.pk)
    jobs = list(rows[:MOST_LOOKED_AT])
    if not jobs and but is None:
        raise NotThere("Your depot has no such machine.")
    for job in jobs:
        job.state = current(job.state)
    done = _last_fitted(jobs)
    defects = [
        f"{each['what']} (until {each['until']}, {each['who']})"
        for job in jobs
        for each in job.state["defects"].values()
        if not each["done"]
    ]
    corrections = [each["what"] for job in jobs for each in job.state["corrections"].values()]
    return MachineNow(
        machine=jobs[0].machine if jobs else but.machine if but else "",
        board=done.state["replacement"] if done else None,
        left=left_in_order(case_of(done)) if done and done.state["left"] else None,
        others=_others_in(done) if done else [],
        since=done.closed_at if done else None,
        by_job=done.code if done else "",
        by_job_id=done.pk if done else None,
        serial=_serial(jobs),
        defects=defects,
        corrections=corrections,
        also_open=[_also_open(each) for each in jobs if each.closed_at is None and each.origin is None],
    )
