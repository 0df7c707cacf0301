"""A picture made ready for an engine that reads print: evenly lit, turned straight, letters large enough and dark.

The angle is found by the projection profile: rows of print give the sharpest profile when they lie level (Postl 1986,
"Detection of linear oblique structures and skew scan in digitized documents"; from memory).
"""

from dataclasses import dataclass

import numpy
from numpy.typing import NDArray
from PIL import Image, ImageOps
from scipy import ndimage

Pixels = NDArray[numpy.float64]

LARGEST_TURN = 8.0
"""Degrees to either side within which a picture is turned straight."""
WANTED_WIDTH = 2000
"""Pixels: a smaller picture is made this wide, so that small print has some twenty pixels a letter."""


@dataclass(frozen=True, slots=True)
class Prepared:
    """The picture ready to be read, dark print on white; `turned` is by how many degrees, anticlockwise, it was turned."""

    image: Image.Image
    turned: float


def prepare(image: Image.Image, wanted_width: int = WANTED_WIDTH) -> Prepared:
    """A picture of a board, plate or leaflet ready to be read."""
    gray = ImageOps.exif_transpose(image).convert("L")
    scale = max(1.0, wanted_width / gray.width)
    if scale > 1:
        gray = gray.resize((round(gray.width * scale), round(gray.height * scale)), Image.Resampling.BICUBIC)
    even = evenly_lit(numpy.asarray(gray, dtype=float))
    angle = skew_of(even)
    flat = Image.fromarray(even.astype("uint8"))
    if abs(angle) > 0.05:
        flat = flat.rotate(angle, Image.Resampling.BICUBIC, expand=True, fillcolor=255)
    return Prepared(flat, angle)


def evenly_lit(pixels: Pixels) -> Pixels:
    """The picture without its shades: each pixel against the ground around it; light print on dark comes out dark on white."""
    near = max(pixels.shape) / 40
    ground = ndimage.gaussian_filter(ndimage.median_filter(pixels[::4, ::4], size=9), near / 4)
    ground = numpy.asarray(Image.fromarray(ground).resize(pixels.shape[::-1], Image.Resampling.BILINEAR), dtype=float)
    apart = ndimage.gaussian_filter(pixels, 0.8) - ground
    # what stands out is print, whichever way it does
    if abs(numpy.percentile(apart, 99.5)) > abs(numpy.percentile(apart, 0.5)):
        apart = -apart
    strong = max(12.0, -float(numpy.percentile(apart, 1.0)))
    even: Pixels = numpy.clip(255 + apart / strong * 230, 0, 255)
    return even


def skew_of(pixels: Pixels) -> float:
    """By how many degrees, anticlockwise, a picture must be turned so that its rows of print lie level."""
    small = 255 - pixels[:: max(1, pixels.shape[0] // 700), :: max(1, pixels.shape[1] // 700)]
    best = 0.0
    for span, step in ((LARGEST_TURN, 1.0), (1.0, 0.25), (0.25, 0.05)):
        around = numpy.arange(best - span, best + span + step / 2, step)
        around = around[numpy.abs(around) <= LARGEST_TURN]
        best = float(max(around, key=lambda angle: _sharpness(small, angle)))
    return best


def _sharpness(ink: Pixels, angle: float) -> float:
    """How much rows of a turned picture differ from each other; sheared instead of turned, which is quicker."""
    height, width = ink.shape
    shift = numpy.round(numpy.arange(width) * numpy.tan(numpy.radians(angle))).astype(int)
    rows = numpy.zeros(height + abs(shift).max() * 2 + 1)
    base = abs(shift).max()
    for column in range(0, width, 2):
        # turning anticlockwise lifts what lies to the right
        at = base - shift[column]
        rows[at : at + height] += ink[:, column]
    return float(numpy.var(numpy.diff(rows)))
