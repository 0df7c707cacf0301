"""Reading cross-references."""

from collections.abc import Callable, Collection, Iterable, Iterator
from datetime import date
from uuid import UUID

from django.db.models import Count, IntegerField, OuterRef, Q, QuerySet, Subquery
from django.db.models.functions import Coalesce

from people.models import Person
from references.models import Contradiction, Import, Outcome, Statement
from references.rows import as_core
from twincore.choose import CHAINED, LONGEST_CHAIN, Way, find_ways
from twincore.choose import Statement as CoreStatement
from twinshown.refusals import NotThere

MOST_BOARDS = 400
"""Boards that the chains from one original may reach."""


def statements(board: str = "", relation: str = "", withdrawn: bool = False) -> QuerySet[Statement]:
    """Statements in order; `board` is one of its boards, however it stands there."""
    rows = with_outcomes(Statement.objects.select_related("withdrawn_by")).filter(withdrawn_at__isnull=not withdrawn)
    if board:
        rows = rows.filter(Q(original__istartswith=board) | Q(replacement__istartswith=board) | Q(code=board))
    if relation:
        rows = rows.filter(relation=relation)
    return rows


def with_outcomes(rows: QuerySet[Statement]) -> QuerySet[Statement]:
    """Statements with `seen_worked` and `seen_failed`: what was said in the field of their very pairing."""
    pairing = Outcome.objects.filter(original=OuterRef("original"), replacement=OuterRef("replacement"))

    def count(said: QuerySet[Outcome]) -> Coalesce:
        # grouped by nothing: one number for the whole pairing
        number = said.order_by().values("original").annotate(n=Count("pk")).values("n")
        return Coalesce(Subquery(number, output_field=IntegerField()), 0)

    did_not = Q(result=Outcome.Result.DID_NOT)
    return rows.annotate(seen_worked=count(pairing.exclude(did_not)), seen_failed=count(pairing.filter(did_not)))


def statement(code: str) -> Statement:
    """One statement by its id."""
    found = Statement.objects.filter(code=code).first()
    if found is None:
        raise NotThere(f"There is no statement {code}.")
    return found


def every_statement() -> Iterator[CoreStatement]:
    """All statements that count, read a few thousand at a time."""
    for row in Statement.objects.filter(withdrawn_at__isnull=True).order_by("code").iterator(chunk_size=5000):
        yield as_core(row)


def _about(boards: list[str]) -> QuerySet[Statement]:
    return with_outcomes(
        Statement.objects.filter(withdrawn_at__isnull=True).filter(
            Q(original__in=boards) | Q(members__overlap=boards) | Q(relation="same", replacement__in=boards)
        )
    )


def about(boards: Collection[str]) -> list[CoreStatement]:
    """The statements from any of these boards, and those that call another board the same as one of them."""
    return [as_core(row) for row in _about(list(boards))]


def lookup_from(original: str) -> Callable[[Collection[str]], Iterable[CoreStatement]]:
    """What `find_ways` needs, read level by level: one query for each length of chain instead of one for each board."""
    by_board: dict[str, list[CoreStatement]] = {}
    frontier = {original}
    for _ in range(LONGEST_CHAIN):
        for each in frontier:
            by_board[each] = []
        reached: set[str] = set()
        for statement in about(frontier):
            ends = {*statement.originals, statement.original, statement.replacement} & frontier
            for board in ends:
                by_board[board].append(statement)
            if statement.relation in CHAINED:
                reached |= {statement.replacement}
            if statement.relation == "same":
                reached |= {statement.original}
        frontier = reached - set(by_board)
        if not frontier or len(by_board) >= MOST_BOARDS:
            break

    def lookup(boards: Collection[str]) -> list[CoreStatement]:
        return [statement for board in boards for statement in by_board.get(board, ())]

    return lookup


def stand_ins(original: str, day: date) -> dict[str, Way]:
    """The boards that may stand in for one, with the best way to each; those that must not are left out."""
    found = find_ways(original, lookup_from(original), {}, day).to
    return {name: way for name, way in found.items() if way.forbidden is None}


def imports(person: Person) -> QuerySet[Import]:
    """What the person's depot sent, newest first: what it brought is everybody's, what was refused of it nobody else's."""
    return Import.objects.filter(sent_by__depot=person.depot_id).select_related("sent_by")


def one_import(person: Person, import_id: UUID) -> Import:
    """One import of the person's depot."""
    found = imports(person).filter(pk=import_id).first()
    if found is None:
        raise NotThere("There is no such import.")
    return found


def contradictions() -> QuerySet[Contradiction]:
    """What cannot all be true, as it was found last."""
    return Contradiction.objects.all()
