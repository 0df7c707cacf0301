"""The front of a job over HTTP: rule out, recognise, choose."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Query, Router

from config.downloads import PDF, download
from config.errors import Refused
from config.paging import Paging
from jobs import queries
from jobs.front import summary
from jobs.front.choose_view import beside, candidates_shown, costs_shown
from jobs.front.key_view import key_shown
from jobs.front.machine_view import machine_shown
from jobs.front.rule_out_view import rule_out_shown
from jobs.front.schemas import (
    BesideShown,
    CandidatesShown,
    CostsShown,
    KeyShown,
    MachineShown,
    RuleOutShown,
)
from jobs.models import Job
from people.access import person_of

router = Router(tags=["front of a job"])


def _job(request: HttpRequest, job_id: UUID) -> Job:
    return queries.job(person_of(request), job_id)


@router.get("/jobs/{job_id}/rule-out", response=RuleOutShown)
def show_rule_out(request: HttpRequest, job_id: UUID) -> RuleOutShown:
    """Where the suspicion stands, and what to test next."""
    shown = rule_out_shown(_job(request, job_id))
    if shown is None:
        raise Refused("There is no rule-out data for this kind of machine yet.")
    return shown


@router.get("/jobs/{job_id}/key", response=KeyShown)
def show_key(request: HttpRequest, job_id: UUID) -> KeyShown:
    """The key of features."""
    return key_shown(_job(request, job_id))


@router.get("/jobs/{job_id}/machine", response=MachineShown)
def show_machine(request: HttpRequest, job_id: UUID) -> MachineShown:
    """What is known of the machine, and what its family would like to know."""
    return machine_shown(_job(request, job_id))


@router.get("/jobs/{job_id}/candidates", response=CandidatesShown)
def list_candidates(request: HttpRequest, job_id: UUID, paging: Query[Paging]) -> CandidatesShown:
    """The boards that may replace the original, best first, judged on every criterion."""
    return candidates_shown(_job(request, job_id), paging, timezone.now())


@router.get("/jobs/{job_id}/beside/{path:part_number}", response=BesideShown)
def show_beside(request: HttpRequest, job_id: UUID, part_number: str) -> BesideShown:
    """The original and a candidate laid on each other."""
    return beside(_job(request, job_id), part_number)


@router.get("/jobs/{job_id}/costs", response=CostsShown)
def show_costs(request: HttpRequest, job_id: UUID, part_number: str = Query("", max_length=700)) -> CostsShown:
    """What it costs, against calling a service."""
    return costs_shown(_job(request, job_id), timezone.now(), part_number or None)


@router.get("/jobs/{job_id}/summary.pdf", response={200: Any})
def summary_pdf(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """One page about a board that nobody recognised yet, to send to the depot."""
    job = _job(request, job_id)
    return download(summary.summary_pdf(job, timezone.now()), PDF, f"{job.code}-summary.pdf")


@router.get("/jobs/{job_id}/reasoning.pdf", response={200: Any})
def reasoning_pdf(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """The chain of reasoning, printed."""
    job = _job(request, job_id)
    return download(summary.reasoning_pdf(job, timezone.now()), PDF, f"{job.code}-reasoning.pdf")
