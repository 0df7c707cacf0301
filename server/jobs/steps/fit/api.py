"""Fit over HTTP."""

from django.http import HttpRequest
from ninja import Router

from jobs.asked import planned_job
from jobs.cases import case_of
from jobs.ports.reading import port_of
from jobs.sheets import SheetId
from jobs.steps.fit.look_alikes import leaflet_of, look_alikes_of
from twinshown.refusals import Refused
from twinshown.steps.fit.panels import panel_now, slips_of
from twinshown.steps.fit.schemas import ActionsGiven, FittingShown, PanelNow, SlipGiven, SlipShown
from twinshown.steps.fit.view import fitting_shown

router = Router(tags=["fit"])


@router.get("/jobs/{job_id}/fitting", response=FittingShown)
def show_fitting(request: HttpRequest, job_id: SheetId) -> FittingShown:
    """What is to be fitted, looked at and set."""
    job = planned_job(request, job_id)
    port = port_of(job, "replacement") is not None
    if job.replacement_revision is None:
        raise Refused("Nobody has chosen yet which board goes in. Do that first, in Choose.")
    board = job.replacement_revision.board
    return fitting_shown(case_of(job), port, look_alikes_of(board, job), lambda: leaflet_of(board.part_number, job))


@router.post("/jobs/{job_id}/panel", response=PanelNow)
def press_panel(request: HttpRequest, job_id: SheetId, given: ActionsGiven) -> PanelNow:
    """The simulated front panel after these presses."""
    return panel_now(case_of(planned_job(request, job_id)), given.panel, given.actions)


@router.post("/jobs/{job_id}/panel/slips", response=list[SlipShown])
def find_slips(request: HttpRequest, job_id: SheetId, given: SlipGiven) -> list[SlipShown]:
    """Where a slip was, when something else is seen, and the way back."""
    return slips_of(case_of(planned_job(request, job_id)), given.panel, given.actions, given.seen)
