"""Printed words in a picture, as an engine read them."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Word:
    """A word with its place in pixels from the upper left, and how sure the engine is, from 0 to 1."""

    text: str
    left: float
    top: float
    width: float
    height: float
    confidence: float

    @property
    def middle(self) -> tuple[float, float]:
        """The middle of it."""
        return self.left + self.width / 2, self.top + self.height / 2
