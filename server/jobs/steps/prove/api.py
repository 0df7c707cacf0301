"""Prove over HTTP."""

from typing import Any

from django.http import HttpRequest
from ninja import Query, Router

from config.paging import Page, Paging
from jobs.asked import ending_job, planned_job
from jobs.cases import case_of
from jobs.sheets import SheetId
from jobs.steps.prove.schemas import MeasuredShown, ProvingShown
from jobs.steps.prove.view import measured_shown, proving_shown
from twincore.job.steps.prove import runs_in_order

router = Router(tags=["prove"])


@router.get("/jobs/{job_id}/proving", response=ProvingShown)
def show_proving(request: HttpRequest, job_id: SheetId) -> ProvingShown:
    """The proving plan, and where it stands."""
    return proving_shown(ending_job(request, job_id))


@router.get("/jobs/{job_id}/runs", response=Page[MeasuredShown])
def list_runs(request: HttpRequest, job_id: SheetId, paging: Query[Paging]) -> dict[str, Any]:
    """Measured runs, newest first, each event judged."""
    job = planned_job(request, job_id)
    names = runs_in_order(case_of(job))[::-1]
    start = paging.start
    page = measured_shown(job, names[start : start + paging.size])
    return {"items": page, "total": len(names), "page": paging.page, "size": paging.size}
