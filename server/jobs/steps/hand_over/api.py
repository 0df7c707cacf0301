"""Hand over over HTTP, and the calls that follow."""

from typing import Any

from django.http import HttpRequest
from django.utils import timezone
from ninja import Query, Router

from config.paging import paged
from jobs.asked import ending_job
from jobs.cases import case_of
from jobs.models import Job
from jobs.sheets import SheetId
from jobs.steps.hand_over.feedback import calls_to_make
from jobs.steps.hand_over.handing import handing_of
from people.access import person_of
from twinshown.paging import Page, Paging
from twinshown.steps.hand_over.schemas import CallShown, HandOverShown
from twinshown.steps.hand_over.view import hand_over_shown

router = Router(tags=["hand over"])


@router.get("/jobs/{job_id}/hand-over", response=HandOverShown)
def show_hand_over(request: HttpRequest, job_id: SheetId) -> HandOverShown:
    """What the last step shows besides the record."""
    job = ending_job(request, job_id)
    return hand_over_shown(case_of(job), handing_of(job, timezone.now()), person_of(request).pk)


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
