"""Reading the catalogue."""

from dataclasses import dataclass
from typing import Any

from django.contrib.postgres.search import TrigramDistance
from django.db import connection, transaction
from django.db.models import Count, F, Q, QuerySet

from catalogue.models import Board, BoardRevision, Family, Guide, Marking
from catalogue.profiles import nameplate_schemes
from twincore.recognise import (
    Hit,
    Scheme,
    code_of,
    hits,
    normal_form,
    split_markings,
    with_one_left_out,
    without_look_alikes,
    without_revision,
)
from twinshown.refusals import NotThere


def boards(depot: int | None, search: str = "", family: str = "", status: str = "", maker: str = "") -> QuerySet[Board]:
    """Boards that people of a depot see, by part number; `search` looks in part numbers, markings, makers and titles."""
    rows = Board.objects.seen_by(depot).select_related("family", "current").defer("current__document", "features")
    if family:
        rows = rows.filter(family_id=family)
    if status:
        rows = rows.filter(status=status)
    if maker:
        rows = rows.filter(maker=maker)
    if search:
        found = Q(maker__icontains=search) | Q(title__icontains=search)
        if normal := normal_form(search):
            found |= Q(pk__in=Marking.objects.filter(normal__contains=normal).values("board_id"))
        rows = rows.filter(found)
    return rows


def _named(part_number: str, depot: int | None) -> QuerySet[Board]:
    """The boards of a number that people of a depot see, their own first."""
    return Board.objects.seen_by(depot).filter(part_number=part_number).order_by(F("depot").asc(nulls_last=True))


def board(part_number: str, depot: int | None) -> Board:
    """One board with its current revision."""
    found = _named(part_number, depot).select_related("family__current", "current__loaded_by").first()
    if found is None or found.current is None:
        raise NotThere(f"There is no board {part_number} in the catalogue.")
    return found


def board_revision_id(part_number: str, depot: int | None) -> int:
    """The current revision of a board, by its number alone."""
    found = _named(part_number, depot).values_list("current_id", flat=True).first()
    if found is None:
        raise NotThere(f"There is no board {part_number} in the catalogue.")
    return found


def _seen_families(code: str, depot: int | None) -> QuerySet[Family]:
    # a board that came with a job from another depot brings its kind of machine into sight
    seen = Q(depot=None) | Q(depot=depot) | Q(boards__depot=depot)
    return Family.objects.filter(seen, code=code).select_related("current").order_by("pk")


def family(code: str, depot: int | None) -> Family:
    """One family with its current revision."""
    found = _seen_families(code, depot).first()
    if found is None or found.current is None:
        raise NotThere(f"There is no family {code} in the catalogue.")
    return found


def revision(board: Board, number: int) -> BoardRevision:
    """One revision of a board."""
    found = board.revisions.filter(number=number).first()
    if found is None:
        raise NotThere(f"There is no revision {number} of {board.part_number}.")
    return found


def joined_to(board: Board) -> str | None:
    """The number of the board that this one, a sketch once, turned out to be."""
    said = board.withdrawn or {}
    return str(said["successor"]) if said.get("same") else None


MOST_NEAR = 300
"""Markings one edit away that the exact distance ranks."""
SHORT_LIST = 60
"""Markings that trigrams leave for the exact distance."""
ENOUGH = 3
THRESHOLDS = (0.5, 0.35)
"""Shares of trigrams in common; measured at 200,000 markings, the strict one takes a quarter of the loose one's time."""
TRIGRAM = 3


@dataclass(frozen=True, slots=True)
class Found:
    """A board that markings may belong to, and how each of them agrees."""

    board: Board
    hit: Hit


def boards_marked(text: str, depot: int | None, most: int = 8) -> list[Found]:
    """The boards that carry one or several markings, written or misread however; the likeliest first.

    The database makes a short list, by equality first; the exact distance ranks it.
    """
    printed: set[tuple[str, str]] = set()
    for marking in split_markings(text):
        printed.update(_short_list(marking, depot))
    ranked = hits(text, sorted(printed), most)
    boards = _by_number([hit.part_number for hit in ranked], depot)
    if joined := {number: to for number, each in boards.items() if (to := joined_to(each))}:
        # a sketch that turned out to be another board stands for that one
        others = _by_number(list(joined.values()), depot)
        boards |= {number: others[to] for number, to in joined.items() if to in others}
    found: dict[str, Found] = {}
    for hit in ranked:
        if hit.part_number in boards:
            found.setdefault(boards[hit.part_number].part_number, Found(boards[hit.part_number], hit))
    return list(found.values())


def _by_number(numbers: list[str], depot: int | None) -> dict[str, Board]:
    """The boards of these numbers, the depot's own before shared ones."""
    rows = Board.objects.seen_by(depot).filter(part_number__in=numbers).order_by(F("depot").desc(nulls_first=True))
    return {each.part_number: each for each in rows.select_related("family", "current").defer("current__document")}


