"""The end of a job over HTTP: fit, prove, hand over, its papers and its package; machines, calls and jobs from elsewhere."""

from tempfile import TemporaryFile
from typing import Any
from uuid import UUID

from django.http import FileResponse, HttpRequest, HttpResponse, StreamingHttpResponse
from django.utils import timezone
from ninja import Query, Router

from config.downloads import PDF, download, named
from config.errors import Faulty, Refused
from config.paging import Page, Paging, paged
from jobs import queries
from jobs.cases import case_of
from jobs.finish import machines, packaging, papers, port_writing, streaming
from jobs.finish.feedback import calls_to_make
from jobs.finish.fit_view import fitting_shown
from jobs.finish.over_view import hand_over_shown
from jobs.finish.panels import panel_now, slips_of
from jobs.finish.prove_view import measured_shown, proving_shown
from jobs.finish.schemas import (
    ActionsGiven,
    CallShown,
    FittingShown,
    HandOverShown,
    ImportedShown,
    MachineJob,
    MachineLine,
    MachineNow,
    MachineSearch,
    MeasuredShown,
    PanelNow,
    PortWrittenShown,
    ProvingShown,
    SlipGiven,
    SlipShown,
)
from jobs.models import Job
from jobs.work.port import required_outputs
from people.access import person_of
from twincore.chain import LARGEST_PACKAGE
from twincore.job import done
from twincore.job.steps.prove import runs_in_order

router = Router(tags=["end of a job"])
CHUNK = 1 << 20


def _planned(request: HttpRequest, job_id: UUID) -> Job:
    """A job whose plan is confirmed: before that there is nothing to fit, to prove or to hand over."""
    job = queries.job(person_of(request), job_id)
    if job.replacement_revision_id is None or not done(job.state, "carry_over"):
        raise Refused("Confirm the plan of carrying over first.")
    return job


@router.get("/jobs/{job_id}/fitting", response=FittingShown)
def show_fitting(request: HttpRequest, job_id: UUID) -> FittingShown:
    """What is to be fitted, looked at and set."""
    return fitting_shown(_planned(request, job_id))


@router.post("/jobs/{job_id}/panel", response=PanelNow)
def press_panel(request: HttpRequest, job_id: UUID, given: ActionsGiven) -> PanelNow:
    """The simulated front panel after these presses."""
    return panel_now(_planned(request, job_id), given.panel, given.actions)


@router.post("/jobs/{job_id}/panel/slips", response=list[SlipShown])
def find_slips(request: HttpRequest, job_id: UUID, given: SlipGiven) -> list[SlipShown]:
    """Where a slip was, when something else is seen, and the way back."""
    return slips_of(_planned(request, job_id), given.panel, given.actions, given.seen)


@router.post("/jobs/{job_id}/port/write", response=PortWrittenShown)
def write_port(request: HttpRequest, job_id: UUID) -> PortWrittenShown:
    """Set the new board over its port; undone if it does not read back as written."""
    done = port_writing.write_port(_planned(request, job_id))
    return PortWrittenShown(values=done.values, differ=done.differ, fault=done.fault, undone=done.undone)


@router.get("/jobs/{job_id}/port/stream", response={200: Any})
def stream_port(request: HttpRequest, job_id: UUID, side: str = "replacement") -> StreamingHttpResponse:
    """What the port shows, as it changes (server-sent events)."""
    at = required_outputs(queries.job(person_of(request), job_id), side)
    response = StreamingHttpResponse(streaming.stream_port(at), content_type="text/event-stream")
    response["Cache-Control"] = "no-store"
    response["X-Accel-Buffering"] = "no"
    # said to be encoded already, so that nothing gathers it to compress it
    response["Content-Encoding"] = "identity"
    return response


@router.get("/jobs/{job_id}/proving", response=ProvingShown)
def show_proving(request: HttpRequest, job_id: UUID) -> ProvingShown:
    """The proving plan, and where it stands."""
    return proving_shown(_planned(request, job_id))


