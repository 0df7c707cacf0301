"""Wires that somebody puts by hand: onto another place than the plan would, tied back, joined with another, or through a lead."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal, get_args

from twincore.wiring.choosing import Seat
from twincore.wiring.documents import WiringRecord
from twincore.wiring.pins import Pin, Plug
from twincore.wiring.planned import WirePlan

Unsound = Literal["other signal", "volts", "other contact", "two outputs", "two signals", "full"]
"""What is wrong with a place for a wire: it carries something else, at another voltage, it is the other contact of a relay; two
outputs, or other things that differ, would be joined there; or more wires are on it than it holds."""
UNSOUND: tuple[Unsound, ...] = get_args(Unsound)


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
    """One wire as it was put: its places, none where it is tied back; or the wire that it is joined with, wherever that goes."""

    pins: tuple[Pin, ...] = ()
    lead: str = ""
    joined: str | None = None
    whole: bool = False
    """Whether it stays in its plug."""


def seats_by_hand(said: ByHand, record: WiringRecord, new: Mapping[str, Plug]) -> list[Seat]:
    """The plugs that somebody puts complete onto a socket that has a pin of every name that carries a wire."""
    found = []
    for plug, socket in said.plugs.items():
        wires = [each for each in record.wires if each.connector == plug and each.id not in said.wires]
        pins = new[socket].pins if socket in new else {}
        if wires and all(each.pin in pins for each in wires):
            found.append(Seat((plug,), (socket,), None, {each.id: pins[each.pin] for each in wires}))
    return found


def put_by_hand(said: ByHand, record: WiringRecord, new: Mapping[str, Plug], seats: Sequence[Seat]) -> dict[str, Put]:
    """Every wire that somebody put, by its id. One whose place is not on the new board, or that is joined with none, is left to the
    plan.
    """
    pins = {pin.place: pin for plug in new.values() for pin in plug.pins.values()}
    found = {wire: Put((pin,), whole=True) for seat in seats for wire, pin in seat.serves.items()}
    wires = {each.id for each in record.wires}
    for name in wires & said.wires.keys():
        placed = said.wires[name]
        if placed.joined is not None:
            if (root := _root(said, name)) in wires:
                found[name] = Put(joined=root)
        elif all(place in pins for place in placed.to):
            found[name] = Put(tuple(pins[place] for place in placed.to), placed.lead)
    return found


def _root(said: ByHand, name: str) -> str | None:
    """The wire that a joined one hangs on in the end; None where they are joined in a ring."""
    seen = [name]
    while (placed := said.wires.get(seen[-1])) is not None and placed.joined is not None:
        if placed.joined in seen:
            return None
        seen.append(placed.joined)
    return seen[-1]


def unsound(each: WirePlan, planned: Sequence[WirePlan]) -> tuple[Unsound, ...]:
    """What is unsound about where somebody put a wire, among all wires; what nobody knows is not held against it."""
    return tuple(dict.fromkeys(_unsound(each, planned)))


def _unsound(each: WirePlan, planned: Sequence[WirePlan]) -> Iterator[Unsound]:
    old, ends = each.from_pin, [pin for pin in (each.to_pin, *each.also) if pin]
    for pin in ends:
        if None not in (each.carries, pin.carries) and each.carries != pin.carries:
            yield "other signal"
        if _other_volts(old, pin):
            yield "volts"
        if None not in (old.contact, pin.contact) and old.contact != pin.contact:
            yield "other contact"
        beside = [other for other in planned if other is not each and pin.place in other.places]
        for other in beside:
            yield from _together(old, each.carries, other.from_pin, other.carries)
        if not each.joined and 1 + sum(not other.joined for other in beside) > pin.holds:
            yield "full"
    for pin in ends[1:]:
        yield from _together(ends[0], ends[0].carries, pin, pin.carries)


def _together(one: Pin, carries: str | None, other: Pin, its: str | None) -> Iterator[Unsound]:
    """What is wrong with two things on one conductor."""
    if None not in (carries, its) and carries != its:
        yield "two outputs" if one.group == other.group == "output" else "two signals"
    if _other_volts(one, other):
        yield "volts"


def _other_volts(one: Pin, other: Pin) -> bool:
    return None not in (one.volts_class, other.volts_class) and one.volts_class != other.volts_class
