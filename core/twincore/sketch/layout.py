"""A tidy place for everything on a board that nobody measured: rows that never overlap, and say that they are drawn so."""

from dataclasses import dataclass
from math import sqrt

from twincore.profile import KINDS
from twincore.sketch.model import Sketch

MARGIN, GAP, ROW_GAP = 8.0, 8.0, 14.0
"""Millimetres round the board, between parts of a row, and between rows (their names stand there)."""
LONGEST = 180.0
AS_WIDE, EDGE, NEAR, GROWS = 160.0, 6.0, 6.0, 1.25
"""Over a picture: mm across where no size is known, from the edge, between parts; how much larger where room is wanting."""
NAMED = 22.0
PIN, PLUG_DEEP = 6.0, 10.0


@dataclass(frozen=True, slots=True)
class Part:
    """Something with a place: its name, and how wide and high it is in mm, as it hangs."""

    ref: str
    width: float
    height: float

    @property
    def room(self) -> float:
        """How much of a row it takes, in mm: at least its name, with the word and arrow for on beside it."""
        return max(self.width, NAMED)


def parts_of(sketch: Sketch) -> list[list[Part]]:
    """What sits on the board, in the rows in which it is drawn from the top: plugs, what is set, the rest."""
    plugs = [Part(each.id, 4 + PIN * each.pins, PLUG_DEEP) for each in sketch.plugs]
    sizes_mm = {each.id: KINDS[each.kind].size_mm(each) for each in sketch.elements}
    elements = [Part(name, *size) for name, size in sizes_mm.items() if size is not None]
    relays = [Part(f"RL{number}", 18, 16) for number in range(1, sketch.relays + 1)]
    sizes = {"lamp": (5, 5), "button": (8, 8), "fuse": (22, 6), "display": (30, 14)}
    rest = [Part(each, *sizes[each]) for each in sketch.parts]
    return [plugs, elements, relays + rest]


def placed(sketch: Sketch) -> tuple[tuple[float, float], list[tuple[Part, float, float]]]:
    """The board's size in mm and every part with the place of its lower left corner, y up; nothing overlaps.

    A size that was sketched is kept where everything finds room in it, and is made larger where not. What was tapped in
    a picture is where it was tapped, as near as it goes without lying on what was tapped before; the rest has free room.
    """
    if sketch.picture and sketch.places:
        return _over_picture(sketch, sketch.picture)
    widest = max(LONGEST, (sketch.size_mm or (0, 0))[0]) - 2 * MARGIN
    rows = [row for group in parts_of(sketch) for row in _rows(group, widest)]
    wide = max((sum(p.room for p in row) + GAP * (len(row) - 1) for row in rows), default=0.0)
    high = sum(max(part.height for part in row) for row in rows) + ROW_GAP * max(0, len(rows) - 1)
    size = sketch.size_mm or (100.0, 70.0)
    width, height = max(size[0], wide + 2 * MARGIN), max(size[1], high + 3 * MARGIN)
    spare = (height - 3 * MARGIN - high) / max(1, len(rows) - 1) if len(rows) > 1 else 0.0
    top, found = height - MARGIN, []
    for row in rows:
        left = MARGIN
        for part in row:
            found.append((part, round(left, 1), round(top - part.height, 1)))
            left += part.room + GAP
        top -= max(part.height for part in row) + ROW_GAP + spare
    return (round(width, 1), round(height, 1)), found


def _over_picture(
    sketch: Sketch, shape: tuple[float, float]
) -> tuple[tuple[float, float], list[tuple[Part, float, float]]]:  # fmt: skip
    parts = [part for group in parts_of(sketch) for part in group]
    at = {ref: (x / 100, 1 - y / 100) for ref, x, y in sketch.places}
    covered = sum((part.width + NEAR) * (part.height + NEAR) for part in parts)
    width = max(
        (sketch.size_mm or (AS_WIDE, 0))[0], sqrt(covered * shape[0] / shape[1]), *(p.width + 2 * EDGE for p in parts)
    )
    while True:
        size = width, width * shape[1] / shape[0]
        found: list[tuple[Part, float, float]] = []
        for part in sorted(parts, key=lambda each: each.ref not in at):
            spot = _free_spot(part, at.get(part.ref, (0.5, 0.5)), size, found)
            if spot is None:
                break
            found.append((part, *spot))
        else:
            order = {part.ref: number for number, part in enumerate(parts)}
            return (round(width, 1), round(size[1], 1)), sorted(found, key=lambda each: order[each[0].ref])
        width *= GROWS


def _free_spot(
    part: Part, middle: tuple[float, float], size: tuple[float, float], there: list[tuple[Part, float, float]]
) -> tuple[float, float] | None:
    """The lower left corner nearest to a wanted middle, all of it on the board and free of what is there; None for none."""
    most = size[0] - part.width - EDGE, size[1] - part.height - EDGE
    if min(most) < EDGE:
        return None
    wanted = (
        min(max(middle[0] * size[0] - part.width / 2, EDGE), most[0]),
        min(max(middle[1] * size[1] - part.height / 2, EDGE), most[1]),
    )
    spots = [wanted, *(spot for each in there for spot in _beside(part, wanted, *each))]
    inside = [(x, y) for x, y in spots if EDGE <= x <= most[0] and EDGE <= y <= most[1]]
    free = [(round(x, 1), round(y, 1)) for x, y in inside if not any(_touch(part, x, y, *each) for each in there)]
    return min(free, key=lambda spot: (spot[0] - wanted[0]) ** 2 + (spot[1] - wanted[1]) ** 2, default=None)


def _beside(
    part: Part, wanted: tuple[float, float], other: Part, left: float, bottom: float
) -> list[tuple[float, float]]:  # fmt: skip
    """The spots right beside another part, as high or as far as is wanted, or in line with it."""
    before, after = left - NEAR - part.width, left + other.width + NEAR
    under, over = bottom - NEAR - part.height, bottom + other.height + NEAR
    return [(x, y) for x in (before, after) for y in (wanted[1], bottom)] + [
        (x, y) for y in (under, over) for x in (wanted[0], left)
    ]


def _touch(part: Part, x: float, y: float, other: Part, left: float, bottom: float) -> bool:
    """Whether two parts would be nearer than a name needs."""
    return (
        x < left + other.width + NEAR and left < x + part.width + NEAR
        and y < bottom + other.height + NEAR and bottom < y + part.height + NEAR
    )  # fmt: skip


def _rows(parts: list[Part], widest: float) -> list[list[Part]]:
    """Parts in as many rows as they need, each as full as it gets."""
    rows: list[list[Part]] = []
    used = 0.0
    for part in parts:
        if not rows or used + part.room > widest:
            rows.append([])
            used = 0.0
        rows[-1].append(part)
        used += part.room + GAP
    return rows
