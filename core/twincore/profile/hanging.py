"""How an element hangs in the machine: along which way its places run as one looks at it, and where on is."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal, TypeVar

from twincore.profile.board import Board

Axis = Literal["across", "down"]
Way = Literal["up", "down", "left", "right"]
Place = TypeVar("Place")

SIDES = ("top", "left", "bottom", "right")
"""Anticlockwise, so that a turn by 90 degrees is one step."""
WAYS: dict[str, Way] = {"top": "up", "bottom": "down", "left": "left", "right": "right"}


@dataclass(frozen=True, slots=True)
class Hanging:
    """Places run `across` (left to right) or `down` (top to bottom) as seen; `backwards` where place 1 is seen last.

    `on` is the way in which a slider that is on points, as seen.
    """

    axis: Axis = "across"
    backwards: bool = False
    on: Way = "up"
    known: bool = True
    """Whether the layout says where on is and where place 1; else it is drawn the usual way, and nobody should trust it."""

    def seen(self, places: Sequence[Place]) -> list[Place]:
        """What stands at the places 1, 2, … in the order in which the eye meets them; or back."""
        return list(places[::-1] if self.backwards else places)

    def points(self, mark: str) -> Way | None:
        """The way in which a slider with this mark points as seen; None for one that nobody could read."""
        opposite: dict[Way, Way] = {"up": "down", "down": "up", "left": "right", "right": "left"}
        return {"1": self.on, "0": opposite[self.on]}.get(mark)


def hanging_of(board: Board, element: str) -> Hanging:
    """How an element hangs, by the board's layout; as if straight where the layout does not say.

    `on_side` and `first` are as seen with the board in the machine; where they cannot be (top and bottom of what is
    turned upright), they are the element's own, and turned with it.
    """
    laid = board.document.get("layout", ())
    placed: Mapping[str, Any] = next((each for each in laid if each["ref"] == element), {})
    quarters = round(float(placed.get("turn", 0)) / 90) % 4
    upright = quarters % 2 == 1
    axis: Axis = "down" if upright else "across"
    on = _as_seen(placed.get("on_side"), "top", quarters, ("left", "right") if upright else ("top", "bottom"))
    first = _as_seen(placed.get("first"), "left", quarters, ("top", "bottom") if upright else ("left", "right"))
    return Hanging(axis, first in ("right", "bottom"), WAYS[on], {"on_side", "first"} <= set(placed))


def _as_seen(side: str | None, usual: str, quarters: int, possible: tuple[str, str]) -> str:
    """The side that is meant as seen: what is said where that can be, else the element's own side turned with it."""
    if side in possible:
        return side
    return SIDES[(SIDES.index(side or usual) + quarters) % 4]
