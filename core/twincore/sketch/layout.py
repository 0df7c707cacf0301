"""A tidy place for everything on a board that nobody measured: rows that never overlap, and say that they are drawn so."""

from dataclasses import dataclass

from twincore.sketch.model import Sketch, SketchedElement

MARGIN, GAP, ROW_GAP = 8.0, 8.0, 14.0
"""Millimetres round the board, between parts of a row, and between rows (their names stand there)."""
LONGEST = 180.0
NAMED = 22.0
PIN, PLUG_DEEP = 6.0, 10.0
SLOT, BANK_DEEP = 5.0, 12.0


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
    elements = [_element(each) for each in sketch.elements if each.kind not in ("parameter", "program", "code")]
    relays = [Part(f"RL{number}", 18, 16) for number in range(1, sketch.relays + 1)]
    sizes = {"lamp": (5, 5), "button": (8, 8), "fuse": (22, 6), "display": (30, 14)}
    rest = [Part(each, *sizes[each]) for each in sketch.parts]
    return [plugs, elements, relays + rest]


def _element(element: SketchedElement) -> Part:
    match element.kind:
        case "dip":
            long = 4 + SLOT * element.places
            return Part(element.id, BANK_DEEP, long) if element.upright else Part(element.id, long, BANK_DEEP)
        case "thumbwheel":
            return Part(element.id, 8.0 * element.places, 12)
    return Part(element.id, 14, 14)


def placed(sketch: Sketch) -> tuple[tuple[float, float], list[tuple[Part, float, float]]]:
    """The board's size in mm and every part with the place of its lower left corner, y up; nothing overlaps.

    A size that was sketched is kept where everything finds room in it, and is made larger where not.
    """
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
