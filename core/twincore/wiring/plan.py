"""The wiring plan: where every wire of the original goes, what is put on the pins that stay free, in which order."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from twincore.profile import Board, Family
from twincore.wiring.assigning import assign
from twincore.wiring.choosing import Seat, agrees, choose, seats
from twincore.wiring.documents import Adapter, Wire, WiringRecord
from twincore.wiring.pins import Pin, Plug, known_by_label, known_by_place, plugs_of

TREATMENTS = ("straight", "adapter", "single", "new end", "tied back", "no")
Order = Literal["supply last", "as recorded"]
ORDERS: tuple[Order, ...] = get_args(Order)
Handled = tuple[str, "Pin | None", tuple[str, ...]]
"""Treatment, new pin and marks of one wire."""
LINK = re.compile(r"link to (\w+(?:\.\w+)?)")
FREE = ("link", "left open", "device missing", "unused")


@dataclass(frozen=True, slots=True)
class WirePlan:
    """One wire: how it is treated, from which pin to which, and what must be minded.

    `marks` are "polarity", "contact", "trap", "shared", "volts", "no place", "other contact", "unknown",
    "label"; "new device" is added where the device at its end is changed along with the board.
    """

    wire: Wire
    treatment: str
    from_pin: Pin
    to_pin: Pin | None
    adapter: str | None
    carries: str | None
    marks: tuple[str, ...]


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
        return {name: sum(each.treatment == name for each in self.wires) for name in TREATMENTS}

    def pin_counts(self) -> dict[str, int]:
        """How many pins of the replacement carry wires, and how many get each treatment of free ones."""
        wired = {each.to_pin.place for each in self.wires if each.to_pin}
        return {"wired": len(wired)} | {name: sum(each.treatment == name for each in self.free) for name in FREE}


def carry_wires(
    original: Board, record: WiringRecord, replacement: Board, family: Family,
    adapters: Sequence[Adapter] = (), order: str = "supply last",
) -> WiringPlan:  # fmt: skip
    """Carry the wires of an original over to a replacement: by signal, never by place or colour.

    Whole plugs where every used pin agrees, adapters so that the fewest wires are left and the fewest adapters used,
    then single wires, new ends, and what has no place is tied back. On the very same board again every wire has its
    own place, whether anybody knows what it carries or not. Raises LimitError beyond the choice's limit.
    """
    old, new = plugs_of(original, family), plugs_of(replacement, family)
    if original.part_number == replacement.part_number:
        old = new = known_by_place(new)
    else:
        old, new = known_by_label(old, new), known_by_label(new, old)
    on: dict[str, list[tuple[Wire, str | None]]] = {}
    for wire in record.wires:
        on.setdefault(wire.connector, []).append((wire, carried(wire, old[wire.connector].pins[wire.pin])))
    options = seats(old, new, {name: each for name, each in on.items() if name not in record.one_by_one}, adapters)
    chosen = choose(options, {each.id: each.count for each in adapters})
    served = {name: (seat, pin) for seat in chosen for name, pin in seat.serves.items()}
    traps = _traps(old, new, on)
    by_hand = _by_hand(record, old, new, {pin.place for _, pin in served.values()}, set(served))
    in_trap = {trap.plug for trap in traps}
    planned = []
    for wire in record.wires:
        pin = old[wire.connector].pins[wire.pin]
        carries = carried(wire, pin)
        if wire.id in served:
            seat, target = served[wire.id]
            treatment, adapter = ("adapter", seat.adapter.id) if seat.adapter else ("straight", None)
            marks: tuple[str, ...] = ()
            to: Pin | None = target
        else:
            treatment, to, marks = by_hand[wire.id]
            adapter = None
            if wire.connector in in_trap:
                marks = (*marks, "trap")
        planned.append(WirePlan(wire, treatment, pin, to, adapter, carries, (*_minded(pin, to), *marks)))
    free = _free(new, planned)
    return WiringPlan(tuple(planned), free, traps, tuple(chosen), _ordered(planned, free, chosen, order))


def carried(wire: Wire, pin: Pin) -> str | None:
    """What a wire carries: by the pin that it was on, or, where that was found to be wrong or nobody knows, by where it goes."""
    by_wire = wire.carry_by == "wire" or pin.carries is None or pin.by_label
    return wire.signal if by_wire and wire.signal is not None else pin.carries


def _traps(
    old: Mapping[str, Plug], new: Mapping[str, Plug], on: Mapping[str, Sequence[tuple[Wire, str | None]]]
) -> tuple[Trap, ...]:
    found = []
    for name, wires in on.items():
        for socket in new.values():
            if old[name].style is None or socket.style != old[name].style:
                continue
            wrong = tuple(
                (wire.pin, carries, pin.carries if pin else None)
                for wire, carries in wires
                for pin in (socket.pins.get(wire.pin),)
                if pin is None or carries is None or not agrees(old[name].pins[wire.pin], carries, pin)
            )
            if wrong:
                found.append(Trap(name, socket.id, socket.style or "", wrong))
    return tuple(found)


def _by_hand(
    record: WiringRecord, old: Mapping[str, Plug], new: Mapping[str, Plug], taken: set[str], served: set[str]
) -> dict[str, Handled]:
    """The treatment of every wire that no plug or adapter serves; wires that carry the same are assigned together."""
    by_signal: dict[str, list[Pin]] = {}
    for plug in new.values():
        for pin in plug.pins.values():
            if pin.carries is not None:
                by_signal.setdefault(pin.carries, []).append(pin)
    alike: dict[str, list[Wire]] = {}
    found: dict[str, Handled] = {}
    for wire in record.wires:
        pin = old[wire.connector].pins[wire.pin]
        carries = carried(wire, pin)
        if wire.id in served:
            continue
        pins = by_signal.get(carries, []) if carries is not None else []
        if carries is None or not any(agrees(pin, carries, each) for each in pins):
            found[wire.id] = _without_place(pin, pins, carries)
        else:
            alike.setdefault(carries, []).append(wire)
    for carries, wires in alike.items():
        places = [pin for pin in by_signal[carries] for _ in range(pin.holds - (pin.place in taken))]
        found |= _assigned(wires, places, by_signal[carries], carries, old, new)
    return found


def _assigned(
    wires: Sequence[Wire], places: Sequence[Pin], all_pins: Sequence[Pin], carries: str,
    old: Mapping[str, Plug], new: Mapping[str, Plug],
) -> dict[str, Handled]:  # fmt: skip
    """Wires of one signal onto its free places: fewest sharing one, then fewest new ends, then in order."""
    fits = [[_fit(wire, place, carries, old, new) for place in places] for wire in wires]
    found: dict[str, Handled] = {}
    for wire, fit, index in zip(wires, fits, assign(fits), strict=True):
        if index is not None:
            found[wire.id] = ("single" if fit[index] else "new end", places[index], ())
            continue
        pin = old[wire.connector].pins[wire.pin]
        found[wire.id] = ("new end", next(each for each in all_pins if agrees(pin, carries, each)), ("shared",))
    return found


def _fit(wire: Wire, place: Pin, carries: str, old: Mapping[str, Plug], new: Mapping[str, Plug]) -> bool | None:
    """Whether a wire's end fits a place; None where it must not go there."""
    plug = old[wire.connector]
    if not agrees(plug.pins[wire.pin], carries, place):
        return None
    target = new[place.connector]
    ends = {each for each in (wire.end, plug.style) if each}
    return bool(ends & (target.takes | ({target.style} if target.style else set())))


