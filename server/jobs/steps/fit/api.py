"""Fit over HTTP."""

from django.http import HttpRequest
from ninja import Router

from jobs.asked import planned_job
from jobs.sheets import SheetId
from jobs.steps.fit.panels import panel_now, slips_of
from jobs.steps.fit.schemas import ActionsGiven, FittingShown, PanelNow, SlipGiven, SlipShown
from jobs.steps.fit.view import fitting_shown

router = Router(tags=["fit"])


@router.get("/jobs/{job_id}/fitting", response=FittingShown)
def show_fitting(request: HttpRequest, job_id: SheetId) -> FittingShown:
    """What is to be fitted, looked at and set."""
    return fitting_shown(planned_job(request, job_id))


@router.post("/jobs/{job_id}/panel", response=PanelNow)
def press_panel(request: HttpRequest, job_id: SheetId, given: ActionsGiven) -> PanelNow:
    """The simulated front panel after these presses."""
    return panel_now(planned_job(request, job_id), given.panel, given.actions)


@router.post("/jobs/{job_id}/panel/slips", response=list[SlipShown])
def find_slips(request: HttpRequest, job_id: SheetId, given: SlipGiven) -> list[SlipShown]:
    """Where a slip was, when something else is seen, and the way back."""
    return slips_of(planned_job(request, job_id), given.panel, given.actions, given.seen)
