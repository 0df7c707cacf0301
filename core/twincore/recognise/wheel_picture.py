"""Read a row of thumbwheels from a picture: rectified from the four corners of its windows, each digit proposed.

A person always confirms. A window's ink is told from its ground by Otsu's threshold (N. Otsu, IEEE Transactions on
Systems, Man, and Cybernetics 9(1), 1979), brought to one size and compared with the ten digits of a plain typeface; a
wheel between two digits touches an edge of its window and is not told.
"""

from collections.abc import Sequence
from functools import cache

import numpy
from numpy.typing import NDArray
from PIL import Image, ImageDraw, ImageFilter, ImageFont

from twincore.recognise.picture import PlaceRead, PlacesRead, rectify

WINDOW = (48, 64)
"""Pixels of one window in the rectified picture: width and height."""
RIM = 4
"""Pixels left out all around, where the window's frame is."""
FACE = (16, 24)
"""Pixels to which a digit is brought: width and height."""
LEAST_LIKENESS = 0.55
LEAST_LEAD = 0.04
"""Correlation that the best digit must reach, and by how much it must lead, to be told."""
FAINTEST = 20.0
"""Difference, of 255, between ink and ground below which a window is not told."""

Pixels = NDArray[numpy.float64]


def read_wheels(
    image: Image.Image, corners: Sequence[tuple[float, float]], wheels: int, digits: str = "dark"
) -> PlacesRead:
    """The digits of `wheels` windows side by side, upright; `digits` says if they are darker or lighter than their ground.

    Raises ValueError for corners that make no field.
    """
    if wheels < 1 or digits not in ("light", "dark"):
        raise ValueError("expected at least one wheel, and light or dark digits")
    width, height = WINDOW
    flat = rectify(image, corners, (width * wheels, height))
    pixels = numpy.asarray(flat, dtype=float)
    found = []
    for place in range(wheels):
        window = pixels[RIM : height - RIM, place * width + RIM : (place + 1) * width - RIM]
        found.append(_wheel(window if digits == "dark" else 255 - window))
    return PlacesRead(tuple(found), flat)


def _wheel(window: Pixels) -> PlaceRead:
    face = _face(window)
    if face is None:
        return PlaceRead("?", 0.0)
    likeness = [max(float(numpy.mean(face * each)) for each in faces) for faces in _digits()]
    best, second = sorted(range(10), key=lambda digit: -likeness[digit])[:2]
    lead = likeness[best] - likeness[second]
    sure = likeness[best] >= LEAST_LIKENESS and lead >= LEAST_LEAD
    return PlaceRead(str(best) if sure else "?", round(min(1.0, max(0.0, likeness[best]) * min(1.0, lead / 0.2)), 2))


def _face(window: Pixels) -> Pixels | None:
    """The ink of a window (dark on light) at one size, its mean 0 and its spread 1; None where it is no whole digit."""
    threshold = _otsu(window)
    ink = window < threshold
    if not ink.any() or ink.all() or window[~ink].mean() - window[ink].mean() < FAINTEST:
        return None
    # a speck is no ink: a row or column counts from two pixels on
    rows, columns = (numpy.flatnonzero(ink.sum(axis=axis) >= 2) for axis in (1, 0))
    if not len(rows) or not len(columns):
        return None
    top, bottom, left, right = rows[0], rows[-1], columns[0], columns[-1]
    if top == 0 or bottom == len(window) - 1 or bottom - top < len(window) / 3:
        return None
    return _sized(Image.fromarray(numpy.where(ink, 255, 0)[top : bottom + 1, left : right + 1].astype("uint8")))


def _sized(digit: Image.Image) -> Pixels | None:
    """Ink brought to the common size by its height: a narrow digit stays narrow."""
    width = max(1, min(FACE[0], round(digit.width * FACE[1] / digit.height)))
    face = Image.new("L", FACE, 0)
    face.paste(digit.resize((width, FACE[1]), Image.Resampling.BILINEAR), ((FACE[0] - width) // 2, 0))
    values = numpy.asarray(face.filter(ImageFilter.GaussianBlur(1.2)), dtype=float)
    spread = values.std()
    return (values - values.mean()) / spread if spread else None


@cache
def _digits() -> tuple[tuple[Pixels, ...], ...]:
    """The faces of each digit: the typeface's, and a one that is a mere stroke."""
    font = ImageFont.load_default(48)
    stroke = _sized(Image.new("L", (8, 48), 255))
    found = []
    for digit in "0123456789":
        image = Image.new("L", (60, 80), 0)
        ImageDraw.Draw(image).text((10, 10), digit, fill=255, font=font, stroke_width=1)
        face = _sized(image.crop(image.getbbox()))
        assert face is not None  # every digit of the typeface has ink
        found.append((face, stroke) if digit == "1" and stroke is not None else (face,))
    return tuple(found)


def _otsu(window: Pixels) -> float:
    """The brightness that parts a window best in two: greatest variance between the parts."""
    counts, edges = numpy.histogram(window, bins=64, range=(0, 256))
    middles = (edges[:-1] + edges[1:]) / 2
    below = numpy.cumsum(counts)
    above = below[-1] - below
    sums = numpy.cumsum(counts * middles)
    with numpy.errstate(divide="ignore", invalid="ignore"):
        between = below * above * (sums / below - (sums[-1] - sums) / above) ** 2
    return float(edges[int(numpy.nanargmax(numpy.where((below > 0) & (above > 0), between, -1))) + 1])
