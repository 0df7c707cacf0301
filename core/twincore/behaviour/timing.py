"""Earliest times for a series of events that must keep certain distances: longest paths in a graph of differences.

Shortest-path form of difference constraints: Cormen, Leiserson, Rivest, Stein, "Introduction to Algorithms", 24.4.
"""

from dataclasses import dataclass
from fractions import Fraction


@dataclass(frozen=True, slots=True)
class Distance:
    """Event `later` minus event `earlier`: at least `least` units, or less than (at most) `most`."""

    earlier: int
    later: int
    least: int | None = None
    most: int | None = None
    strict: bool = False


def earliest_times(count: int, distances: list[Distance]) -> list[Fraction] | None:
    """The earliest time of each of `count` events in order (the first at 0), in units; None where there is none.

    Strict bounds are kept by a margin of a decimal fraction of a unit, small enough for all of them together.
    """
    edges: list[tuple[int, int, int, int]] = [(i, i + 1, 0, 0) for i in range(count - 1)]
    for each in distances:
        if each.least is not None:
            edges.append((each.earlier, each.later, each.least, 0))
        if each.most is not None:
            edges.append((each.later, each.earlier, -each.most, 1 if each.strict else 0))
    times = [(0, 0)] * count
    for _ in range(count + 1):
        changed = False
        for start, end, wait, margin in edges:
            candidate = (times[start][0] + wait, times[start][1] + margin)
            if candidate > times[end]:
                times[end], changed = candidate, True
        if not changed:
            break
    else:
        return None
    if times[0] != (0, 0):
        return None
    most_margins = max(margin for _, margin in times)
    fraction = 1
    while fraction < most_margins + 2:
        fraction *= 10
    return [Fraction(units) + Fraction(margin, fraction) for units, margin in times]
