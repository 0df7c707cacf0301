"""Plans of van stock over HTTP."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from django.utils import timezone
from ninja import Query, Router

from config.paging import paged
from people.access import person_of
from stock import actions, queries
from stock.models import Plan
from stock.schemas import PlanFound, PlanGiven, PlanLine, PlanShown
from twinshown.paging import Page, Paging

router = Router(tags=["stock"])


@router.get("/stock/plans", response=Page[PlanLine])
def list_plans(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """Plans, newest first."""
    return paged(queries.plans(person_of(request)), paging, lambda plan: PlanLine(**_line(plan)))


@router.post("/stock/plans", response=PlanLine)
def ask_for_plan(request: HttpRequest, given: PlanGiven) -> PlanLine:
    """Have a plan worked out in the background."""
    person = person_of(request)
    asked = {"grade": given.grade, "days": given.days, "lend": given.lend, "budget": given.budget}
    actions.ask_for_plan(person, given.id, asked, timezone.now())
    return PlanLine(**_line(queries.plan(person, given.id)))


@router.get("/stock/plans/{plan_id}", response=PlanShown)
def show_plan(request: HttpRequest, plan_id: UUID) -> PlanShown:
    """One plan: how far it is, or what it says."""
    person = person_of(request)
    return _shown(queries.plan(person, plan_id), {str(van.pk): van.name for van in queries.vans(person)})


@router.post("/stock/plans/{plan_id}/stop", response=PlanLine)
def stop_plan(request: HttpRequest, plan_id: UUID) -> PlanLine:
    """Stop a plan that is being worked out."""
    return PlanLine(**_line(actions.stop_plan(person_of(request), plan_id, timezone.now())))


@router.post("/stock/plans/{plan_id}/take", response=PlanLine)
def take_plan(request: HttpRequest, plan_id: UUID) -> PlanLine:
    """Let the vans carry what a plan says."""
    return PlanLine(**_line(actions.take_plan(person_of(request), plan_id, timezone.now())))


def _line(plan: Plan) -> dict[str, Any]:
    found = plan.found or {}
    expected = found.get("expected", {})
    return {
        "id": plan.pk, "state": plan.state, "share": plan.share, "fault": plan.fault, "asked": plan.asked,
        "asked_at": plan.asked_at, "asked_by": plan.asked_by.shown_name if plan.asked_by else "",
        "ended_at": plan.ended_at, "taken_at": plan.taken_at, "failures": expected.get("failures"),
        "served": expected.get("served"), "gap": found.get("gap"), "cost": found.get("cost"),
    }  # fmt: skip


def _shown(plan: Plan, names: dict[str, str]) -> PlanShown:
    found = plan.found
    return PlanShown(
        **_line(plan),
        found=None if found is None else PlanFound(**{**found, **found["expected"]}),
        names=names,
    )
