"""Make safe over HTTP."""

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router

from jobs.asked import job_of
from jobs.sheets import SheetId
from jobs.steps.make_safe.schemas import MakeSafeShown
from jobs.steps.make_safe.view import make_safe_shown
from people.access import person_of

router = Router(tags=["make safe"])


@router.get("/jobs/{job_id}/make-safe", response=MakeSafeShown)
def show_make_safe(request: HttpRequest, job_id: SheetId) -> MakeSafeShown:
    """The hold points of this machine and board."""
    return make_safe_shown(job_of(request, job_id), person_of(request), timezone.now())
