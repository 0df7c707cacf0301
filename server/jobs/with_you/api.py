"""Jobs taken along, over HTTP."""

from typing import Any

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router

from jobs.asked import job_of
from jobs.sheets import SheetId
from jobs.with_you.taking import taken
from people.access import person_of

router = Router(tags=["with you"])


@router.get("/jobs/{job_id}/with-you", response=dict[str, Any])
def take(request: HttpRequest, job_id: SheetId) -> dict[str, Any]:
    """All that the job's pages are worked out from, for a device that will have no connection."""
    return taken(job_of(request, job_id), person_of(request), timezone.now())
