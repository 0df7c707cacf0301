"""Read a switch bank from a picture: rectified from its four corners, each slider proposed with how sure that is.

A person always confirms. The corners are those of the field of slots, clockwise from the upper left as the bank is
read (position 1 at the left). Each slot's upper and lower half are compared: one is slider, the other empty slot.
"""

from collections.abc import Sequence

import numpy
from numpy.typing import NDArray
from PIL import Image

from twincore.recognise.picture import PlaceRead, PlacesRead, rectify

CELL = (40, 80)
"""Pixels of one slot in the rectified picture: width and height."""
INSIDE = 0.25
"""Share of a slot's width left out at each side, where its walls are."""
ENDS = 0.12
"""Share of a slot's height left out at each end and around the middle."""
UNSURE = 0.35
"""Share of the bank's usual contrast below which a place is not told."""
FAINTEST = 8.0
"""Contrast, of 255, below which a whole bank is not told."""


def read_bank(
    image: Image.Image,
    corners: Sequence[tuple[float, float]],
    places: int,
    on_side: str = "top",
    sliders: str = "light",
) -> PlacesRead:
    """The sliders of a bank of `places`; `on_side` is "top" or "bottom" as the bank is read, position 1 at the left.

    `sliders` says whether they are lighter or darker than their slots: a picture of two halves cannot tell. A place
    whose halves differ much less than those of the others is "?".
    """
    if places < 1 or on_side not in ("top", "bottom") or sliders not in ("light", "dark"):
        raise ValueError("expected at least one place, top or bottom for on, and light or dark sliders")
    flat = rectify(image, corners, (CELL[0] * places, CELL[1]))
    upper, lower = _halves(numpy.asarray(flat, dtype=float), places)
    usual = float(numpy.median(numpy.abs(upper - lower)))
    found = []
    for lean in upper - lower if sliders == "light" else lower - upper:
        confidence = min(abs(float(lean)) / usual, 1.0) if usual else 0.0
        sure = confidence >= UNSURE and usual >= FAINTEST
        mark = ("1" if (lean > 0) == (on_side == "top") else "0") if sure else "?"
        found.append(PlaceRead(mark, round(confidence if sure else min(confidence, UNSURE), 2)))
    return PlacesRead(tuple(found), flat)


def _halves(pixels: NDArray[numpy.float64], places: int) -> tuple[NDArray[numpy.float64], NDArray[numpy.float64]]:
    """The median brightness of the upper and the lower half of each slot."""
    width, height = CELL
    side, end = int(width * INSIDE), int(height * ENDS)
    middle = height // 2
    rows = []
    for place in range(places):
        cell = pixels[:, place * width + side : (place + 1) * width - side]
        rows.append((numpy.median(cell[end : middle - end // 2]), numpy.median(cell[middle + end // 2 : height - end])))
    halves = numpy.array(rows, dtype=float)
    return halves[:, 0], halves[:, 1]
