"""The catalogue over HTTP."""

import json
from collections.abc import Sequence
from typing import Any

from django.db.models import QuerySet
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Field, Query, Router

from catalogue import actions, queries, retiring
from catalogue.board_pictures import under_drawing
from catalogue.models import Board, BoardRevision, Family, Revision
from catalogue.profiles import board_profile, family_document, family_profile
from catalogue.retiring import withdrawn_words
from catalogue.schemas import (
    BoardCard,
    BoardShown,
    ChartColumn,
    ChartShown,
    EditShown,
    ElementShown,
    FamilyLine,
    FamilyShown,
    FaultShown,
    HangingShown,
    LoadedShown,
    MakerLine,
    MarkedBoard,
    RangeShown,
    ReadingShown,
    RevisionLine,
)
from catalogue.wording import doubts_words, reading_words, standing_words
from config.downloads import JSON, download
from config.paging import paged
from people.access import person_of
from twincore.profile import Board as BoardProfile
from twincore.profile import Family as FamilyProfile
from twincore.profile import doubtful_elements, dump, factory_record, hanging_of, written_positions
from twincore.recognise import Reading
from twincore.sketch import with_places
from twincore.workshop import cells_of, columns_of
from twinshown.paging import Page, Paging
from twinshown.shapes import Schema

router = Router(tags=["catalogue"])


class BoardSearch(Paging):
    """Which boards to list."""

    search: str = Field("", max_length=80)
    family: str = Field("", max_length=80)
    status: str = Field("", pattern="^(|current|discontinued)$")
    maker: str = Field("", max_length=80)

    def boards(self, depot: int | None) -> QuerySet[Board]:
        """The boards that are looked for, as people of a depot see them."""
        return queries.boards(depot, self.search, self.family, self.status, self.maker)


def board_card(board: Board) -> BoardCard:
    """A board among others to choose from."""
    return BoardCard(**_line(board), family_title=board.family.title, sketch=board.sketch)


def _line(board: Board) -> dict[str, Any]:
    return {
        "part_number": board.part_number,
        "maker": board.maker,
        "title": board.title,
        "family": board.family_id,
        "status": board.status,
        "revision": board.current.number if board.current else 0,
        "standing": standing_words(board.traits),
        "withdrawn": withdrawn_words(board.withdrawn),
    }


def _weights(contacts: int) -> list[int]:
    return [weight for weight in (8, 4, 2, 1) if contacts & weight]


def board_shown(board: Board, revision: BoardRevision, depot: int | None) -> BoardShown:
    """A board in full, as it was in a revision, for people of a depot."""
    profile = board_profile(revision.pk)
    return BoardShown(
        part_number=board.part_number,
        maker=profile.maker,
        title=profile.title,
        family=profile.family,
        status=profile.status,
        revision=revision.number,
        elements=elements_shown(profile),
        charts=charts_shown(json.loads(dump(profile.document)), family_profile(revision.family_revision_id)),
        document=with_places(json.loads(dump(profile.document))),
        family_title=board.family.title,
        behaviour_known=profile.behaviour is not None,
        standing=standing_words(profile.document),
        withdrawn=withdrawn_words(board.withdrawn),
        doubts=doubts_words(profile.document),
        under=under_drawing(board.part_number, depot),
    )


def charts_shown(document: dict[str, Any], family: FamilyProfile) -> list[ChartShown]:
    """The charts of a board, cell by cell; facts are called as the kind of machine calls them."""
    titles = {each["id"]: each["title"] for each in family.document.get("facts", ())}
    shown = []
    for index, node in enumerate(document.get("charts", ())):
        columns = columns_of(node, titles)
        shown.append(
            ChartShown(
                id=str(node.get("id", index + 1)),
                title=node.get("title", ""),
                columns=[ChartColumn(heading=each.heading, role=each.role, name=each.name) for each in columns],
                rows=cells_of(node, columns),
            )
        )
    return shown


def elements_shown(profile: BoardProfile) -> list[ElementShown]:
    """What can be set on a board, as it is drawn and set."""
    factory = written_positions(profile, factory_record(profile).points)
    unknown = doubtful_elements(profile.document, "factory")
    return [
        ElementShown(
            id=element.id,
            kind=element.kind,
            title=element.title,
            unit=element.unit,
            points=[point.id for point in element.points],
            values=[] if element.rules.ranged else [_plain(value) for value in element.points[0].domain],
            range=_range(element.points[0].domain) if element.rules.ranged else None,
            factory=None if element.id in unknown else _plain(factory[element.id]),
            locked=[point.id for point in element.points if point.locked],
            hanging=HangingShown.from_orm(hanging_of(profile, element.id)),
            contacts=[_weights(element.contacts(str(digit))) for digit in element.points[0].domain]
            if element.coding
            else [],
        )
        for element in profile.elements
    ]


def _range(domain: Sequence[Any]) -> RangeShown:
    step = domain[1] - domain[0] if len(domain) > 1 else 0
    return RangeShown(low=_plain(domain[0]), high=_plain(domain[-1]), step=_plain(step))


def _plain(value: Any) -> Any:
    return value if isinstance(value, str | int) else float(value)


def _depot(request: HttpRequest) -> int | None:
    return person_of(request).depot_id


@router.get("/boards", response=Page[BoardCard])
def list_boards(request: HttpRequest, search: Query[BoardSearch]) -> dict[str, Any]:
    """Boards of the catalogue, a page at a time."""
    return paged(search.boards(_depot(request)), search, board_card)


