"""Reading van stock."""

from collections import Counter, defaultdict
from collections.abc import Collection, Iterable
from datetime import datetime
from typing import Any, NamedTuple
from uuid import UUID

from django.db.models import Case, F, IntegerField, Q, QuerySet, Sum, When

from catalogue.models import Board
from people.access import depot_of
from people.models import Person
from stock.judging import MachineKind, grades_of, kind_of
from stock.models import Apart, Held, Judged, Moved, Plan, Priced, Served, Van
from twinshown.refusals import NotThere

PROVED = ("proved", "work")


def vans(person: Person) -> QuerySet[Van]:
    """The vans of the person's depot, one's own first."""
    mine = Case(When(driver=person, then=0), default=1, output_field=IntegerField())
    return Van.objects.filter(depot=person.depot_id).select_related("driver").order_by(mine, "name")


class Sums(NamedTuple):
    """What a van has, lacks, and looks after."""

    pieces: int
    lacks: int
    machines: int
    minutes: dict[str, int]


def sums_of(found: Collection[Van]) -> dict[UUID, Sums]:
    """What these vans have: three queries, however many they are."""
    ids = [van.pk for van in found]
    lacks = Case(When(wanted__gt=F("count"), then=F("wanted") - F("count")), default=0, output_field=IntegerField())
    held = {
        row["van"]: row
        for row in Held.objects.filter(van__in=ids)
        .order_by()
        .values("van")
        .annotate(all=Sum("count"), lacks=Sum(lacks))
    }
    served = Served.objects.filter(van__in=ids).order_by().values("van").annotate(all=Sum("machines"))
    machines = {row["van"]: row["all"] for row in served}
    minutes: dict[UUID, dict[str, int]] = defaultdict(dict)
    for each in Apart.objects.filter(Q(van__in=ids) | Q(other__in=ids)):
        minutes[each.van_id][str(each.other_id)] = each.minutes
        minutes[each.other_id][str(each.van_id)] = each.minutes
    return {
        id: Sums(
            held[id]["all"] if id in held else 0,
            held[id]["lacks"] if id in held else 0,
            machines.get(id, 0),
            minutes[id],
        )
        for id in ids
    }


def shelf(van: Van) -> QuerySet[Held]:
    """What is in a van, or should be: what it lacks first."""
    lacking = Case(When(wanted__gt=F("count"), then=0), default=1, output_field=IntegerField())
    return van.held.filter(Q(count__gt=0) | Q(wanted__gt=0)).order_by(lacking, "piece")


def served_by_pieces(van: Van) -> dict[str, int]:
    """How many machines that a van looks after each piece is a proved twin for, as it was judged last."""
    rows = list(van.served.filter(machines__gt=0))
    judged = grades_of(van.depot, {kind_of(row) for row in rows})
    counts: Counter[str] = Counter()
    for row in rows:
        if (found := judged.get(kind_of(row))) is not None:
            for piece, grade in found.grades.items():
                counts[piece] += row.machines if grade in PROVED else 0
    return dict(counts)


def titles_of(person: Person, boards: Iterable[str]) -> dict[str, str]:
    """What boards are called, by their numbers."""
    rows = Board.objects.seen_by(person.depot_id).filter(part_number__in=set(boards))
    return dict(rows.values_list("part_number", "title"))


def moves(van: Van) -> QuerySet[Moved]:
    """What came onto a shelf and off it, newest first."""
    return van.moves.all()


class There(NamedTuple):
    """A piece in a van, and how far that is."""

    held: Held
    mine: bool
    minutes: int | None


def whereabouts(person: Person, pieces: Collection[str]) -> list[There]:
    """The vans that have any of these pieces: one's own first, then those nearest to it."""
    own = Van.objects.filter(driver=person, depot=person.depot_id).first()
    rows = Held.objects.filter(van__depot=person.depot_id, piece__in=pieces, count__gt=0).select_related("van")
    minutes = minutes_from(own)
    found = [There(row, own is not None and row.van_id == own.pk, minutes.get(row.van_id)) for row in rows]
    return sorted(
        found,
        key=lambda each: (not each.mine, each.minutes if each.minutes is not None else 1_000_000, each.held.van.name),
    )


def minutes_from(van: Van | None) -> dict[UUID, int]:
    """How far the other vans are from one, where somebody said."""
    if van is None:
        return {}
    rows = Apart.objects.filter(Q(van=van) | Q(other=van))
    return {each.other_id if each.van_id == van.pk else each.van_id: each.minutes for each in rows}


def served(person: Person, van: UUID | None, board: str) -> QuerySet[Served]:
    """The machines that the depot's vans look after."""
    rows = Served.objects.filter(van__depot=person.depot_id).select_related("van")
    if van is not None:
        rows = rows.filter(van=van)
    return rows.filter(board__istartswith=board) if board else rows


def judged_of(person: Person, rows: Iterable[Served]) -> dict[MachineKind, Judged]:
    """Who serves these machines, as it was judged last."""
    return grades_of(depot_of(person), {kind_of(row) for row in rows})


def prices(person: Person) -> QuerySet[Priced]:
    """What pieces cost, by the depot's own word."""
    return Priced.objects.filter(depot=person.depot_id)


class Matrix(NamedTuple):
    """Machines over all vans, with who serves them as it was judged last."""

    machines: dict[MachineKind, int]
    facts: dict[MachineKind, dict[str, Any]]
    judged: dict[MachineKind, Judged]
    held: dict[str, int]
    """How many of each piece are in the vans."""

    @property
    def judged_at(self) -> datetime | None:
        """When the last of it was judged."""
        return max((each.at for each in self.judged.values()), default=None)


def matrix(person: Person) -> Matrix:
    """Who serves whom in the whole depot."""
    machines: Counter[MachineKind] = Counter()
    facts: dict[MachineKind, dict[str, Any]] = {}
    for row in Served.objects.filter(van__depot=person.depot_id, machines__gt=0):
        machines[kind_of(row)] += row.machines
        facts[kind_of(row)] = row.facts
    judged = grades_of(depot_of(person), facts)
    pieces = {piece for each in judged.values() for piece in each.grades}
    held = Held.objects.filter(van__depot=person.depot_id, piece__in=pieces).order_by().values("piece")
    return Matrix(
        dict(machines), facts, judged,
        {row["piece"]: row["all"] for row in held.annotate(all=Sum("count"))},
    )  # fmt: skip


def plans(person: Person) -> QuerySet[Plan]:
    """The depot's plans, newest first."""
    return Plan.objects.filter(depot=person.depot_id).select_related("asked_by")


def plan(person: Person, id: UUID) -> Plan:
    """One plan. Raises NotThere."""
    found = plans(person).filter(pk=id).first()
    if found is None:
        raise NotThere("There is no such plan.")
    return found
