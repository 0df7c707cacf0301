"""Choose over HTTP."""

from django.http import HttpRequest
from django.utils import timezone
from ninja import Query, Router

from jobs.asked import job_of, job_with_both
from jobs.cases import case_of
from jobs.kept_answers import not_whole
from jobs.sheets import SheetId
from jobs.steps.choose.schemas import BesideShown, CandidatesShown, HaveShown, TwinShown
from jobs.steps.choose.view import beside, candidates_shown, have_shown, twin_of
from parts.queries import offers
from twinshown.paging import Paging
from twinshown.steps.choose.schemas import AlternativeShown, TakeAlongShown
from twinshown.steps.choose.view import alternatives_shown, take_along
from twinshown.words.costs import costs_shown
from twinshown.words.schemas import CostsShown

router = Router(tags=["choose"])


@router.get("/jobs/{job_id}/candidates", response=CandidatesShown)
def list_candidates(request: HttpRequest, job_id: SheetId, paging: Query[Paging]) -> CandidatesShown:
    """The boards that may replace the original, best first, judged on every criterion."""
    shown = candidates_shown(job_of(request, job_id), paging, timezone.now())
    if not shown.whole:
        not_whole(request)
    return shown


@router.get("/jobs/{job_id}/have", response=HaveShown)
def judge_one_in_hand(request: HttpRequest, job_id: SheetId, text: str = Query(..., max_length=200)) -> HaveShown:
    """A number that was typed or read, judged alone: yes, no or why."""
    return have_shown(job_of(request, job_id), text, timezone.now())


@router.get("/jobs/{job_id}/beside/{path:part_number}", response=BesideShown)
def show_beside(request: HttpRequest, job_id: SheetId, part_number: str) -> BesideShown:
    """The original and a candidate laid on each other."""
    return beside(job_of(request, job_id), part_number)


@router.get("/jobs/{job_id}/twin/{path:part_number}", response=TwinShown)
def show_twin(request: HttpRequest, job_id: SheetId, part_number: str) -> TwinShown:
    """How a candidate would behave, set by its nearest functions; and what comes closer."""
    return twin_of(job_of(request, job_id), part_number)


@router.get("/jobs/{job_id}/alternatives", response=list[AlternativeShown])
def list_alternatives(request: HttpRequest, job_id: SheetId) -> list[AlternativeShown]:
    """The candidates as they stood when the choice was made."""
    return alternatives_shown(case_of(job_of(request, job_id)))


@router.get("/jobs/{job_id}/take-along", response=TakeAlongShown)
def show_what_to_take(request: HttpRequest, job_id: SheetId) -> TakeAlongShown:
    """What to have at hand for the board that was chosen."""
    return take_along(case_of(job_with_both(request, job_id)))


@router.get("/jobs/{job_id}/costs", response=CostsShown)
def show_costs(request: HttpRequest, job_id: SheetId, part_number: str = Query("", max_length=700)) -> CostsShown:
    """What it costs, against calling a service."""
    job = job_of(request, job_id)
    name = part_number or job.state["replacement"]
    known = offers([name], timezone.now()) if name else {}
    return costs_shown(job.state, job.depot.assumptions, known, name)
