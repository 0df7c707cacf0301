"""Pictures of boards over HTTP, and markings read in a picture."""

from datetime import datetime
from typing import Any, Literal, cast
from uuid import UUID

from django.http import FileResponse, HttpRequest
from django.utils import timezone
from ninja import Query, Router
from PIL import Image

from catalogue import board_pictures, queries
from catalogue.api import marked_board
from catalogue.models import BoardPicture
from catalogue.schemas import MarkedBoard
from config.downloads import PICTURE, a_file
from config.paging import paged
from people.access import person_of
from pictures.files import as_address, body_of, opened, upright
from pictures.reading import read_markings
from twincore.printed import Word
from twinshown.paging import Page, Paging
from twinshown.shapes import Schema

router = Router(tags=["catalogue"])
Of = Literal["board", "plate", "leaflet"]
ROUND = 12
"""Pixels around a piece that is shown."""
MOST_PROPOSED = 5


class BoardPictureShown(Schema):
    """A picture of a board."""

    id: UUID
    of: Of
    under: bool
    """Whether it lies under the board's drawing."""
    width: int
    height: int
    added_at: datetime
    added_by: str


class MarkingRead(Schema):
    """Something printed that may be a marking: its text, the piece of the picture, and the boards it may belong to."""

    text: str
    confidence: float
    piece: str
    boards: list[MarkedBoard]


@router.post("/pictures/markings", response=list[MarkingRead])
def read_markings_in_picture(request: HttpRequest) -> list[MarkingRead]:
    """What may be a marking in a picture, the likeliest first; the body is the picture itself, and nothing is kept."""
    depot = person_of(request).depot_id
    words, ready = read_markings(upright(body_of(request))[0])
    found = []
    for word in words[:MOST_PROPOSED]:
        boards = [marked_board(each) for each in queries.boards_marked(word.text, depot, most=3)]
        found.append(MarkingRead(text=word.text, confidence=word.confidence, piece=_piece(ready, word), boards=boards))
    # what a board carries stands before what none does
    return sorted(found, key=lambda each: not any(b.readings[0].how != "part of it" for b in each.boards))


def _piece(image: Image.Image, word: Word) -> str:
    box = (word.left - ROUND, word.top - ROUND, word.left + word.width + ROUND, word.top + word.height + ROUND)
    piece = image.crop(tuple(round(each) for each in box))  # type: ignore[arg-type]
    piece.thumbnail((480, 160))
    return as_address(piece)


@router.get("/board-pictures/{path:part_number}", response=Page[BoardPictureShown])
def list_pictures(request: HttpRequest, part_number: str, paging: Query[Paging]) -> dict[str, Any]:
    """The depot's pictures of a board."""
    rows = board_pictures.pictures_of(person_of(request), part_number).select_related("added_by")
    return paged(rows, paging, _shown)


@router.post("/board-picture/{picture}/of/{path:part_number}", response=BoardPictureShown)
def add_picture(
    request: HttpRequest, picture: UUID, part_number: str, of: Of = "board", under: bool = False
) -> BoardPictureShown:  # fmt: skip
    """Keep a picture with a board: the body is the file itself, the id is made by the client."""
    kept = board_pictures.add_picture(
        person_of(request), part_number, picture, of, body_of(request), timezone.now(), under
    )  # fmt: skip
    return _shown(kept)


class UnderGiven(Schema):
    """Whether a picture lies under the drawing."""

    under: bool


@router.put("/board-picture/{picture}/under", response=BoardPictureShown)
def lay_under(request: HttpRequest, picture: UUID, given: UnderGiven) -> BoardPictureShown:
    """Lay a picture under the board's drawing, or take it away from there."""
    mine = board_pictures.picture_of(person_of(request), picture)
    return _shown(board_pictures.lay_under(mine, given.under))


@router.get("/board-picture/{picture}", openapi_extra=a_file(PICTURE))
def show_picture(request: HttpRequest, picture: UUID) -> FileResponse:
    """A picture's file."""
    response = FileResponse(opened(board_pictures.picture_of(person_of(request), picture).file))
    response["Cache-Control"] = "private, max-age=86400"
    return response


@router.delete("/board-picture/{picture}", response={204: None})
def take_out_picture(request: HttpRequest, picture: UUID) -> tuple[int, None]:
    """Take a picture out."""
    board_pictures.take_out(board_pictures.picture_of(person_of(request), picture))
    return 204, None


def _shown(each: BoardPicture) -> BoardPictureShown:
    by = each.added_by.shown_name if each.added_by else ""
    return BoardPictureShown(
        id=each.pk,
        of=cast(Of, each.of),
        under=each.under,
        width=each.width,
        height=each.height,
        added_at=each.added_at,
        added_by=by,
    )
