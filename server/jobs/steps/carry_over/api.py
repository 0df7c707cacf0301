"""Carry over over HTTP: wires and presses."""

from django.http import HttpRequest
from ninja import Router

from jobs.asked import job_with_both
from jobs.cases import case_of
from jobs.sheets import SheetId
from twinshown.steps.carry_over.schemas import LeafletShown, PressesShown, WiringShown
from twinshown.steps.carry_over.view import leaflet_shown, presses_shown, wiring_shown

router = Router(tags=["carry over"])


@router.get("/jobs/{job_id}/wiring", response=WiringShown)
def show_wiring(request: HttpRequest, job_id: SheetId) -> WiringShown:
    """The wiring plan."""
    return wiring_shown(case_of(job_with_both(request, job_id)))


@router.get("/jobs/{job_id}/leaflet", response=LeafletShown)
def show_leaflet(request: HttpRequest, job_id: SheetId) -> LeafletShown:
    """What the new board's leaflet says for this machine."""
    return leaflet_shown(case_of(job_with_both(request, job_id)))


@router.get("/jobs/{job_id}/presses", response=PressesShown)
def show_presses(request: HttpRequest, job_id: SheetId) -> PressesShown:
    """The programming plan."""
    return presses_shown(case_of(job_with_both(request, job_id)))
