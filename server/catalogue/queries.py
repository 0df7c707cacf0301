"""Reading the catalogue."""

from dataclasses import dataclass

from django.contrib.postgres.search import TrigramSimilarity
from django.db.models import Count, Q, QuerySet

from catalogue.models import Board, BoardRevision, Family, Marking
from config.errors import NotThere
from twincore.recognise import normal_form, without_look_alikes


def boards(search: str = "", family: str = "", status: str = "") -> QuerySet[Board]:
    """Boards by part number; `search` looks in part numbers, markings, makers and titles."""
    rows = Board.objects.select_related("family", "current").defer("current__document")
    if family:
        rows = rows.filter(family_id=family)
    if status:
        rows = rows.filter(status=status)
    if search:
        found = Q(maker__icontains=search) | Q(title__icontains=search)
        if normal := normal_form(search):
            found |= Q(pk__in=Marking.objects.filter(normal__contains=normal).values("board_id"))
        rows = rows.filter(found)
    return rows


def board(part_number: str) -> Board:
    """One board with its current revision."""
    found = (
        Board.objects.select_related("family__current", "current__loaded_by").filter(part_number=part_number).first()
    )
    if found is None or found.current is None:
        raise NotThere(f"There is no board {part_number} in the catalogue.")
    return found


def family(code: str) -> Family:
    """One family with its current revision."""
    found = Family.objects.select_related("current").filter(code=code).first()
    if found is None or found.current is None:
        raise NotThere(f"There is no family {code} in the catalogue.")
    return found


def revision(part_number: str, number: int) -> BoardRevision:
    """One revision of a board."""
    found = BoardRevision.objects.filter(board__part_number=part_number, number=number).first()
    if found is None:
        raise NotThere(f"There is no revision {number} of {part_number}.")
    return found


def still_made(family_code: str) -> QuerySet[Board]:
    """The boards of a family that can still be bought."""
    return boards(family=family_code, status="current")


@dataclass(frozen=True, slots=True)
class Hit:
    """A board that a marking may belong to, which of its markings matched, and how well."""

    board: Board
    marking: str
    how: str


def boards_marked(text: str, most: int = 8) -> list[Hit]:
    """The boards that carry a marking, written or misread however; the surest first."""
    normal, folded = normal_form(text), without_look_alikes(text)
    if not folded:
        return []
    rows = (
        Marking.objects.annotate(alike=TrigramSimilarity("folded", folded))
        .filter(Q(normal=normal) | Q(folded=folded) | Q(folded__trigram_similar=folded))
        .order_by("-alike", "text")
        .select_related("board__current")
        .defer("board__current__document")[: most * 3]
    )
    hits: dict[int, tuple[int, Hit]] = {}
    for row in rows:
        rank, how = _how(row, text, normal, folded)
        if row.board_id not in hits or rank < hits[row.board_id][0]:
            hits[row.board_id] = (rank, Hit(row.board, row.text, how))
    return [hit for _, hit in sorted(hits.values(), key=lambda each: each[0])][:most]


def _how(row: Marking, text: str, normal: str, folded: str) -> tuple[int, str]:
    if row.text == text.strip():
        return 0, "as printed"
    if row.normal == normal:
        return 1, "written differently"
    if row.folded == folded:
        return 2, "a letter and a digit taken for each other"
    return 3, "similar"


def families() -> QuerySet[Family]:
    """The families by name, each with `board_count`."""
    return Family.objects.annotate(board_count=Count("boards")).order_by("code")
