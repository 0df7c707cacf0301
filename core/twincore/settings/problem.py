"""Carry-over as a problem of least cost over points with finite domains.

The order of the criteria is kept exactly: each cost is a tuple of integers compared from the left, the deviations
scaled by their common denominator; then come points moved, and first in order. A function that unreadable positions
leave open is no miss, but what is still possible steers it.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from math import lcm

from twincore.profile import Board, Family, FunctionDef, FunctionMap, Point, Value
from twincore.profile.values import as_number
from twincore.settings.acting import acts_of
from twincore.settings.decode import Decoded
from twincore.settings.mattering import matters

Cost = tuple[int, int, int, int, int, int]
"""Safety misses, open safety functions that miss all that is possible, the same of other functions, scaled deviation,
values still possible that are safer than the one got."""
FREE: Cost = (0, 0, 0, 0, 0, 0)
DEVIATION = 4
"""Where the scaled deviation stands, which alone can be large."""


@dataclass(frozen=True, slots=True)
class Term:
    """One function of the replacement: allowed combinations of its points and what each costs.

    `cases` are partial assignments that never hold together; what no case covers is reserved.
    """

    function: str
    scope: tuple[str, ...]
    cases: tuple[tuple[dict[str, Value], Cost], ...]


@dataclass(frozen=True, slots=True)
class Problem:
    """What to solve: free domains by point (locked ones have one value), terms, and the factory positions."""

    domains: dict[str, tuple[Value, ...]]
    factory: dict[str, Value]
    terms: tuple[Term, ...]


def deviation(wanted: Value, got: Value | None, definition: FunctionDef) -> Fraction:
    """How far a value is from the one wanted: relative for numbers, 1 for anything else that differs."""
    if got is None or not definition.numeric:
        return Fraction(0 if got is not None and wanted == got else 1)
    aim = Fraction(as_number(wanted))
    return abs(as_number(got) - aim) / (abs(aim) or 1)


def build_problem(replacement: Board, family: Family, wanted: Mapping[str, Decoded]) -> Problem:
    """The problem of setting a replacement so that its functions come closest to the values wanted; what does not matter on the
    original is not wanted.
    """
    wanted = {
        name: each
        for name, each in wanted.items()
        if (definition := family.function(name)) and matters(definition, wanted)
    }
    raw: list[tuple[FunctionMap, FunctionDef, list[tuple[dict[str, Value], Value]]]] = []
    for name, function in replacement.functions.items():
        definition = family.function(name)
        if definition is None or not (function.scope or function.rows):
            continue
        if function.rows:
            cases = [(row.when, row.value) for row in function.rows]
        else:
            point = function.scope[0]
            cases = [({point: p}, function.read(p, definition.numeric)) for p in replacement.points[point].domain]
        raw.append((function, definition, cases))
    denominators = {
        deviation(aim.values[0], value, d).denominator
        for f, d, cases in raw
        if (aim := wanted.get(f.id)) and aim.decided
        for _, value in cases
    }
    scale = lcm(1, *denominators)
    acting = {(act.point, act.when) for act in acts_of(replacement)}
    terms = []
    for function, definition, cases in raw:
        costed = tuple((when, _cost(wanted.get(function.id), value, definition, scale)) for when, value in cases)
        terms.append(Term(function.id, function.scope, costed))
    return Problem(
        domains={name: _allowed(p, acting) for name, p in replacement.points.items()},
        factory={name: point.factory for name, point in replacement.points.items()},
        terms=tuple(terms),
    )


def _allowed(point: Point, acting: set[tuple[str, Value]]) -> tuple[Value, ...]:
    """Where a point may be set: locked ones stay at factory, and none is left in a position that acts."""
    if point.locked:
        return (point.factory,)
    return tuple(value for value in point.domain if (point.id, value) not in acting)


def _cost(wanted: Decoded | None, got: Value, definition: FunctionDef, scale: int) -> Cost:
    if wanted is None or not wanted.values:
        return FREE
    miss = 0 if still_possible(wanted, got, definition) else 1
    safety = definition.importance == "safety"
    if wanted.decided:
        scaled = int(deviation(wanted.values[0], got, definition) * scale)
        return (miss, 0, 0, 0, scaled, 0) if safety else (0, 0, miss, 0, scaled, 0)
    safer = sum(definition.is_safer(value, got) for value in wanted.values)
    return (0, miss, 0, 0, 0, safer) if safety else (0, 0, 0, miss, 0, safer)


def still_possible(wanted: Decoded, got: Value, definition: FunctionDef) -> bool:
    """Whether a value is, within tolerance, one of those that the original may have."""
    return any(definition.within(value, got) for value in wanted.values)
