"""What a wiring plan leaves free on the new board, and in which order its steps are done."""

import re
from collections.abc import Mapping, Sequence

from twincore.wiring.choosing import Seat
from twincore.wiring.pins import Pin, Plug
from twincore.wiring.planned import FreePin, Step, WirePlan

LINK = re.compile(r"link to (\w+(?:\.\w+)?)")


def free_pins(new: Mapping[str, Plug], planned: Sequence[WirePlan]) -> tuple[FreePin, ...]:
    """Every pin of the new board without a wire: its link, left open, a device that is missing, or unused."""
    wired = {place for each in planned for place in each.places}
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


def steps_of(
    planned: Sequence[WirePlan], free: Sequence[FreePin], chosen: Sequence[Seat], order: str
) -> tuple[Step, ...]:
    """Links first, then earth, then plug by plug as recorded, control supply and mains last; whole plugs in one go."""
    whole = {plug: seat for seat in chosen for plug in seat.plugs}
    moves: list[tuple[str, str | None, list[WirePlan]]] = []
    done: set[str] = set()
    for each in planned:
        plug = each.wire.connector
        seat = whole.get(plug)
        if seat is None or each.wire.id not in seat.serves:
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
