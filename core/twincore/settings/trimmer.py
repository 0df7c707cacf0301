"""Trimmers read by angle: between two marks, interpolated, with the uncertainty carried through."""

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction

from twincore.profile import Board, Element, FunctionMap, Number, Value
from twincore.profile.values import as_number, tidy

TURN = (-135.0, 135.0)
"""Degrees of the first and last mark where a profile gives none, clockwise from the top (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class TrimmerReading:
    """Where a slot points, as a number of marks from the first (1.5: half way between the second and the third).

    `low` and `high` are the same for the ends of the uncertainty; `nearest` is the mark that a record can hold.
    """

    element: str
    marks: Fraction
    low: Fraction
    high: Fraction
    nearest: Value

    @property
    def on_mark(self) -> bool:
        """Whether the reading can be one mark only: all of it lies within a quarter of the way to the next."""
        index = round(self.marks)
        return abs(self.low - index) <= Fraction(1, 4) and abs(self.high - index) <= Fraction(1, 4)


@dataclass(frozen=True, slots=True)
class Interpolated:
    """A function's number between marks, with the lowest and highest that the reading allows."""

    value: Number
    low: Number
    high: Number


def read_angle(element: Element, angles: Mapping[str, float] | None, degrees: float, within: float) -> TrimmerReading:
    """A reading from degrees clockwise from the top, give or take `within`. Raises ValueError beyond the turn."""
    first, last = (angles["from"], angles["to"]) if angles else TURN
    count = len(element.points[0].domain) - 1
    per_mark = Fraction(last - first) / max(count, 1)
    if within < 0 or count < 1 or not per_mark:
        raise ValueError("expected an uncertainty of at least 0, and a trimmer with two marks or more")

    def marks(at: float) -> Fraction:
        return min(max((Fraction(at) - Fraction(first)) / per_mark, Fraction(0)), Fraction(count))

    beyond = (Fraction(degrees) - Fraction(first)) / per_mark
    slack = abs(Fraction(within) / per_mark)
    if beyond < -slack or beyond > count + slack:
        raise ValueError(f"expected an angle from {first:g} to {last:g} degrees")
    ends = sorted((marks(degrees - within), marks(degrees + within)))
    return TrimmerReading(element.id, marks(degrees), ends[0], ends[1], element.points[0].domain[round(marks(degrees))])


def interpolate(board: Board, function: FunctionMap, reading: TrimmerReading) -> Interpolated | None:
    """A function's number at a reading, straight between marks; None where it does not hang on this trimmer alone."""
    if function.scope != (reading.element,):
        return None
    domain = board.points[reading.element].domain
    try:
        at_marks = [Fraction(as_number(_value(function, mark))) for mark in domain]
    except (TypeError, ValueError):
        return None
    at = [_between(at_marks, marks) for marks in (reading.marks, reading.low, reading.high)]
    inside = at_marks[-(-reading.low // 1) : reading.high // 1 + 1]
    return Interpolated(tidy(round(at[0], 3)), tidy(round(min(*at, *inside), 3)), tidy(round(max(*at, *inside), 3)))


def _value(function: FunctionMap, mark: Value) -> Value:
    if not function.rows:
        return function.read(mark, True)
    found = [row.value for row in function.rows if all(value == mark for value in row.when.values())]
    if not found:
        raise ValueError("a mark that means nothing")
    return found[0]


def _between(values: list[Fraction], marks: Fraction) -> Fraction:
    low = min(int(marks), len(values) - 2)
    return values[low] + (values[low + 1] - values[low]) * (marks - low)