@router.get("/makers", response=Page[MakerLine])
def list_makers(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """The makers whose boards are in the catalogue."""
    return paged(queries.makers(_depot(request)), paging, lambda row: row)


@router.get("/boards/marked", response=list[MarkedBoard])
def list_marked(request: HttpRequest, text: str = Query(..., max_length=200)) -> list[MarkedBoard]:
    """The boards that one or several markings may belong to, at most eight."""
    return [marked_board(found) for found in queries.boards_marked(text, _depot(request))]


def marked_board(found: queries.Found) -> MarkedBoard:
    """A board that a marking may belong to, and why."""
    return MarkedBoard(**_line(found.board), readings=[_reading(each) for each in found.hit.readings])


def _reading(reading: Reading) -> ReadingShown:
    return ReadingShown(
        read=reading.read,
        printed=reading.printed,
        how=reading.how,
        edits=[EditShown(kind=each.kind, read=each.read, printed=each.printed) for each in reading.edits],
        alias=reading.alias,
        revision=reading.revision,
        words=reading_words(reading),
    )


@router.get("/board/{path:part_number}", response=BoardShown)
def show_board(request: HttpRequest, part_number: str, revision: int | None = None) -> BoardShown:
    """One board, in its current revision unless another is asked for."""
    board = queries.board(part_number, _depot(request))
    wanted = queries.revision(board, revision) if revision else board.current
    assert wanted is not None  # queries.board refuses boards without a revision
    return board_shown(board, wanted, _depot(request))


class WithdrawGiven(Schema):
    """Why a board is withdrawn, and which to take instead."""

    part_number: str = Field(max_length=80)
    why: str = Field(max_length=2000)
    successor: str = Field("", max_length=80)


class BoardNamed(Schema):
    """A board by its number."""

    part_number: str = Field(max_length=80)


@router.post("/boards/withdraw", response=BoardCard)
def withdraw_board(request: HttpRequest, given: WithdrawGiven) -> BoardCard:
    """Say that a board is not to be chosen any more."""
    board = retiring.withdraw(person_of(request), given.part_number, given.why, given.successor, timezone.now())
    return board_card(board)


@router.post("/boards/bring-back", response=BoardCard)
def bring_board_back(request: HttpRequest, given: BoardNamed) -> BoardCard:
    """Let a withdrawn board be chosen again."""
    return board_card(retiring.bring_back(person_of(request), given.part_number))


@router.post("/boards/remove", response={204: None})
def remove_board(request: HttpRequest, given: BoardNamed) -> tuple[int, None]:
    """Take one of the depot's own boards, on which nothing rests, out of the catalogue."""
    retiring.remove(person_of(request), given.part_number)
    return 204, None


class RevisionNamed(BoardNamed):
    """A revision of a board."""

    revision: int = Field(ge=1)


@router.post("/boards/make-current", response=BoardCard)
def make_current(request: HttpRequest, given: RevisionNamed) -> BoardCard:
    """Make an earlier revision of a board the current one again."""
    person = person_of(request)
    actions.make_current(person, given.part_number, given.revision, timezone.now())
    return board_card(queries.board(given.part_number, person.depot_id))


@router.get("/board-revisions/{path:part_number}", response=Page[RevisionLine])
def list_revisions(request: HttpRequest, part_number: str, paging: Query[Paging]) -> dict[str, Any]:
    """The revisions of a board, newest first."""
    return paged(
        queries.board(part_number, _depot(request)).revisions.select_related("loaded_by"), paging, _revision_line
    )


def _revision_line(revision: Revision) -> RevisionLine:
    by = revision.loaded_by.shown_name if revision.loaded_by else "demo world"
    return RevisionLine(number=revision.number, loaded_at=revision.loaded_at, loaded_by=by)


@router.get("/board-file/{path:part_number}", response={200: Any})
def board_file(request: HttpRequest, part_number: str, revision: int | None = None) -> HttpResponse:
    """The board's file as it was loaded."""
    board = queries.board(part_number, _depot(request))
    wanted = queries.revision(board, revision) if revision else board.current
    assert wanted is not None  # queries.board refuses boards without a revision
    return download(bytes(wanted.document), JSON, f"{part_number}.board.json")


@router.get("/families", response=Page[FamilyLine])
def list_families(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """The families of the catalogue."""
    return paged(queries.families(_depot(request)), paging, _family_line)


def _family_line(family: Family) -> FamilyLine:
    return FamilyLine(id=family.code, title=family.title, boards=family.board_count)  # type: ignore[attr-defined]


@router.get("/families/{code}", response=FamilyShown)
def show_family(request: HttpRequest, code: str) -> FamilyShown:
    """One family in its current revision."""
    family = queries.family(code, _depot(request))
    assert family.current is not None  # queries.family refuses families without a revision
    return FamilyShown(
        id=family.code,
        title=family.title,
        revision=family.current.number,
        boards=family.boards.count(),
        document=family_document(family.current.pk),
    )


@router.get("/families/{code}/file", response={200: Any})
def family_file(request: HttpRequest, code: str) -> HttpResponse:
    """The family's file as it was loaded."""
    family = queries.family(code, _depot(request))
    assert family.current is not None  # queries.family refuses families without a revision
    return download(bytes(family.current.document), JSON, f"{code}.family.json")


@router.post("/documents", response=LoadedShown)
def load_document(request: HttpRequest, keep: bool = True) -> LoadedShown:
    """Load a board, family, rule-out data or nameplate schemes (the file is the body); `keep=false` only checks."""
    loaded = actions.load_document(person_of(request), request.body, timezone.now(), keep)
    warnings = [FaultShown(place=each.place, expected=each.expected) for each in loaded.warnings]
    return LoadedShown(kind=loaded.kind, name=loaded.name, revision=loaded.revision, new=loaded.new, warnings=warnings)
