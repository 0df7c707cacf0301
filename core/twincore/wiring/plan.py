"""The wiring plan: where every wire of the original goes, what is put on the pins that stay free, in which order."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import replace

from twincore.profile import Board, Family
from twincore.wiring.assigning import assign
from twincore.wiring.by_hand import ByHand, Put, put_by_hand, seats_by_hand, unsound
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
    carries = {each.id: carried(each, old[each.connector].pins[each.pin]) for each in record.wires}
    by_word = seats_by_hand(by_hand, record, new)
    put = put_by_hand(by_hand, record, new, by_word)
    taken = Counter(pin.place for each in put.values() for pin in each.pins)
    on: dict[str, list[tuple[Wire, str | None]]] = {}
    for wire in record.wires:
        if wire.id not in put:
            on.setdefault(wire.connector, []).append((wire, carries[wire.id]))
    sockets = {name for seat in by_word for name in seat.sockets}
    left = {name: each for name, each in new.items() if name not in sockets}
    options = seats(old, left, {name: each for name, each in on.items() if name not in record.one_by_one}, adapters)
    options = [each for each in options if not any(pin.place in taken for pin in each.serves.values())]
    chosen = choose(options, {each.id: each.count for each in adapters})
    served = {name: (seat, pin) for seat in chosen for name, pin in seat.serves.items()}
    traps = _traps(old, new, on)
    taken.update(pin.place for _, pin in served.values())
    singly = _singly(record, old, new, taken, {*served, *put})
    in_trap = {trap.plug for trap in traps}
    planned: dict[str, WirePlan] = {}
    for wire in sorted(record.wires, key=lambda each: each.id in put and put[each.id].joined is not None):
        pin = old[wire.connector].pins[wire.pin]
        if wire.id in put:
            planned[wire.id] = _as_put(wire, put[wire.id], pin, carries[wire.id], new, old, planned)
            continue
        adapter: str | None = None
        if wire.id in served:
            seat, to = served[wire.id]
            treatment, adapter = ("adapter", seat.adapter.id) if seat.adapter else ("straight", None)
            found: Handled = treatment, to, ()
        else:
            found = singly[wire.id]
            if wire.connector in in_trap:
                found = (*found[:2], (*found[2], "trap"))
        planned[wire.id] = WirePlan(
            wire, found[0], pin, found[1], adapter, carries[wire.id], (*_minded(pin, found[1]), *found[2])
        )
    wires = [planned[each.id] for each in record.wires]
    wires = [
        replace(each, marks=(*each.marks, *unsound(each, wires))) if each.wire.id in put else each for each in wires
    ]
    free, all_seats = free_pins(new, wires), [*by_word, *chosen]
    return WiringPlan(tuple(wires), free, traps, tuple(all_seats), steps_of(wires, free, all_seats, order))


def _as_put(
    wire: Wire, put: Put, pin: Pin, carries: str | None, new: Mapping[str, Plug], old: Mapping[str, Plug],
    planned: Mapping[str, WirePlan],
) -> WirePlan:  # fmt: skip
    """A wire that somebody put by hand; one that is joined goes wherever the other does, which is planned by then."""
    pins = put.pins
    if put.joined is not None:
        pins = tuple(each for each in (planned[put.joined].to_pin,) if each)
    to = pins[0] if pins else None
    marks = [*(each for each in _minded(pin, to) if each != "label"), "by hand"]  # somebody looked at the print
    if to is None:
        treatment = "tied back"
        marks += ["no place"] if put.joined else []
    elif put.joined:
        treatment = JOINED
    elif put.lead:
        treatment = "adapter"
    elif put.whole:
        treatment = "straight"
    else:
        treatment = "single" if _ends_fit(wire, old[wire.connector], new[to.connector]) else "new end"
    joined = put.joined if to else None
    return WirePlan(wire, treatment, pin, to, put.lead or None, carries, tuple(marks), pins[1:], joined)


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


def _singly(
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
