"""Lists as files: machines served, pieces with their prices, and what is on the shelves. Taken in whole or not at all."""

import csv
from collections.abc import Iterable, Iterator
from datetime import datetime
from io import StringIO
from typing import Any

from django.db import transaction

from config.downloads import cell
from people.access import depot_of, require_parts_lead
from people.models import Depot, Person
from stock.models import Held, Moved, Priced, Served, Van
from twincore import stock
from twincore.errors import DocumentError, Fault

FACT = "fact."
MOST_FAULTS = 50


@transaction.atomic
def load_served(person: Person, data: bytes) -> int:
    """Take in the list of the machines that the vans look after; it takes the place of the one before. How many rows.

    Raises DocumentError with the line and column of everything that is wrong.
    """
    depot = _depot_of_lead(person)
    rows = stock.parse_served(data)
    vans = _vans(depot, [row.van for row in rows])
    Served.objects.filter(van__depot=depot).delete()
    Served.objects.bulk_create(
        Served(
            van=vans[row.van], board=row.board, machines=row.machines, failed=row.failed, years=row.years,
            facts=dict(row.facts),
        )
        for row in rows
    )  # fmt: skip
    return len(rows)


@transaction.atomic
def load_pieces(person: Person, data: bytes) -> int:
    """Take in what pieces cost and take of a shelf; what is not in the file stays as it is. Raises DocumentError."""
    depot = _depot_of_lead(person)
    rows = {row.piece: row for row in stock.parse_pieces(data)}
    Priced.objects.bulk_create(
        [
            Priced(depot=depot, piece=row.piece, cost=row.cost, size=row.size, most=row.most)
            for row in rows.values()
        ],
        update_conflicts=True, unique_fields=["depot", "piece"], update_fields=["cost", "size", "most"],
    )  # fmt: skip
    return len(rows)


@transaction.atomic
def load_held(person: Person, data: bytes, now: datetime) -> int:
    """Take in what is on the shelves; it takes the place of what was counted before. Raises DocumentError."""
    depot = _depot_of_lead(person)
    rows = stock.parse_stock(data)
    vans = _vans(depot, [row.van for row in rows])
    counts: dict[tuple[Any, str], int] = {}
    for row in rows:
        key = (vans[row.van].pk, row.piece)
        counts[key] = counts.get(key, 0) + row.count
    there = {(each.van_id, each.piece): each for each in Held.objects.select_for_update().filter(van__depot=depot)}
    moves = []
    for key in sorted({*there, *counts}, key=str):
        count, was = counts.get(key, 0), there[key].count if key in there else 0
        Held.objects.update_or_create(van_id=key[0], piece=key[1], defaults={"count": count})
        if count != was:
            moves.append(
                Moved(
                    van_id=key[0], piece=key[1], change=count - was, left=count, why=Moved.Why.FROM_LIST, at=now,
                    by_name=person.shown_name,
                )
            )  # fmt: skip
    Moved.objects.bulk_create(moves)
    return len(rows)


def served_as_csv(person: Person) -> Iterator[str]:
    """The machines served, as they can be brought in again."""
    rows = list(Served.objects.filter(van__depot=depot_of(person)).select_related("van"))
    facts = sorted({name for row in rows for name in row.facts})
    yield _line(["van", "board", "machines", "failed", "years", *(FACT + name for name in facts)])
    for row in rows:
        said = [_written(row.facts[name]) if name in row.facts else "" for name in facts]
        yield _line([row.van.name, row.board, row.machines, _number(row.failed), _number(row.years), *said])


def pieces_as_csv(person: Person) -> Iterator[str]:
    """The pieces with what they cost."""
    yield _line(["piece", "cost", "size", "most"])
    for row in Priced.objects.filter(depot=depot_of(person)):
        yield _line([row.piece, _number(row.cost), _number(row.size), row.most])


def held_as_csv(person: Person) -> Iterator[str]:
    """What is on the shelves."""
    yield _line(["van", "piece", "count"])
    rows = Held.objects.filter(van__depot=depot_of(person), count__gt=0).select_related("van")
    for row in rows.order_by("van__name", "piece"):
        yield _line([row.van.name, row.piece, row.count])


def _depot_of_lead(person: Person) -> Depot:
    require_parts_lead(person)
    return Depot.objects.select_for_update().get(pk=depot_of(person).pk)


def _vans(depot: Depot, names: Iterable[str]) -> dict[str, Van]:
    """The depot's vans by name. Raises DocumentError with the lines of those that are none."""
    vans = {van.name: van for van in Van.objects.filter(depot=depot)}
    there = ", ".join(vans) or "none yet: add them first"
    faults = [
        Fault(f"row {number}, van", f"expected a van of the depot ({there}), found {name}")
        for number, name in enumerate(names, start=1)
        if name not in vans
    ]
    if faults:
        raise DocumentError(faults[:MOST_FAULTS])
    return vans


def _number(value: float) -> str:
    """A number with every digit that it was kept with."""
    return repr(int(value) if value.is_integer() else value)


def _written(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value:.12g}" if isinstance(value, float) else str(value)


def _line(cells: Iterable[Any]) -> str:
    out = StringIO()
    csv.writer(out, lineterminator="\r\n").writerow([cell(str(each)) for each in cells])
    return out.getvalue()
