"""Carry-over as a problem of least cost over points with finite domains.

The order of the criteria (safety misses, other misses, sum of relative deviations, points moved, first in order)
is kept exactly: each cost is a tuple of integers compared from the left, the deviations scaled by their common
denominator.
"""

from dataclasses import dataclass
from fractions import Fraction
from math import lcm

from twincore.profile import Board, Family, FunctionDef, FunctionMap, Point, Value
from twincore.profile.values import as_number
from twincore.settings.acting import acts_of

Cost = tuple[int, int, int]
"""Safety misses, other misses, scaled deviation."""


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


def build_problem(replacement: Board, family: Family, wanted: dict[str, Value]) -> Problem:
    """The problem of setting a replacement so that its functions come closest to the values wanted."""
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
        deviation(wanted[f.id], value, d).denominator for f, d, cases in raw if f.id in wanted for _, value in cases
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


def _cost(wanted: Value | None, got: Value, definition: FunctionDef, scale: int) -> Cost:
    if wanted is None:
        return (0, 0, 0)
    miss = 0 if definition.within(wanted, got) else 1
    safety = definition.importance == "safety"
    return (miss if safety else 0, 0 if safety else miss, int(deviation(wanted, got, definition) * scale))
