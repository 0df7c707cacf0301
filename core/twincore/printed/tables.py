"""A ruled table in a picture: its lines are followed across it, and each word goes into the cell in which its middle stands.

Lines are looked for in strips, so that a page photographed at an angle still gives its cells.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy
from numpy.typing import NDArray
from PIL import Image, ImageDraw
from scipy import ndimage

from twincore.printed.words import Word

STRIPS = 14
LEAN = 10
"""Pixels by which a line may wander from one strip to the next."""
SEEN = 0.6
"""Share of the strips between the table's ends in which a line must be seen."""
MOST_CELLS = 4_000
Ink = NDArray[numpy.bool_]


@dataclass(frozen=True, slots=True)
class Line:
    """A line followed through strips: where it stands across, at middles of strips along it (pixels)."""

    along: tuple[float, ...]
    across: tuple[float, ...]

    def at(self, along: float) -> float:
        """Where it stands at a place along it."""
        return float(numpy.interp(along, self.along, self.across))


@dataclass(frozen=True, slots=True)
class Ruled:
    """The lines of a table: level ones from the top, upright ones from the left."""

    level: tuple[Line, ...]
    upright: tuple[Line, ...]

    @property
    def found(self) -> bool:
        """Whether these lines make a table of at least two by two cells."""
        cells = (len(self.level) - 1) * (len(self.upright) - 1)
        return len(self.level) > 2 and len(self.upright) > 2 and cells <= MOST_CELLS

    def cell(self, x: float, y: float) -> tuple[int, int] | None:
        """The row and column in which a place lies; None for one outside the table."""
        row = sum(line.at(x) < y for line in self.level) - 1
        column = sum(line.at(y) < x for line in self.upright) - 1
        inside = 0 <= row < len(self.level) - 1 and 0 <= column < len(self.upright) - 1
        return (row, column) if inside else None


def ruled_lines(image: Image.Image) -> Ruled:
    """The lines of a table in a picture that is prepared: dark print on white, nearly straight."""
    ink = numpy.asarray(image, dtype=float) < 165
    return Ruled(tuple(_followed(ink)), tuple(_followed(ink.T)))


def without_lines(image: Image.Image, ruled: Ruled, thick: int = 9) -> Image.Image:
    """The picture with the table's lines painted over, so that an engine does not read them as letters."""
    clean = image.copy()
    draw = ImageDraw.Draw(clean)
    for line in ruled.level:
        draw.line(list(zip(line.along, line.across, strict=True)), 255, thick)
    for line in ruled.upright:
        draw.line(list(zip(line.across, line.along, strict=True)), 255, thick)
    return clean


def cells_of(ruled: Ruled, words: Sequence[Word]) -> list[list[str]]:
    """The text of every cell, row by row; words of a cell from the left."""
    rows: list[list[list[Word]]] = [[[] for _ in ruled.upright[1:]] for _ in ruled.level[1:]]
    for word in words:
        if (place := ruled.cell(*word.middle)) is not None:
            rows[place[0]][place[1]].append(word)
    return [[" ".join(w.text for w in sorted(cell, key=lambda w: w.left)) for cell in row] for row in rows]


def column_strip(image: Image.Image, ruled: Ruled, column: int) -> tuple[Image.Image, tuple[float, float]]:
    """The part of a picture that a column covers, below its heading; and where its upper left corner stands."""
    left, right = ruled.upright[column], ruled.upright[column + 1]
    box = (
        min(left.across) + 4, min(ruled.level[1].across), max(right.across) - 4, max(ruled.level[-1].across),
    )  # fmt: skip
    strip = image.crop(tuple(round(each) for each in box))  # type: ignore[arg-type]
    # what stands in the neighbours is none of this column's
    draw = ImageDraw.Draw(strip)
    for line, outer in ((left, 0), (right, strip.width)):
        edge = [(x - box[0], y - box[1]) for y, x in zip(line.along, line.across, strict=True)]
        draw.polygon([*edge, (outer, edge[-1][1]), (outer, edge[0][1])], 255)
    return strip, (box[0], box[1])


def _followed(ink: Ink) -> list[Line]:
    """Lines that run across a picture from left to right, from the top."""
    width = ink.shape[1]
    edges = numpy.linspace(0, width, STRIPS + 1).astype(int)
    middles = [float(a + b) / 2 for a, b in pairwise(edges)]
    peaks = [_peaks(ink[:, a:b]) for a, b in pairwise(edges)]
    tracks: list[dict[int, float]] = []
    for strip, found in enumerate(peaks):
        for peak in found:
            near = [
                t for t in tracks if strip - max(t) <= 2 and strip not in t and abs(_ahead(t, strip) - peak) <= LEAN
            ]
            if near:
                min(near, key=lambda t: abs(_ahead(t, strip) - peak))[strip] = peak
            else:
                tracks.append({strip: peak})
    longest = max((len(each) for each in tracks), default=0)
    lines = []
    for track in tracks:
        if len(track) >= max(3, longest * SEEN):
            strips = sorted(track)
            lines.append(_reaching([middles[s] for s in strips], [track[s] for s in strips], width))
    return sorted(lines, key=lambda line: line.at(width / 2))


def _ahead(track: dict[int, float], strip: int) -> float:
    """Where a track is expected in a strip: it goes on as it went."""
    seen = sorted(track)[-4:]
    if len(seen) < 3:
        return track[seen[-1]]
    slope, base = numpy.polyfit(seen, [track[each] for each in seen], 1)
    return float(slope * strip + base)


def _reaching(along: list[float], across: list[float], end: int) -> Line:
    """A line through its strips, drawn out to where the table may end: straight, as far as it is seen to be."""
    slope, base = numpy.polyfit(along, across, 1)
    more = end / STRIPS  # it may end anywhere in the next strip
    before, after = along[0] - more, along[-1] + more
    first, last = slope * before + base, slope * after + base
    return Line((max(0.0, before), *along, min(float(end), after)), (first, *across, last))


def _peaks(strip: Ink) -> list[float]:
    """Where a strip is crossed by a line: rows that are ink nearly all the way."""
    width = strip.shape[1]
    # a line that leans touches several rows: any of three neighbours counts
    thick = ndimage.binary_dilation(strip, numpy.ones((3, 1), dtype=bool))
    share = thick.sum(axis=1) / width
    labels, count = ndimage.label(share > 0.62)
    found = []
    for number in range(1, count + 1):
        rows = numpy.nonzero(labels == number)[0]
        if len(rows) <= 16:
            found.append(float(numpy.average(rows, weights=share[rows])))
    return found
