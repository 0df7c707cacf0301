"""Machines over HTTP."""

from typing import Any

from django.http import HttpRequest
from ninja import Query, Router

from config.paging import paged
from jobs import queries
from jobs.machines import queries as machines
from jobs.machines.schemas import MachineJob, MachineLine, MachineNow, MachineSearch
from jobs.models import Job
from jobs.sheets import SheetId
from people.access import person_of
from twincore.job import current
from twinshown.paging import Page, Paging

router = Router(tags=["machines"])


@router.get("/machines", response=Page[MachineLine])
def list_machines(request: HttpRequest, search: Query[MachineSearch]) -> dict[str, Any]:
    """The depot's machines."""
    person = person_of(request)
    shown = paged(machines.machines(person, search.search), search, lambda row: row)
    return {**shown, "items": machines.machine_lines(person, shown["items"])}


@router.get("/machines/now", response=MachineNow)
def show_machine(request: HttpRequest, machine: str) -> MachineNow:
    """A machine as it stands by its records."""
    return machines.machine_now(person_of(request), machines.key_of(machine))


@router.get("/machines/jobs", response=Page[MachineJob])
def list_machine_jobs(request: HttpRequest, machine: str, paging: Query[Paging]) -> dict[str, Any]:
    """Every job on a machine, newest first."""
    return paged(machines.jobs_on(person_of(request), machines.key_of(machine)), paging, _machine_job)


def _machine_job(job: Job) -> MachineJob:
    state = current(job.state)
    return MachineJob(
        id=job.pk, code=job.code, complaint=job.complaint, opened_at=job.opened_at, closed_at=job.closed_at,
        original=state["original"], replacement=state["replacement"], verdict=state["verdict"],
    )  # fmt: skip


@router.get("/jobs/{job_id}/earlier", response=MachineNow)
def show_earlier(request: HttpRequest, job_id: SheetId) -> MachineNow:
    """What earlier jobs left in this job's machine."""
    person = person_of(request)
    job = queries.job(person, job_id)
    return machines.machine_now(person, job.machine_key, job)