def _without_place(pin: Pin, pins: Sequence[Pin], carries: str | None) -> Handled:
    if carries is None:
        return "tied back", None, ("unknown",)
    if not pins:
        return "tied back", None, ("no place",)
    volts = all(
        pin.volts_class is not None and each.volts_class is not None and pin.volts_class != each.volts_class
        for each in pins
    )
    return "no", None, ("volts" if volts else "other contact",)


def _minded(pin: Pin, to: Pin | None) -> tuple[str, ...]:
    marks = []
    if pin.polarity or (to and to.polarity):
        marks.append("polarity")
    if pin.contact or (to and to.contact):
        marks.append("contact")
    if to and (pin.by_label or to.by_label):
        marks.append("label")
    return tuple(marks)


def _free(new: Mapping[str, Plug], planned: Sequence[WirePlan]) -> tuple[FreePin, ...]:
    wired = {each.to_pin.place for each in planned if each.to_pin}
    signals = {each.to_pin.carries for each in planned if each.to_pin}
    linked = {
        _other_end(pin): pin
        for plug in new.values() for pin in plug.pins.values() if pin.without_device and pin.place not in wired
    }  # fmt: skip
    found = []
    for plug in new.values():
        for pin in plug.pins.values():
            if pin.place in wired:
                continue
            if (near := linked.get(pin.place)) and not pin.without_device:
                found.append(FreePin(pin, "link", f"link to {near.pin if near.connector == plug.id else near.place}"))
                continue
            if pin.carries is None or pin.by_label:
                found.append(FreePin(pin, "unused", ""))
            elif pin.without_device:
                found.append(FreePin(pin, "link", pin.without_device))
            elif pin.optional or pin.carries in signals:
                found.append(FreePin(pin, "left open", ""))
            else:
                found.append(FreePin(pin, "device missing", ""))
    return tuple(found)


