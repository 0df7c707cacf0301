"""The boards that may be considered for a machine, as something to be fitted."""

from collections.abc import Sequence
from typing import Any

from django.db.models import Case, F, IntegerField, Value, When

from catalogue.models import Board
from twincore import choose

MOST_JUDGED = 200
"""Boards of a family that are judged; those that are listed come first."""


def considered(depot: int | None, family: str, listed: Sequence[str]) -> list[dict[str, Any]]:
    """The boards of a family to judge: listed ones first, then by part number; and the sets that are listed."""
    rows = _boards(depot, family, listed)
    return rows + _sets(depot, family, listed, {row["part_number"] for row in rows})


def _boards(depot: int | None, family: str, listed: Sequence[str]) -> list[dict[str, Any]]:
    first = Case(When(part_number__in=listed, then=Value(0)), default=Value(1), output_field=IntegerField())
    rows = (
        Board.objects.seen_by(depot)
        .filter(family_id=family, current__isnull=False, withdrawn__isnull=True)
        .order_by(first, "status", "part_number", F("depot").asc(nulls_first=True))
        .values("part_number", "maker", "title", "status", "current_id", "current__number")[:MOST_JUDGED]
    )
    return [dict(row) for row in rows]


def _sets(depot: int | None, family: str, listed: Sequence[str], there: set[str]) -> list[dict[str, Any]]:
    """Listed sets that have no profile of their own, but whose boards all have one."""
    sets = {name: name.split(choose.TOGETHER) for name in listed if choose.TOGETHER in name and name not in there}
    if not sets:
        return []
    boards = Board.objects.seen_by(depot).filter(
        part_number__in={each for parts in sets.values() for each in parts}, family_id=family
    )
    found = {row["part_number"]: row for row in boards.values("part_number", "maker", "current_id")}
    return [
        {
            "part_number": name,
            "maker": found[parts[0]]["maker"],
            "title": "a set without a profile of its own",
            "status": "current",
            "current_id": None,
            "current__number": 0,
            "members": [found[each]["current_id"] for each in parts],
        }
        for name, parts in sets.items()
        if all(each in found and found[each]["current_id"] for each in parts)
    ]


MOST_KEPT = 20_000


_kept: dict[int, choose.Fitting] = {}
"""Fittings by revision, which never changes; begun anew when there are very many."""


def fittings_of(rows: list[dict[str, Any]]) -> dict[str, choose.Fitting]:
    """What fitting looks at, by part number; only what this process has not seen yet is read."""
    wanted = {number for row in rows for number in row.get("members", [row["current_id"]])}
    known = {number: _kept.get(number) for number in wanted}
    missing = [number for number, fitting in known.items() if fitting is None]
    if missing:
        read = Board.objects.filter(current__in=missing).values_list("current_id", "traits")
        fresh = {number: choose.fitting_of(traits) for number, traits in read}
        known |= fresh
        if len(_kept) + len(fresh) > MOST_KEPT:
            _kept.clear()
        _kept.update(fresh)
    parts = {row["part_number"]: [known[n] for n in row.get("members", [row["current_id"]])] for row in rows}
    return {name: choose.merged([part for part in each if part]) for name, each in parts.items() if all(each)}
