"""The workshop over HTTP."""

import json
from typing import Any

from django.http import HttpRequest
from django.utils import timezone
from ninja import Field, Query, Router

from catalogue.api import board_card, elements_shown
from catalogue.schemas import BoardCard, BoardLine, ElementShown
from config.paging import paged
from people.access import person_of
from twincore.profile import dump, parse_board
from twincore.profile.document import jsonable
from twincore.sketch import board_document, read_lines, sketch_words
from twinshown.paging import Page, Paging
from twinshown.shapes import Schema
from workshop import actions
from workshop.schemas import UsesShown
from workshop.uses import open_jobs_with, uses_of
from workshop.wording import apart_words

router = Router(tags=["workshop"])


class SketchLines(Schema):
    """A sketch as lines of the notation."""

    lines: str = Field(max_length=20_000)


class MisreadShown(Schema):
    """A line that says nothing, and what was expected."""

    line: int
    expected: str


class TappedPlace(Schema):
    """Where something is in the picture, in per cent from the left and from the top."""

    ref: str
    x: float
    y: float


class SketchRead(Schema):
    """What was understood of a sketch: in words, and as a board to be drawn; and the lines that were not."""

    words: list[str]
    misread: list[MisreadShown]
    places: list[TappedPlace]
    elements: list[ElementShown]
    document: dict[str, Any]


class SketchGiven(SketchLines):
    """A sketch to keep: of a kind of machine that is there (`family`), or of one that is made for it (`kind`)."""

    part_number: str = Field("", max_length=80)
    maker: str = Field("", max_length=80)
    title: str = Field("", max_length=200)
    family: str | None = Field(None, max_length=80)
    kind: str = Field("", max_length=200)


class JoinGiven(Schema):
    """A sketch and the board that it is, and how that is known."""

    sketch: str = Field(max_length=80)
    board: str = Field(max_length=80)
    why: str = Field(max_length=2000)


class AgainstShown(Schema):
    """What of a sketch a board does not have, in words; and the open jobs that have the sketch."""

    apart: list[str]
    jobs: int


@router.get("/board-uses/{path:part_number}", response=UsesShown)
def show_uses(request: HttpRequest, part_number: str) -> UsesShown:
    """What the depot's jobs teach about a board."""
    return uses_of(person_of(request), part_number)


@router.get("/sketches", response=Page[BoardLine])
def list_sketches(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """Boards of the depot of which only a sketch is known, and that nobody completes yet."""
    return paged(actions.sketches(person_of(request)), paging, board_card)


@router.post("/sketches/read", response=SketchRead)
def read_sketch(request: HttpRequest, given: SketchLines) -> SketchRead:
    """Read a sketch back, and draw it; nothing is kept."""
    sketch, misread = read_lines(given.lines)
    board = parse_board(dump(jsonable(board_document(sketch, "sketch", "", "", "sketch"))).encode())
    return SketchRead(
        words=sketch_words(sketch),
        misread=[MisreadShown(line=each.line, expected=each.expected) for each in misread],
        places=[TappedPlace(ref=ref, x=x, y=y) for ref, x, y in sketch.places],
        elements=elements_shown(board),
        document=json.loads(dump(board.document)),
    )


@router.get("/sketches/against", response=AgainstShown)
def hold_against(request: HttpRequest, sketch: str, board: str) -> AgainstShown:
    """What speaks against a sketch being a board that was there, and how many jobs would move along."""
    person = person_of(request)
    return AgainstShown(
        apart=[apart_words(each) for each in actions.held_against(person, sketch, board)],
        jobs=open_jobs_with(person, sketch),
    )


@router.post("/sketches/join", response=BoardCard)
def join_sketch(request: HttpRequest, given: JoinGiven) -> BoardCard:
    """Say that a sketch is a board that was there; jobs follow when somebody agrees."""
    return board_card(actions.join_sketch(person_of(request), given.sketch, given.board, given.why, timezone.now()))


@router.post("/sketches", response=BoardCard)
def keep_sketch(request: HttpRequest, given: SketchGiven) -> BoardCard:
    """Keep a sketch as the depot's own board."""
    sketched = actions.Sketched(**given.dict())
    return board_card(actions.sketch_board(person_of(request), sketched, timezone.now()))
