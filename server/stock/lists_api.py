"""Machines served, prices, and who serves whom, over HTTP."""

from typing import Any

from django.http import HttpRequest, StreamingHttpResponse
from django.utils import timezone
from ninja import Query, Router

from config.downloads import CSV, a_file, stream
from config.paging import paged
from people.access import person_of
from stock import lists, queries
from stock.judging import kind_of
from stock.models import Judged, Served
from stock.schemas import (
    Loaded,
    MatrixGrade,
    MatrixKind,
    MatrixPiece,
    MatrixShown,
    PiecePriced,
    ServedSearch,
    ServedShown,
)
from twincore.stock import staircase
from twinshown.paging import Page, Paging

router = Router(tags=["stock"])
MOST_KINDS, MOST_PIECES = 400, 300


@router.get("/stock/served", response=Page[ServedShown])
def list_served(request: HttpRequest, search: Query[ServedSearch]) -> dict[str, Any]:
    """The machines that the depot's vans look after."""
    person = person_of(request)
    page = paged(queries.served(person, search.van, search.board), search, lambda row: row)
    rows: list[Served] = page["items"]
    judged = queries.judged_of(person, rows)
    titles = queries.titles_of(person, [row.board for row in rows])
    return {**page, "items": [_served(row, judged.get(kind_of(row)), titles) for row in rows]}


@router.post("/stock/served", response=Loaded)
def load_served(request: HttpRequest) -> Loaded:
    """Bring in the list of machines served; it takes the place of the one before."""
    return Loaded(rows=lists.load_served(person_of(request), request.body))


@router.get("/stock/served.csv", openapi_extra=a_file(CSV))
def export_served(request: HttpRequest) -> StreamingHttpResponse:
    """The list of machines served."""
    return stream(lists.served_as_csv(person_of(request)), CSV, "machines-served.csv")


@router.get("/stock/pieces", response=Page[PiecePriced])
def list_pieces(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """What pieces cost and take of a shelf, by the depot's own word."""
    person = person_of(request)
    page = paged(queries.prices(person), paging, lambda row: row)
    titles = queries.titles_of(person, [row.piece for row in page["items"]])
    shown = [
        PiecePriced(piece=row.piece, title=titles.get(row.piece, ""), cost=row.cost, size=row.size, most=row.most)
        for row in page["items"]
    ]
    return {**page, "items": shown}


@router.post("/stock/pieces", response=Loaded)
def load_pieces(request: HttpRequest) -> Loaded:
    """Bring in what pieces cost; what is not in the file stays."""
    return Loaded(rows=lists.load_pieces(person_of(request), request.body))


@router.get("/stock/pieces.csv", openapi_extra=a_file(CSV))
def export_pieces(request: HttpRequest) -> StreamingHttpResponse:
    """What pieces cost."""
    return stream(lists.pieces_as_csv(person_of(request)), CSV, "pieces.csv")


@router.post("/stock/held", response=Loaded)
def load_held(request: HttpRequest) -> Loaded:
    """Bring in what is on the shelves; it takes the place of what was written down before."""
    return Loaded(rows=lists.load_held(person_of(request), request.body, timezone.now()))


@router.get("/stock/held.csv", openapi_extra=a_file(CSV))
def export_held(request: HttpRequest) -> StreamingHttpResponse:
    """What is on the shelves."""
    return stream(lists.held_as_csv(person_of(request)), CSV, "van-stock.csv")


@router.get("/stock/matrix", response=MatrixShown)
def show_matrix(request: HttpRequest) -> MatrixShown:
    """Who serves whom, and how well, as it was judged last."""
    found = queries.matrix(person_of(request))
    serves = {kind: list(found.judged[kind].grades) if kind in found.judged else [] for kind in found.machines}
    proved = {
        kind: [each for each in serves[kind] if found.judged[kind].grades[each] in queries.PROVED] for kind in serves
    }
    kinds, pieces = staircase(found.machines, proved)
    # what is only listed stands behind what is proved
    pieces += [each for each in staircase(found.machines, serves)[1] if each not in set(pieces)]
    kinds, pieces = kinds[:MOST_KINDS], pieces[:MOST_PIECES]
    places = {piece: place for place, piece in enumerate(pieces)}
    machines = {
        piece: sum(count for kind, count in found.machines.items() if piece in serves[kind]) for piece in pieces
    }
    return MatrixShown(
        kinds=[MatrixKind(board=kind.board, machines=found.machines[kind], facts=found.facts[kind]) for kind in kinds],
        pieces=[MatrixPiece(piece=piece, machines=machines[piece], held=found.held.get(piece, 0)) for piece in pieces],
        grades=[
            MatrixGrade(kind=place, piece=places[piece], grade=grade)
            for place, kind in enumerate(kinds)
            if kind in found.judged
            for piece, grade in found.judged[kind].grades.items()
            if piece in places
        ],
        unjudged=sum(kind not in found.judged for kind in found.machines),
        judged_at=found.judged_at,
    )


def _served(row: Served, judged: Judged | None, titles: dict[str, str]) -> ServedShown:
    grades = list(judged.grades.values()) if judged else []
    return ServedShown(
        van=row.van_id, van_name=row.van.name, board=row.board, title=titles.get(row.board, ""), known=row.board in titles,
        machines=row.machines, failed=row.failed, years=row.years, facts=row.facts, proved=grades.count("proved"),
        work=grades.count("work"), listed=grades.count("listed"),
    )  # fmt: skip
