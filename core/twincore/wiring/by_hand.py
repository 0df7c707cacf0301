"""Wires that somebody puts by hand: onto another place than the plan would, tied back, joined with another, or through a lead."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

from twincore.wiring.choosing import Seat
from twincore.wiring.documents import Wire, WiringRecord
from twincore.wiring.pins import Pin, Plug

Unsound = Literal["other signal", "volts", "other contact", "two outputs", "full"]
"""What is wrong with a place for a wire: it carries something else, at another voltage, it is the other contact of a relay, another
output is on it already, or more wires than it holds."""


@dataclass(frozen=True, slots=True)
class Placed:
    """Where somebody puts one wire: onto places of the new board (the first takes the wire, a link leads on to the others), onto the
    place of another wire, or, with neither, tied back.
    """

    to: tuple[str, ...] = ()
    joined: str | None = None
    """The id of the wire that it is joined with."""
    lead: str = ""
    """What lies between, in the words of whoever put it: a lead of the data sheet."""


@dataclass(frozen=True, slots=True)
class ByHand:
    """All that somebody put by hand: wires by their ids, and plugs that go complete onto a socket, pin by pin of the same name."""

    wires: Mapping[str, Placed] = field(default_factory=dict)
    plugs: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Put:
    """One wire as it was put: its place, further places of the same wire, and what is unsound about it."""

    wire: Wire
    pin: Pin | None
    also: tuple[Pin, ...]
    lead: str
    joined: str | None
    unsound: tuple[Unsound, ...]


def seats_by_hand(said: ByHand, record: WiringRecord, new: Mapping[str, Plug]) -> list[Seat]:
    """The plugs that somebody puts complete onto a socket that has a pin of every name that carries a wire."""
    found = []
    for plug, socket in said.plugs.items():
        wires = [each for each in record.wires if each.connector == plug and each.id not in said.wires]
        pins = new[socket].pins if socket in new else {}
        if wires and all(each.pin in pins for each in wires):
            found.append(Seat((plug,), (socket,), None, {each.id: pins[each.pin] for each in wires}))
    return found


def put_by_hand(
    said: ByHand, record: WiringRecord, carried: Mapping[str, tuple[Pin, str | None]], new: Mapping[str, Plug]
) -> dict[str, Put]:
    """Every wire that somebody put, by its id; `carried` gives each wire's old pin and what it carries.

    A wire whose place is not on the new board, or that is joined with one that has none, is left to the plan.
    """
    pins = {pin.place: pin for plug in new.values() for pin in plug.pins.values()}
    wires = {each.id: each for each in record.wires}
    put = {
        wire: served for seat in seats_by_hand(said, record, new) for wire, served in seat.serves.items()
    }  # fmt: skip
    also: dict[str, tuple[Pin, ...]] = {}
    tied: set[str] = set()
    for name, placed in said.wires.items():
        if name in wires and not placed.joined and all(place in pins for place in placed.to):
            if placed.to:
                put[name], also[name] = pins[placed.to[0]], tuple(pins[place] for place in placed.to[1:])
            else:
                tied.add(name)
    for name, placed in said.wires.items():
        if name in wires and placed.joined in put and placed.joined != name:
            put[name] = put[placed.joined]
    onto: dict[str, list[str]] = {}
    for name, pin in put.items():
        if name not in said.wires or not said.wires[name].joined:
            onto.setdefault(pin.place, []).append(name)
    found = {name: Put(wires[name], None, (), "", None, ()) for name in tied}
    for name, pin in put.items():
        placed = said.wires.get(name, Placed())
        others = [carried[other] for other in onto.get(pin.place, ()) if other != name]
        wrong = [
            *_unsound(*carried[name], pin, others, None if placed.joined else len(onto[pin.place])),
            *(code for each in also.get(name, ()) for code in _unsound(*carried[name], each, (), 1)),
        ]
        found[name] = Put(wires[name], pin, also.get(name, ()), placed.lead, placed.joined, tuple(dict.fromkeys(wrong)))
    return found


def _unsound(
    old: Pin, carries: str | None, pin: Pin, others: Sequence[tuple[Pin, str | None]], count: int | None
) -> Iterator[Unsound]:
    """What is wrong with a place for a wire; what nobody knows is not held against it."""
    if (
        carries is not None
        and pin.carries is not None
        and carries != pin.carries
        and not (old.by_label or pin.by_label)
    ):
        yield "other signal"
    if old.volts_class is not None and pin.volts_class is not None and old.volts_class != pin.volts_class:
        yield "volts"
    if old.contact is not None and pin.contact is not None and old.contact != pin.contact:
        yield "other contact"
    if old.group == "output" and any(each.group == "output" and what != carries for each, what in others):
        yield "two outputs"
    if count is not None and count > pin.holds:
        yield "full"
