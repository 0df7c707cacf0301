"""Cross-references over HTTP."""

from collections.abc import Mapping
from datetime import date, datetime
from typing import Any
from uuid import UUID

from django.http import FileResponse, HttpRequest, StreamingHttpResponse
from django.utils import timezone
from ninja import Field, File, Form, Query, Router
from ninja.files import UploadedFile

from catalogue.api import BoardSearch, board_card
from catalogue.models import Board
from catalogue.schemas import BoardCard
from config.downloads import CSV, JSON, a_file, stream
from config.paging import paged
from people.access import person_of
from references import actions, exporting, files, queries
from references.models import Contradiction, Import, Statement
from references.rows import counts_of
from twincore.choose import Way
from twincore.choose.credence import credence
from twinshown.paging import Page, Paging
from twinshown.refusals import NotThere
from twinshown.shapes import Schema

router = Router(tags=["references"])


class StatementShown(Schema):
    """A statement with how much it is worth, as counts and an interval."""

    id: str
    original: str
    replacement: str
    relation: str
    conditions: dict[str, Any]
    needs: list[str]
    companions: list[str]
    words: str
    source: str
    dated: date | None
    valid_from: date | None
    valid_to: date | None
    cost: float | None
    days: float | None
    worked: int
    failed: int
    likely_low: float
    likely_high: float
    withdrawn_because: str


class StandIn(BoardCard):
    """A board that may stand in for another: what says so, over how many boards, and which facts would still decide."""

    relation: str
    links: int
    missing: list[str]


class StatementGiven(Schema):
    """One cross-reference as a row of a file of them: several boards with + between, conditions with ; between."""

    original: str = Field(max_length=640)
    replacement: str = Field(max_length=640)
    relation: str = Field(max_length=24)
    when: str = Field("", max_length=2000)
    needs: str = Field("", max_length=2000)
    words: str = Field("", max_length=2000)
    source: str = Field("", max_length=2000)


class StatementSearch(Paging):
    """Which statements to list."""

    board: str = Field("", max_length=80)
    relation: str = Field("", max_length=20)
    withdrawn: bool = False


class ImportShown(Schema):
    """An import, and how far it is."""

    id: UUID
    name: str
    state: str
    share: float
    rows: int
    refused: int
    new: int
    fault: str
    sent_at: datetime
    sent_by: str
    ended_at: datetime | None


class ContradictionShown(Schema):
    """Statements that cannot all be true."""

    kind: str
    boards: list[str]
    statements: list[StatementShown]


class Reason(Schema):
    """Why something is done."""

    reason: str = Field(max_length=2000)


def statement_shown(row: Statement) -> StatementShown:
    """A statement for the screen."""
    worked, failed = counts_of(row)
    worth = credence(worked, failed, bool(row.source))
    return StatementShown(
        id=row.code, original=row.original, replacement=row.replacement, relation=row.relation,
        conditions=row.conditions, needs=row.needs, companions=row.companions, words=row.words, source=row.source,
        dated=row.dated, valid_from=row.valid_from, valid_to=row.valid_to, cost=row.cost, days=row.days,
        worked=worked, failed=failed, likely_low=worth.low, likely_high=worth.high,
        withdrawn_because=row.withdrawn_because,
    )  # fmt: skip


def _import_shown(job: Import) -> ImportShown:
    return ImportShown(
        id=job.pk, name=job.name, state=job.state, share=min(1.0, job.bytes_read / max(1, job.bytes)), rows=job.rows,
        refused=job.refused, new=job.new, fault=job.fault, sent_at=job.sent_at,
        sent_by=job.sent_by.shown_name if job.sent_by else "", ended_at=job.ended_at,
    )  # fmt: skip


@router.get("/statements", response=Page[StatementShown])
def list_statements(request: HttpRequest, search: Query[StatementSearch]) -> dict[str, Any]:
    """Cross-references, a page at a time."""
    return paged(queries.statements(search.board, search.relation, search.withdrawn), search, statement_shown)


