"""The wiring plan: where every wire of the original goes, what is put on the pins that stay free, in which order."""

from collections import Counter
from collections.abc import Mapping, Sequence

from twincore.profile import Board, Family
from twincore.wiring.assigning import assign
from twincore.wiring.by_hand import ByHand, Put, put_by_hand, seats_by_hand
from twincore.wiring.choosing import agrees, choose, seats
from twincore.wiring.documents import Adapter, Wire, WiringRecord
from twincore.wiring.pins import Pin, Plug, known_by_label, known_by_place, plugs_of
from twincore.wiring.planned import JOINED, Trap, WirePlan, WiringPlan
from twincore.wiring.steps import free_pins, steps_of

NOTHING_BY_HAND = ByHand()
Handled = tuple[str, "Pin | None", tuple[str, ...]]
"""Treatment, new pin and marks of one wire."""


def carry_wires(
    original: Board, record: WiringRecord, replacement: Board, family: Family,
    adapters: Sequence[Adapter] = (), order: str = "supply last", by_hand: ByHand = NOTHING_BY_HAND,
) -> WiringPlan:  # fmt: skip
    """Carry the wires of an original over to a replacement: by signal, never by place or colour.

    Whole plugs where every used pin agrees, adapters so that the fewest wires are left and the fewest adapters used,
    then single wires, new ends, and what has no place is tied back. On the very same board again every wire has its
    own place, whether anybody knows what it carries or not. What somebody put by hand stays where they put it, and the rest is
    planned around it. Raises LimitError beyond the choice's limit.
    """
    old, new = plugs_of(original, family), plugs_of(replacement, family)
    if original.part_number == replacement.part_number:
        old = new = known_by_place(new)
    else:
        old, new = known_by_label(old, new), known_by_label(new, old)
    meant = {each.id: old[each.connector].pins[each.pin] for each in record.wires}
    carries_of = {each.id: (meant[each.id], carried(each, meant[each.id])) for each in record.wires}
    put = put_by_hand(by_hand, record, carries_of, new)
    placed = seats_by_hand(by_hand, record, new)
    taken = Counter(place.place for each in put.values() for place in (each.pin, *each.also) if place)
    on: dict[str, list[tuple[Wire, str | None]]] = {}
    for wire in record.wires:
        if wire.id not in put:
            on.setdefault(wire.connector, []).append((wire, carries_of[wire.id][1]))
    left = {name: each for name, each in new.items() if name not in by_hand.plugs.values()}
    options = seats(old, left, {name: each for name, each in on.items() if name not in record.one_by_one}, adapters)
    options = [each for each in options if not any(pin.place in taken for pin in each.serves.values())]
    chosen = [*placed, *choose(options, {each.id: each.count for each in adapters})]
    served = {name: (seat, pin) for seat in chosen for name, pin in seat.serves.items()}
    traps = _traps(old, new, on)
    taken.update(pin.place for name, (_, pin) in served.items() if name not in put)
    handled = _by_hand(record, old, new, taken, {*served, *put})
    in_trap = {trap.plug for trap in traps}
    planned = []
    for wire in record.wires:
        pin = old[wire.connector].pins[wire.pin]
        carries = carried(wire, pin)
        if wire.id in put:
            planned.append(_as_put(put[wire.id], served.get(wire.id), old, new, carries))
            continue
        if wire.id in served:
            seat, target = served[wire.id]
            treatment, adapter = ("adapter", seat.adapter.id) if seat.adapter else ("straight", None)
            marks: tuple[str, ...] = ()
            to: Pin | None = target
        else:
            treatment, to, marks = handled[wire.id]
            adapter = None
            if wire.connector in in_trap:
                marks = (*marks, "trap")
        planned.append(WirePlan(wire, treatment, pin, to, adapter, carries, (*_minded(pin, to), *marks)))
    free = free_pins(new, planned)
    return WiringPlan(tuple(planned), free, traps, tuple(chosen), steps_of(planned, free, chosen, order))


def _as_put(put: Put, seat: object, old: Mapping[str, Plug], new: Mapping[str, Plug], carries: str | None) -> WirePlan:
    """A wire that somebody put by hand."""
    wire, to = put.wire, put.pin
    pin = old[wire.connector].pins[wire.pin]
    minded = [each for each in _minded(pin, to) if each != "label"]  # somebody looked
    marks = (*minded, "by hand", *put.unsound)
    if to is None:
        treatment = "tied back"
    elif put.joined:
        treatment = JOINED
    elif put.lead:
        treatment = "adapter"
    elif seat is not None:
        treatment = "straight"
    else:
        treatment = "single" if _ends_fit(wire, old[wire.connector], new[to.connector]) else "new end"
    return WirePlan(wire, treatment, pin, to, put.lead or None, carries, marks, put.also, put.joined)


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
    record: WiringRecord, old: Mapping[str, Plug], new: Mapping[str, Plug], taken: Mapping[str, int], served: set[str]
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
        places = [pin for pin in by_signal[carries] for _ in range(pin.holds - taken.get(pin.place, 0))]
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
    return _ends_fit(wire, plug, new[place.connector])


def _ends_fit(wire: Wire, plug: Plug, target: Plug) -> bool:
    """Whether the end of a wire of a plug goes into another plug as it is."""
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
