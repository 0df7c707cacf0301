"""Recognise over HTTP."""

from django.http import HttpRequest
from ninja import Router

from jobs.asked import job_of
from jobs.cases import case_of
from jobs.sheets import SheetId
from jobs.steps.recognise.key_view import key_shown
from twinshown.steps.recognise.schemas import KeyShown, MachineShown
from twinshown.steps.recognise.view import machine_shown

router = Router(tags=["recognise"])


@router.get("/jobs/{job_id}/key", response=KeyShown)
def show_key(request: HttpRequest, job_id: SheetId) -> KeyShown:
    """The key of features."""
    return key_shown(job_of(request, job_id))


@router.get("/jobs/{job_id}/machine", response=MachineShown)
def show_machine(request: HttpRequest, job_id: SheetId) -> MachineShown:
    """What is known of the machine, and what its family would like to know."""
    return machine_shown(case_of(job_of(request, job_id)))