@router.post("/statements", response=StatementShown)
def add_statement(request: HttpRequest, given: StatementGiven) -> StatementShown:
    """Add one cross-reference; conditions and needs are written as in a file of them."""
    row = {name: value for name, value in given.dict().items() if name != "when"} | {"if": given.when}
    return statement_shown(actions.add_statement(person_of(request), row, timezone.now()))


@router.get("/stand-ins/{path:original}", response=Page[StandIn])
def list_stand_ins(request: HttpRequest, original: str, search: Query[BoardSearch]) -> dict[str, Any]:
    """The boards that may stand in for one, by what the cross-references say; of no machine in particular."""
    ways = queries.stand_ins(original, timezone.localdate())
    return paged(
        search.boards(person_of(request).depot_id).filter(part_number__in=ways),
        search,
        lambda board: _stand_in(board, ways),
    )


def _stand_in(board: Board, ways: Mapping[str, Way]) -> StandIn:
    way = ways[board.part_number]
    return StandIn(
        **board_card(board).dict(), relation=way.relation, links=len(way.links), missing=list(way.missing)
    )  # fmt: skip


@router.post("/statements/{path:code}/withdraw", response=StatementShown)
def withdraw(request: HttpRequest, code: str, given: Reason) -> StatementShown:
    """Let a statement count no more."""
    return statement_shown(actions.withdraw_statement(person_of(request), code, given.reason, timezone.now()))


@router.post("/statements/{path:code}/restore", response=StatementShown)
def restore(request: HttpRequest, code: str) -> StatementShown:
    """Let a withdrawn statement count again."""
    return statement_shown(actions.restore_statement(person_of(request), code))


@router.get("/statements.csv", openapi_extra=a_file(CSV))
def export_csv(request: HttpRequest) -> StreamingHttpResponse:
    """Every statement as CSV."""
    return stream(exporting.as_csv(), CSV, "statements.csv")


@router.get("/statements.json", response={200: Any})
def export_json(request: HttpRequest) -> StreamingHttpResponse:
    """Every statement as one document."""
    return stream(exporting.as_document(), JSON, "statements.json")


@router.get("/contradictions", response=Page[ContradictionShown])
def list_contradictions(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """What cannot all be true, for the parts lead to settle."""
    page = paged(queries.contradictions(), paging, lambda each: each)
    found: list[Contradiction] = page["items"]
    rows = Statement.objects.select_related("withdrawn_by").filter(code__in=[c for each in found for c in each.codes])
    by_code = {row.code: statement_shown(row) for row in rows}
    page["items"] = [
        ContradictionShown(
            kind=each.kind, boards=each.boards, statements=[by_code[c] for c in each.codes if c in by_code]
        )
        for each in found
    ]
    return page


@router.get("/imports", response=Page[ImportShown])
def list_imports(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """Imports, newest first."""
    return paged(queries.imports(person_of(request)), paging, _import_shown)


@router.post("/imports", response=ImportShown)
def send_import(request: HttpRequest, id: Form[UUID], file: File[UploadedFile]) -> ImportShown:
    """Send a CSV file of statements; it is imported in the background."""
    job = actions.send_import(person_of(request), id, file.name or "statements.csv", file.chunks(), timezone.now())
    return _import_shown(queries.one_import(person_of(request), job.pk))


@router.get("/imports/{import_id}", response=ImportShown)
def show_import(request: HttpRequest, import_id: UUID) -> ImportShown:
    """One import, and how far it is."""
    return _import_shown(queries.one_import(person_of(request), import_id))


@router.post("/imports/{import_id}/cancel", response=ImportShown)
def cancel(request: HttpRequest, import_id: UUID) -> ImportShown:
    """Stop an import; nothing of it is kept."""
    return _import_shown(actions.cancel_import(person_of(request), import_id, timezone.now()))


@router.get("/imports/{import_id}/refused.csv", openapi_extra=a_file(CSV))
def refused_rows(request: HttpRequest, import_id: UUID) -> FileResponse:
    """The refused rows with what is wrong with each: repaired, the file can be sent again as it is."""
    job = queries.one_import(person_of(request), import_id)
    path = files.report_path(job.pk)
    if not path.exists():
        raise NotThere("This import has no report.")
    return FileResponse(path.open("rb"), as_attachment=True, filename=f"refused-{job.name}", content_type=CSV)