@router.get("/jobs/{job_id}/runs", response=Page[MeasuredShown])
def list_runs(request: HttpRequest, job_id: UUID, paging: Query[Paging]) -> dict[str, Any]:
    """Measured runs, newest first, each event judged."""
    job = _planned(request, job_id)
    names = runs_in_order(case_of(job))[::-1]
    start = (paging.page - 1) * paging.size
    page = measured_shown(job, names[start : start + paging.size])
    return {"items": page, "total": len(names), "page": paging.page, "size": paging.size}


@router.get("/jobs/{job_id}/hand-over", response=HandOverShown)
def show_hand_over(request: HttpRequest, job_id: UUID) -> HandOverShown:
    """What the last step shows besides the record."""
    return hand_over_shown(_planned(request, job_id), person_of(request), timezone.now())


@router.get("/jobs/{job_id}/label.pdf", response={200: Any})
def label(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """The cabinet label, 62 by 100 mm."""
    job = _planned(request, job_id)
    return download(papers.label_pdf(job), PDF, f"{job.code}.label.pdf")


@router.get("/jobs/{job_id}/customer.pdf", response={200: Any})
def customer_page(request: HttpRequest, job_id: UUID, paper: str = "A4") -> HttpResponse:
    """The customer's page, in plain words."""
    job = _planned(request, job_id)
    return download(papers.customer_pdf(job, paper, timezone.now()), PDF, f"{job.code}.customer.pdf")


@router.get("/jobs/{job_id}/package.zip", response={200: Any})
def package(request: HttpRequest, job_id: UUID) -> FileResponse:
    """The whole job with its pictures and profiles, to be verified and brought in elsewhere."""
    job = queries.job(person_of(request), job_id)
    return FileResponse(packaging.package_of(job), content_type="application/zip", headers=named(f"{job.code}.job.zip"))


@router.post("/packages", response=ImportedShown)
def bring_in(request: HttpRequest) -> ImportedShown:
    """Bring a job in from another depot: the body is the package itself."""
    with TemporaryFile() as file:
        size = 0
        while chunk := request.read(CHUNK):
            size += len(chunk)
            if size > LARGEST_PACKAGE:
                raise Faulty(f"Expected at most {LARGEST_PACKAGE // 1_000_000} MB.")
            file.write(chunk)
        file.seek(0)
        brought = packaging.bring_in(person_of(request), file, timezone.now())
    job = brought.job
    return ImportedShown(
        id=job.pk, code=job.code, machine=job.machine, new=brought.new, entries=job.entry_count,
        pictures=brought.pictures, profiles=brought.profiles,
    )  # fmt: skip


@router.get("/calls", response=Page[CallShown])
def list_calls(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """Whom to ask how the new board does: closed a month ago or longer, and nobody asked."""
    return paged(calls_to_make(person_of(request), timezone.now()), paging, _call)


def _call(job: Job) -> CallShown:
    assert job.closed_at is not None  # calls are about closed jobs
    return CallShown(
        id=job.pk, code=job.code, machine=job.machine, original=job.state["original"],
        replacement=job.state["replacement"], closed_at=job.closed_at,
        said=job.state.get("feedback", {}).get("now", {}).get("result", ""),
    )  # fmt: skip


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
    return MachineJob(
        id=job.pk, code=job.code, complaint=job.complaint, opened_at=job.opened_at, closed_at=job.closed_at,
        original=job.state["original"], replacement=job.state["replacement"], verdict=job.state["verdict"],
    )  # fmt: skip


@router.get("/jobs/{job_id}/earlier", response=MachineNow)
def show_earlier(request: HttpRequest, job_id: UUID) -> MachineNow:
    """What earlier jobs left in this job's machine."""
    person = person_of(request)
    job = queries.job(person, job_id)
    return machines.machine_now(person, job.machine_key, job)
