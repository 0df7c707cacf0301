"""A part of a picture as a rectangle, and what was read in it place by place."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import hypot

import numpy
from PIL import Image

SMALLEST_PX = 6
"""Corners nearer to each other than this make no field."""


@dataclass(frozen=True, slots=True)
class PlaceRead:
    """One place: its mark as a record writes it, "?" where it cannot be told; `confidence` from 0 to 1."""

    mark: str
    confidence: float


@dataclass(frozen=True, slots=True)
class PlacesRead:
    """What was seen: one mark a place, from the left, and the rectified picture."""

    places: tuple[PlaceRead, ...]
    rectified: Image.Image

    @property
    def written(self) -> str:
        """As a record writes it."""
        return "".join(place.mark for place in self.places)


def rectify(image: Image.Image, corners: Sequence[tuple[float, float]], size: tuple[int, int]) -> Image.Image:
    """A four-cornered part of a picture as a rectangle. Raises ValueError for corners that make no such part."""
    _check(corners)
    width, height = size
    target = [(0, 0), (width, 0), (width, height), (0, height)]
    rows, right = [], []
    for (x, y), (u, v) in zip(target, corners, strict=True):
        rows += [[x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]]
        right += [u, v]
    try:
        found = numpy.linalg.solve(numpy.array(rows, float), numpy.array(right, float))
    except numpy.linalg.LinAlgError as error:
        raise ValueError("expected four corners of one field") from error
    return image.convert("L").transform(size, Image.Transform.PERSPECTIVE, tuple(found), Image.Resampling.BILINEAR)


def _check(corners: Sequence[tuple[float, float]]) -> None:
    if len(corners) != 4:
        raise ValueError("expected four corners")
    turns = []
    for index in range(4):
        (ax, ay), (bx, by), (cx, cy) = (corners[(index + step) % 4] for step in range(3))
        if hypot(bx - ax, by - ay) < SMALLEST_PX:
            raise ValueError("expected corners that lie apart")
        turns.append((bx - ax) * (cy - by) - (by - ay) * (cx - bx))
    if not all(turn > 0 for turn in turns):
        raise ValueError("expected corners in order, clockwise from the upper left")
