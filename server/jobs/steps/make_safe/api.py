"""Make safe over HTTP."""

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router

from jobs.asked import job_of
from jobs.cases import case_of
from jobs.sheets import SheetId
from jobs.steps.make_safe.before import as_before
from people.access import person_of
from twinshown.steps.make_safe.schemas import MakeSafeShown
from twinshown.steps.make_safe.view import make_safe_shown

router = Router(tags=["make safe"])


@router.get("/jobs/{job_id}/make-safe", response=MakeSafeShown)
def show_make_safe(request: HttpRequest, job_id: SheetId) -> MakeSafeShown:
    """The hold points of this machine and board."""
    job = job_of(request, job_id)
    return make_safe_shown(case_of(job), as_before(job, person_of(request)), timezone.now())