def _other_end(pin: Pin) -> str | None:
    """The place at the other end of a pin's link, where its profile names it: "link to 4", "link to C2.1"."""
    said = LINK.match(pin.without_device)
    if said is None:
        return None
    return said[1] if "." in said[1] else f"{pin.connector}.{said[1]}"


def _ordered(
    planned: Sequence[WirePlan], free: Sequence[FreePin], chosen: Sequence[Seat], order: str
) -> tuple[Step, ...]:
    """Links first, then earth, then plug by plug as recorded, control supply and mains last; whole plugs in one go."""
    whole = {plug: seat for seat in chosen for plug in seat.plugs}
    moves: list[tuple[str, str | None, list[WirePlan]]] = []
    done: set[str] = set()
    for each in planned:
        plug = each.wire.connector
        seat = whole.get(plug) if each.treatment in ("straight", "adapter") else None
        if seat is None:
            moves.append((each.treatment, None, [each]))
        elif plug not in done:
            done.add(plug)
            mates = [other for other in planned if other.wire.connector == plug and other.wire.id in seat.serves]
            moves.append(("adapter" if seat.adapter else "plug", plug, mates))
    # earth comes first whatever order was chosen
    moves.sort(key=lambda move: _turn(move[2]) if order == "supply last" else _turn(move[2]) != EARTH)
    # a link has two ends and is put in once
    links = [each.pin.place for each in free if each.treatment == "link" and each.pin.without_device]
    steps = [Step(number, "link", (), None, place) for number, place in enumerate(links, 1)]
    for number, (kind, whole_plug, wires) in enumerate(moves, len(steps) + 1):
        names = tuple(each.wire.id for each in wires)
        steps.append(Step(number, kind, names, whole_plug, None if whole_plug else wires[0].from_pin.place))
    return tuple(steps)


EARTH = 1


def _turn(wires: Sequence[WirePlan]) -> int:
    """When a move is due: earth first, then signals, then control supply, mains last of all."""
    pins = [each.to_pin or each.from_pin for each in wires]
    supplies = [pin for pin in pins if pin.group == "supply"]
    if supplies:
        return 4 if any(pin.volts_class == "mains" for pin in supplies) else 3
    return EARTH if all(pin.group == "earth" for pin in pins) else 2
