"""Prove over HTTP."""

from typing import Any

from django.http import HttpRequest
from ninja import Query, Router

from jobs.asked import ending_job, planned_job
from jobs.cases import case_of
from jobs.ports.reading import port_of
from jobs.sheets import SheetId
from twincore.job.steps.prove import runs_in_order
from twinshown.paging import Page, Paging
from twinshown.steps.prove.schemas import MeasuredShown, ProvingShown
from twinshown.steps.prove.view import measured_shown, proving_shown

router = Router(tags=["prove"])


@router.get("/jobs/{job_id}/proving", response=ProvingShown)
def show_proving(request: HttpRequest, job_id: SheetId) -> ProvingShown:
    """The proving plan, and where it stands."""
    job = ending_job(request, job_id)
    return proving_shown(case_of(job), port_of(job, "replacement") is not None)


@router.get("/jobs/{job_id}/runs", response=Page[MeasuredShown])
def list_runs(request: HttpRequest, job_id: SheetId, paging: Query[Paging]) -> dict[str, Any]:
    """Measured runs, newest first, each event judged."""
    case = case_of(planned_job(request, job_id))
    names = runs_in_order(case)[::-1]
    start = paging.start
    page = measured_shown(case, names[start : start + paging.size])
    return {"items": page, "total": len(names), "page": paging.page, "size": paging.size}