MARKINGS = """
select board.part_number, marking.text from catalogue_marking marking join catalogue_board board on board.id = marking.board_id
where (board.depot_id is null or board.depot_id = %s) and {} limit %s
"""
NEAR = MARKINGS.format("(marking.normal = %s or marking.folded = any(%s) or marking.lacking && %s::int[])")
"""Markings that are one that was read but for look-alikes and at most one edit; to put them in order first would read them all."""
PART_OF = MARKINGS.format("marking.folded like %s")


def _short_list(marking: str, depot: int | None) -> list[tuple[str, str]]:
    """Markings near to one that was read: by equality what look-alikes and one edit explain, and those of which it is a part, for a
    label may be torn; by trigrams in common only where nothing is found so.
    """
    folded = without_look_alikes(marking)
    whole = {folded, without_look_alikes(without_revision(marking))} - {""}
    shorter = {each for text in whole for each in with_one_left_out(text)}
    near = sorted(whole | shorter)
    with connection.cursor() as cursor:
        cursor.execute(NEAR, [depot, normal_form(marking), near, list(map(code_of, near)), MOST_NEAR])
        found = cursor.fetchall()
        if len(folded) >= TRIGRAM:
            # letters and digits alone: nothing in it stands for something else
            cursor.execute(PART_OF, [depot, f"%{folded}%", SHORT_LIST])
            found += cursor.fetchall()
    return list(dict.fromkeys(found)) or _alike(marking, Q(board__depot=None) | Q(board__depot=depot))


def _alike(marking: str, seen: Q) -> list[tuple[str, str]]:
    """Markings that have many trigrams in common with one that was read: strictly first, loosely where that is too few."""
    folded = without_look_alikes(marking)
    found: list[tuple[str, str]] = []
    near = Q(folded__trigram_similar=folded)
    for threshold in THRESHOLDS:
        with transaction.atomic(), connection.cursor() as cursor:
            cursor.execute("select set_config('pg_trgm.similarity_threshold', %s, true)", [str(threshold)])
            rows = Marking.objects.annotate(apart=TrigramDistance("folded", folded)).filter(seen, near)
            found = list(rows.order_by("apart", "text").values_list("board__part_number", "text")[:SHORT_LIST])
        if len(found) >= ENOUGH:
            break
    return found


def code_meanings(family_code: str, shown: str, depot: int | None) -> list[dict[str, Any]]:
    """What a code means on the boards of a family, each different meaning once."""
    rows = Board.objects.seen_by(depot).filter(family_id=family_code, traits__codes__contains=[{"shown": shown}])
    codes = [code for each in rows.values_list("traits__codes", flat=True)[:200] for code in each]
    found = {code["meaning"]: code for code in codes if code["shown"] == shown}
    return list(found.values())


def every_code_meaning(family_code: str, depot: int | None) -> dict[str, list[dict[str, Any]]]:
    """What each code means on the boards of a family, by what is shown."""
    rows = Board.objects.seen_by(depot).filter(family_id=family_code).values_list("traits__codes", flat=True)
    found: dict[str, dict[str, dict[str, Any]]] = {}
    for code in (code for each in rows for code in each or ()):
        found.setdefault(code["shown"], {})[code["meaning"]] = code
    return {shown: list(meanings.values()) for shown, meanings in found.items()}


def guide(kind: str, name: str) -> Guide | None:
    """A guide with its current revision, or None."""
    return guides().filter(kind=kind, name=name).first()


def guides() -> QuerySet[Guide]:
    """Every guide, with its current revision."""
    return Guide.objects.select_related("current").defer("current__document")


def guide_revisions(kind: str) -> list[int]:
    """The current revisions of every guide of a kind."""
    current = Guide.objects.filter(kind=kind).order_by("name").values_list("current_id", flat=True)
    return [each for each in current if each is not None]


def schemes_of(family: str | None = None) -> list[Scheme]:
    """The nameplate schemes, of one family or of all."""
    every = [scheme for revision in guide_revisions("nameplates") for scheme in nameplate_schemes(revision)]
    return [scheme for scheme in every if family is None or scheme.family == family]


def makers(depot: int | None) -> QuerySet[Any]:
    """The makers by name, each with how many boards are theirs."""
    return Board.objects.seen_by(depot).order_by("maker").values("maker").annotate(boards=Count("pk"))


def families(depot: int | None) -> QuerySet[Family]:
    """The families by name, each with `board_count`."""
    mine = Q(boards__depot=None) | Q(boards__depot=depot)
    return Family.objects.seen_by(depot).annotate(board_count=Count("boards", filter=mine)).order_by("code")
