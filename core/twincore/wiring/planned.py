"""What a wiring plan says: every wire, every pin that stays free, the traps, and the steps of the work."""

from collections import Counter
from dataclasses import dataclass
from typing import Literal, get_args

from twincore.wiring.choosing import Seat
from twincore.wiring.documents import Wire
from twincore.wiring.pins import Pin

JOINED = "joined"
"""The treatment of a wire that somebody joins with another; no plan does so by itself."""
TREATMENTS = ("straight", "adapter", "single", "new end", "tied back", "no")
Order = Literal["supply last", "as recorded"]
ORDERS: tuple[Order, ...] = get_args(Order)
FREE = ("link", "left open", "device missing", "unused")


@dataclass(frozen=True, slots=True)
class WirePlan:
    """One wire: how it is treated, from which pin to which, and what must be minded.

    `marks` are "polarity", "contact", "trap", "shared", "volts", "no place", "other contact", "unknown",
    "label"; "new device" is added where the device at its end is changed along with the board; "by hand" where somebody put it
    there, with what is unsound about that. `also` are further places that a link leads to.
    """

    wire: Wire
    treatment: str
    from_pin: Pin
    to_pin: Pin | None
    adapter: str | None
    carries: str | None
    marks: tuple[str, ...]
    also: tuple[Pin, ...] = ()
    joined: str | None = None
    """The wire that it is joined with."""

    @property
    def places(self) -> list[str]:
        """The places of the new board that it leads to."""
        return [each.place for each in (self.to_pin, *self.also) if each]


@dataclass(frozen=True, slots=True)
class FreePin:
    """A pin of the replacement without a wire, and what is done about it; `detail` is the profile's text of a link."""

    pin: Pin
    treatment: str
    detail: str


@dataclass(frozen=True, slots=True)
class Trap:
    """A plug that would go in but does not belong: the same housing with other pinning, and the pins that differ."""

    plug: str
    socket: str
    style: str
    pins: tuple[tuple[str, str | None, str | None], ...]


@dataclass(frozen=True, slots=True)
class Step:
    """One thing to do with one hand: a whole plug with its wires, one wire, or a link."""

    number: int
    kind: str
    wires: tuple[str, ...]
    plug: str | None
    place: str | None


@dataclass(frozen=True, slots=True)
class WiringPlan:
    """The whole plan; every wire and every pin of the replacement stands in it once."""

    wires: tuple[WirePlan, ...]
    free: tuple[FreePin, ...]
    traps: tuple[Trap, ...]
    seats: tuple[Seat, ...]
    steps: tuple[Step, ...]

    def counts(self) -> dict[str, int]:
        """How many wires get each treatment; they add up to all wires."""
        found = Counter(each.treatment for each in self.wires)
        return {name: found[name] for name in TREATMENTS} | ({JOINED: found[JOINED]} if found[JOINED] else {})

    def pin_counts(self) -> dict[str, int]:
        """How many pins of the replacement carry wires, and how many get each treatment of free ones."""
        wired = {place for each in self.wires for place in each.places}
        return {"wired": len(wired)} | {name: sum(each.treatment == name for each in self.free) for name in FREE}
