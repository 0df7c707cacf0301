"""Earliest times for a series of events that must keep certain distances.

Where each distance is that of two events: longest paths in a graph of differences (shortest-path form of difference
constraints: Cormen, Leiserson, Rivest, Stein, "Introduction to Algorithms", 24.4). Where a clock stood between, a distance is
a sum over several spans: a linear programme, solved exactly by the dual simplex (C. E. Lemke, "The dual method of solving the
linear programming problem" (1954); R. G. Bland's rule against going in circles (1977)).
"""

from dataclasses import dataclass
from fractions import Fraction

Spans = tuple[tuple[int, int], ...]
"""(earlier, later) events between which a clock ran, in order."""
FINEST = 4
"""Decimal places of a unit by which a strict bound is kept where spans are added up."""


@dataclass(frozen=True, slots=True)
class Distance:
    """The time over some spans together: at least `least` units, or less than (at most) `most`."""

    spans: Spans
    least: int | None = None
    most: int | None = None
    strict: bool = False


def earliest_times(count: int, distances: list[Distance]) -> list[Fraction] | None:
    """The earliest time of each of `count` events in order (the first at 0), in units; None where there is none.

    Strict bounds are kept by a margin of a decimal fraction of a unit, small enough for all of them together. Where spans are
    added up it is the last event that comes as early as it can.
    """
    if all(len(each.spans) == 1 for each in distances):
        return _by_differences(count, distances)
    margins = (Fraction(1, 10**places) for places in range(1, FINEST + 1))
    return next((times for margin in margins if (times := _by_sums(count, distances, margin)) is not None), None)


def _by_differences(count: int, distances: list[Distance]) -> list[Fraction] | None:
    edges: list[tuple[int, int, int, int]] = [(i, i + 1, 0, 0) for i in range(count - 1)]
    for each in distances:
        [(earlier, later)] = each.spans
        if each.least is not None:
            edges.append((earlier, later, each.least, 0))
        if each.most is not None:
            edges.append((later, earlier, -each.most, 1 if each.strict else 0))
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


def _by_sums(count: int, distances: list[Distance], margin: Fraction) -> list[Fraction] | None:
    """The times by the waits between one event and the next, of which each bound is a sum."""
    rows: list[tuple[list[int], Fraction]] = []
    for each in distances:
        over = [0] * (count - 1)
        for earlier, later in each.spans:
            over[earlier:later] = [1] * (later - earlier)
        if each.least is not None:
            rows.append(([-one for one in over], Fraction(-each.least)))
        if each.most is not None:
            rows.append((over, Fraction(each.most) - (margin if each.strict else 0)))
    waits = _least_sum(count - 1, list(dict.fromkeys((tuple(row), bound) for row, bound in rows)))
    if waits is None:
        return None
    times = [Fraction(0)]
    for wait in waits:
        times.append(times[-1] + wait)
    return times


def _least_sum(count: int, rows: list[tuple[tuple[int, ...], Fraction]]) -> list[Fraction] | None:
    """Numbers from 0 on, of which each row's sum is at most its bound, with the least sum of all; None where there are none."""
    width = count + len(rows)
    table = [
        [Fraction(n) for n in row] + [Fraction(i == at) for i in range(len(rows))] + [bound]
        for at, (row, bound) in enumerate(rows)
    ]
    costs = [Fraction(1)] * count + [Fraction(0)] * len(rows)
    basis = list(range(count, width))
    while (
        leaving := min((r for r in range(len(rows)) if table[r][-1] < 0), key=basis.__getitem__, default=None)
    ) is not None:
        row = table[leaving]
        entering = min((c for c in range(width) if row[c] < 0), key=lambda c: (costs[c] / -row[c], c), default=None)
        if entering is None:
            return None
        pivot = row[entering]
        row[:] = [each / pivot for each in row]
        for other in (*(each for each in table if each is not row), costs):
            if factor := other[entering]:
                # the costs have no bound beside them
                other[:] = [a - factor * b for a, b in zip(other, row, strict=False)]
        basis[leaving] = entering
    found = [Fraction(0)] * width
    for at, column in enumerate(basis):
        found[column] = table[at][-1]
    return found[:count]
