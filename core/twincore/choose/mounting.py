"""Mounting: the turn and shift that makes most holes coincide, the holes then to drill, and what the outline fouls."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations
from math import hypot, sqrt

from twincore.measure.constants import CONSTANTS

SCREWS: list[tuple[float, float]] = sorted(
    ((float(screw), hole) for screw, hole in CONSTANTS["screws"]["hole_mm"].items()), reverse=True
)
TURNS = (0, 90, 180, 270)
EPSILON = 1e-6

Point = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Hole:
    """A hole in a board: its centre and diameter, in millimetres."""

    at: Point
    diameter_mm: float


@dataclass(frozen=True, slots=True)
class Plate:
    """A board as it is mounted: outline from (0, 0), height over its seat (None: unknown), holes."""

    size_mm: Point
    height_mm: float | None
    holes: tuple[Hole, ...]


@dataclass(frozen=True, slots=True)
class NewHole:
    """A hole to drill in the machine: where it is on the replacement, and measured from two edges of the original's seat."""

    hole: int
    from_left_mm: float
    from_bottom_mm: float
    diameter_mm: float


@dataclass(frozen=True, slots=True)
class Mounting:
    """The best way to lay the replacement on the original's seat.

    `turn` in degrees anticlockwise, then `shift_mm`; `pairs` are (original's hole, replacement's hole) that coincide.
    `over_mm` is how far the replacement reaches beyond the original's outline: left, bottom, right, top, height.
    """

    turn: int
    shift_mm: Point
    pairs: tuple[tuple[int, int], ...]
    new_holes: tuple[NewHole, ...]
    over_mm: tuple[float, float, float, float, float | None]

    @property
    def fouls(self) -> bool:
        """Whether it reaches beyond the room that the original took."""
        return any(each is not None and each > EPSILON for each in self.over_mm)


def screw_mm(hole_mm: float) -> float:
    """The largest screw that a clearance hole takes (ISO 273, fine series); 0.3 mm less than the hole where it is smaller."""
    return next((screw for screw, hole in SCREWS if hole <= hole_mm + EPSILON), max(0.0, hole_mm - 0.3))


def slack_mm(original: Hole, replacement: Hole) -> float:
    """How far two hole centres may be apart for one screw to go through both; negative where none does."""
    screw = screw_mm(original.diameter_mm)
    return (original.diameter_mm - screw) / 2 + (replacement.diameter_mm - screw) / 2


def turned(point: Point, turn: int, size: Point) -> Point:
    """A point of a plate after turning it anticlockwise and moving its lower left corner back to (0, 0)."""
    x, y = point
    width, height = size
    return {0: (x, y), 90: (height - y, x), 180: (width - x, height - y), 270: (y, width - x)}[turn]


@lru_cache(maxsize=4096)
def best_mounting(original: Plate, replacement: Plate) -> Mounting:
    """The turn and shift with the most coinciding holes; then least reach beyond the outline, least turn, least shift.

    Exact: the largest number of coinciding holes is reached with a hole centred on another, or where two circles of
    slack cross (point-set alignment under translation).
    """
    best: tuple[tuple[float, ...], Mounting] | None = None
    for turn in TURNS:
        size = replacement.size_mm if turn % 180 == 0 else (replacement.size_mm[1], replacement.size_mm[0])
        holes = [turned(hole.at, turn, replacement.size_mm) for hole in replacement.holes]
        for shift in _shifts(original, replacement, holes, size):
            pairs = _pairs(original, replacement, holes, shift)
            over = _over(original, replacement, size, shift)
            reach = sum(max(0.0, each) for each in over[:4])
            rank = (-len(pairs), round(reach, 6), turn, round(abs(shift[0]) + abs(shift[1]), 6), *shift)
            if best is None or rank < best[0]:
                served = {index for _, index in pairs}
                new = tuple(
                    NewHole(i, round(x + shift[0], 3), round(y + shift[1], 3), replacement.holes[i].diameter_mm)
                    for i, (x, y) in enumerate(holes)
                    if i not in served
                )
                best = (rank, Mounting(turn, (round(shift[0], 3), round(shift[1], 3)), pairs, new, over))
    assert best is not None  # there is always the shift that lays corner on corner
    return best[1]


def _shifts(original: Plate, replacement: Plate, holes: Sequence[Point], size: Point) -> Iterable[Point]:
    """Shifts worth trying: corner on corner, middle on middle, a hole on a hole, and where two circles of slack cross."""
    yield (0.0, 0.0)
    yield ((original.size_mm[0] - size[0]) / 2, (original.size_mm[1] - size[1]) / 2)
    circles = []
    for mine in original.holes:
        for index, (x, y) in enumerate(holes):
            slack = slack_mm(mine, replacement.holes[index])
            if slack >= 0:
                circles.append((mine.at[0] - x, mine.at[1] - y, slack))
    yield from {(x, y) for x, y, _ in circles}
    for (x0, y0, r0), (x1, y1, r1) in combinations(circles, 2):
        apart = hypot(x1 - x0, y1 - y0)
        if EPSILON < apart <= r0 + r1:
            along = (r0 * r0 - r1 * r1 + apart * apart) / (2 * apart)
            across = sqrt(max(0.0, r0 * r0 - along * along))
            ux, uy = (x1 - x0) / apart, (y1 - y0) / apart
            yield from (
                (x0 + along * ux - side * across * uy, y0 + along * uy + side * across * ux) for side in (0, 1, -1)
            )


def _pairs(original: Plate, replacement: Plate, holes: Sequence[Point], shift: Point) -> tuple[tuple[int, int], ...]:
    """Holes that coincide after a shift; holes of a board are farther apart than any slack, so nearest is enough."""
    pairs: list[tuple[int, int]] = []
    for i, mine in enumerate(original.holes):
        for j, (x, y) in enumerate(holes):
            apart = hypot(x + shift[0] - mine.at[0], y + shift[1] - mine.at[1])
            if apart <= slack_mm(mine, replacement.holes[j]) + EPSILON and all(j != b for _, b in pairs):
                pairs.append((i, j))
                break
    return tuple(pairs)


def _over(
    original: Plate, replacement: Plate, size: Point, shift: Point
) -> tuple[float, float, float, float, float | None]:
    height = None
    if original.height_mm is not None and replacement.height_mm is not None:
        height = replacement.height_mm - original.height_mm
    return (
        round(-shift[0], 3),
        round(-shift[1], 3),
        round(shift[0] + size[0] - original.size_mm[0], 3),
        round(shift[1] + size[1] - original.size_mm[1], 3),
        height,
    )
