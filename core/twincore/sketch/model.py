"""What a sketch holds: what can be set, the plugs, and what else is seen; what nobody could tell stays a doubt."""

from dataclasses import dataclass
from typing import Literal

from twincore.profile import KINDS

Way = Literal["up", "down", "left", "right"]
End = Literal["left", "right", "top", "bottom"]
COLOURS = ("green", "blue", "brown", "black", "white", "red")
PARTS = ("lamp", "button", "fuse", "display")
MOST_ELEMENTS, MOST_PLUGS, MOST_PINS, MOST_RELAYS = 40, 40, 60, 20


@dataclass(frozen=True, slots=True)
class SketchedElement:
    """Something to be set. `places` counts the switches of a bank, the wheels of a row, the places of a code.

    `values` are what any other kind may stand at, in their order. `on` is the way in which a switch that is on points,
    and `first` the end at which number 1 is, as the board hangs; None where nobody could tell. `unit` and `span`
    (lowest, highest, step) belong to a parameter.
    """

    id: str
    kind: str
    places: int = 1
    values: tuple[str, ...] = ()
    on: Way | None = None
    first: End | None = None
    unit: str = ""
    span: tuple[float, float, float] | None = None

    @property
    def upright(self) -> bool:
        """Whether its places run from top to bottom as it hangs."""
        return self.on in ("left", "right") or self.first in ("top", "bottom")


@dataclass(frozen=True, slots=True)
class SketchedPlug:
    """A plug with its pins, numbered from 1; `keyed` is None where nobody looked; `marks` are printed at its first pins."""

    id: str
    pins: int
    keyed: bool | None = None
    marks: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Sketch:
    """A board as it was sketched: what can be set, its plugs, and what else can be seen of it."""

    elements: tuple[SketchedElement, ...] = ()
    plugs: tuple[SketchedPlug, ...] = ()
    parts: tuple[str, ...] = ()
    relays: int = 0
    colour: str | None = None
    size_mm: tuple[float, float] | None = None
    picture: tuple[float, float] | None = None
    """How wide and high the picture is under which it lies, in any unit; None where it lies over none."""
    places: tuple[tuple[str, float, float], ...] = ()
    """Where the middle of a part is in that picture, in per cent from the left and from the top."""


@dataclass(frozen=True, slots=True)
class Doubt:
    """What nobody could tell of a part of the sketch."""

    of: str
    what: Literal["on", "first", "keyed", "factory"]


def doubts_of(sketch: Sketch) -> list[Doubt]:
    """Everything that stays to be looked at: which way is on, where number 1 is, whether a plug is keyed, and how it was made."""
    found = []
    for element in sketch.elements:
        if KINDS[element.kind].on_off:
            found += [Doubt(element.id, "on")] if element.on is None else []
            found += [Doubt(element.id, "first")] if element.first is None and element.places > 1 else []
        found.append(Doubt(element.id, "factory"))
    return found + [Doubt(plug.id, "keyed") for plug in sketch.plugs if plug.keyed is None]
