"""Vans and their shelves over HTTP."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from django.utils import timezone
from ninja import Query, Router

from config.paging import paged
from people.access import person_of
from stock import actions, queries
from stock.models import Held, Moved, Van
from stock.schemas import (
    DifferenceShown,
    MoveShown,
    PieceHeld,
    PiecesAsked,
    Shelf,
    ShelfCounted,
    ShelfMoved,
    VanGiven,
    VanShown,
    Whereabouts,
)
from twinshown.paging import Page, Paging

router = Router(tags=["stock"])


@router.get("/stock/vans", response=Page[VanShown])
def list_vans(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """The depot's vans, one's own first."""
    page = paged(queries.vans(person_of(request)), paging, lambda van: van)
    return {**page, "items": _shown(page["items"])}


@router.post("/stock/vans", response=VanShown)
def add_van(request: HttpRequest, given: VanGiven) -> VanShown:
    """Add a van."""
    return _shown([actions.add_van(person_of(request), given.id, _given(given))])[0]


@router.put("/stock/vans/{van_id}", response=VanShown)
def change_van(request: HttpRequest, van_id: UUID, given: VanGiven) -> VanShown:
    """Change a van."""
    return _shown([actions.change_van(person_of(request), van_id, _given(given))])[0]


@router.delete("/stock/vans/{van_id}", response={204: None})
def remove_van(request: HttpRequest, van_id: UUID) -> tuple[int, None]:
    """Take a van off the list."""
    actions.remove_van(person_of(request), van_id)
    return 204, None


@router.get("/stock/vans/{van_id}", response=Shelf)
def show_shelf(request: HttpRequest, van_id: UUID, paging: Query[Paging]) -> dict[str, Any]:
    """What is in a van, and what should be."""
    person = person_of(request)
    van = actions.van_of(person, van_id)
    page = paged(queries.shelf(van), paging, lambda held: held)
    machines = queries.served_by_pieces(van)
    titles = queries.titles_of(person, [held.piece for held in page["items"]])
    items = [_held(each, titles, machines) for each in page["items"]]
    return {**page, "van": _shown([van])[0], "items": items}


@router.post("/stock/vans/{van_id}/moves", response=PieceHeld)
def move(request: HttpRequest, van_id: UUID, given: ShelfMoved) -> PieceHeld:
    """Put something into a van, or take it out."""
    person = person_of(request)
    held = actions.move(person, van_id, given.id, given.piece, given.change, timezone.now())
    return _held(held, queries.titles_of(person, [held.piece]), {})


@router.get("/stock/vans/{van_id}/moves", response=Page[MoveShown])
def list_moves(request: HttpRequest, van_id: UUID, paging: Query[Paging]) -> dict[str, Any]:
    """What came onto a shelf and off it, newest first."""
    return paged(queries.moves(actions.van_of(person_of(request), van_id)), paging, _move)


@router.post("/stock/vans/{van_id}/counts", response=list[DifferenceShown])
def count(request: HttpRequest, van_id: UUID, given: ShelfCounted) -> list[DifferenceShown]:
    """Say what was counted on a shelf; what was written down otherwise."""
    counts: dict[str, int] = {}
    for each in given.pieces:
        counts[each.piece] = counts.get(each.piece, 0) + each.count
    found = actions.count_shelf(person_of(request), van_id, given.id, counts, given.whole, timezone.now())
    return [DifferenceShown(piece=each.piece, was=each.was, now=each.now) for each in found]


@router.get("/stock/whereabouts", response=list[Whereabouts])
def list_whereabouts(request: HttpRequest, asked: Query[PiecesAsked]) -> list[Whereabouts]:
    """Which vans have these pieces: one's own first, then the nearest."""
    return [
        Whereabouts(
            piece=each.held.piece, van=each.held.van_id, name=each.held.van.name, count=each.held.count, mine=each.mine,
            minutes=each.minutes,
        )
        for each in queries.whereabouts(person_of(request), asked.piece)
    ]  # fmt: skip


def _given(given: VanGiven) -> actions.VanGiven:
    return actions.VanGiven(given.name, given.driver, given.budget, given.shelf, given.minutes)


def _shown(vans: list[Van]) -> list[VanShown]:
    sums = queries.sums_of(vans)
    return [
        VanShown(
            id=van.pk, name=van.name, driver=van.driver.username if van.driver else "",
            driver_name=van.driver.shown_name if van.driver else "", budget=van.budget, shelf=van.shelf,
            pieces=sums[van.pk].pieces, lacks=sums[van.pk].lacks, machines=sums[van.pk].machines,
            minutes=sums[van.pk].minutes,
        )
        for van in vans
    ]  # fmt: skip


def _held(each: Held, titles: dict[str, str], machines: dict[str, int]) -> PieceHeld:
    return PieceHeld(
        piece=each.piece, title=titles.get(each.piece, ""), count=each.count, wanted=each.wanted,
        machines=machines.get(each.piece, 0),
    )  # fmt: skip


def _move(each: Moved) -> MoveShown:
    return MoveShown(
        id=each.pk, piece=each.piece, change=each.change, left=each.left, why=each.why, job=each.job,
        job_code=each.job_code, at=each.at, by=each.by_name,
    )  # fmt: skip
