"""The boards of a job over HTTP."""

from django.http import HttpRequest
from ninja import Router

from jobs.asked import job_of
from jobs.cases import case_of
from jobs.sheets import SheetId
from twinshown.boards.schemas import WiresBetween
from twinshown.boards.view import between_shown

router = Router(tags=["boards of a job"])


@router.get("/jobs/{job_id}/between", response=WiresBetween)
def show_between(request: HttpRequest, job_id: SheetId) -> WiresBetween:
    """The wires from one board of the machine to another."""
    return between_shown(case_of(job_of(request, job_id)))
