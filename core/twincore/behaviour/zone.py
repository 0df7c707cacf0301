"""Zones: sets of clock ages given by bounds on their differences (difference bound matrices).

D. L. Dill, "Timing assumptions and verification of finite-state concurrent systems" (1989);
J. Bengtsson and W. Yi, "Timed automata: semantics, algorithms and tools" (2004).

A zone over n clocks is a flat tuple of (n + 1)² bounds; entry i·(n + 1) + j bounds age i − age j, index 0 being the
constant zero. A bound of at most c is the whole number 2c + 1, of less than c it is 2c; closed form throughout.
"""

from operator import le
from typing import TypeAlias

Zone: TypeAlias = tuple[int, ...]

OPEN = 1 << 60
"""No bound."""
ZERO = 1
"""At most 0."""


def at_most(c: int) -> int:
    """The bound ≤ c."""
    return 2 * c + 1


def below(c: int) -> int:
    """The bound < c."""
    return 2 * c


def constrain(zone: Zone, size: int, i: int, j: int, bound: int) -> Zone | None:
    """The part of a zone in which age i − age j keeps a bound; None where it is empty. `size` is n + 1."""
    if bound >= zone[i * size + j]:
        return zone
    back = zone[j * size + i]
    if back < OPEN and back + bound - ((back | bound) & 1) < ZERO:
        return None
    cells = list(zone)
    cells[i * size + j] = bound
    row_j = [zone[j * size + m] for m in range(size)]
    for k in range(size):
        to_i = zone[k * size + i]
        if to_i >= OPEN:
            continue
        through = to_i + bound - ((to_i | bound) & 1)
        base = k * size
        for m in range(size):
            last = row_j[m]
            if last < OPEN:
                total = through + last - ((through | last) & 1)
                if total < cells[base + m]:
                    cells[base + m] = total
    return tuple(cells)


def elapse(zone: Zone, size: int, still: int = 0) -> Zone:
    """The zone after any delay. `still` are the clocks that stand meanwhile, as bits; then it may hold a little more than that,
    for of a clock that runs, one that stands and a third, bounds of two at a time do not tell all (a cover: F. Cassez and
    K. Larsen, "The impressive power of stopwatches" (2000)).
    """
    cells = list(zone)
    standing = [0, *(j for j in range(1, size) if still >> j & 1)]
    for i in range(1, size):
        if not still >> i & 1:
            for j in standing:
                cells[i * size + j] = OPEN
    return tuple(cells)


def always_at_least(zone: Zone, size: int, i: int, c: int) -> bool:
    """Whether age i has reached c everywhere in a zone."""
    return zone[i] <= at_most(-c)


def always_below(zone: Zone, size: int, i: int, c: int) -> bool:
    """Whether age i is below c everywhere in a zone."""
    return zone[i * size] <= below(c)


def project(zone: Zone, size: int, kept: tuple[int, ...]) -> Zone:
    """The zone over the clocks kept, in that order; one may be kept twice, and 0 is a clock of age zero."""
    old = (0, *kept)
    return tuple([zone[i * size + j] for i in old for j in old])


def widen(zone: Zone, size: int, limits: list[int]) -> Zone:
    """Forget bounds past each clock's largest threshold (exact for reachability, and makes zones finitely many)."""
    cells = list(zone)
    changed = False
    for i in range(size):
        for j in range(size):
            if i == j:
                continue
            bound = cells[i * size + j]
            if i and bound < OPEN and bound > at_most(limits[i]):
                cells[i * size + j] = OPEN
                changed = True
            elif j and bound < below(-limits[j]):
                cells[i * size + j] = below(-limits[j])
                changed = True
    return close(cells, size) if changed else zone


def close(cells: list[int], size: int) -> Zone:
    """The closed form: every bound as tight as the others make it (Floyd and Warshall)."""
    for k in range(size):
        for i in range(size):
            first = cells[i * size + k]
            if first >= OPEN:
                continue
            for j in range(size):
                second = cells[k * size + j]
                if second < OPEN:
                    total = first + second - ((first | second) & 1)
                    if total < cells[i * size + j]:
                        cells[i * size + j] = total
    return tuple(cells)


def inside(zone: Zone, other: Zone) -> bool:
    """Whether a zone lies within another over the same clocks."""
    return all(map(le, zone, other))
