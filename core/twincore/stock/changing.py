"""From what is in the vans to what is planned: what is moved, bought and returned."""

from collections.abc import Mapping
from dataclasses import dataclass

Counts = Mapping[str, Mapping[str, int]]
"""Pieces by van."""


@dataclass(frozen=True, slots=True)
class Change:
    """So many of a piece go from a van (none: they are bought) to a van (none: they are returned)."""

    piece: str
    count: int
    source: str | None
    target: str | None


def changes(there: Counts, planned: Counts) -> list[Change]:
    """The changes in the order of their pieces; what is left over in one van is moved before anything is bought."""
    found = []
    vans = sorted({*there, *planned})
    for piece in sorted({name for counts in (*there.values(), *planned.values()) for name in counts}):
        more = {van: planned.get(van, {}).get(piece, 0) - there.get(van, {}).get(piece, 0) for van in vans}
        left, missing = [v for v in vans if more[v] < 0], [v for v in vans if more[v] > 0]
        while left and missing:
            source, target = left[0], missing[0]
            count = min(-more[source], more[target])
            found.append(Change(piece, count, source, target))
            more[source] += count
            more[target] -= count
            left, missing = [v for v in left if more[v] < 0], [v for v in missing if more[v] > 0]
        found += [Change(piece, more[van], None, van) for van in missing]
        found += [Change(piece, -more[van], van, None) for van in left]
    return found
