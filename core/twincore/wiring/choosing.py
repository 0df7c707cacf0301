"""Which plugs move whole, and which adapters serve: the choice that leaves the fewest wires to single handling.

Exact. Criteria in this order: most wires served without touching their ends, fewest adapters, least price, then the
least sum of places in the order of the files.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import permutations

from twincore.errors import LimitError
from twincore.heavy import load
from twincore.wiring.branching import pack_by_branching
from twincore.wiring.documents import Adapter, Wire
from twincore.wiring.pins import Pin, Plug

MOST_SEATS = 20_000
Score = tuple[int, int, float]
"""Wires served, adapters used as a negative number, price as a negative number: the greater the better."""


@dataclass(frozen=True, slots=True)
class Seat:
    """One way to seat old plugs on the new board: straight, or through an adapter.

    `serves` names the new pin of every wire that needs no single handling.
    """

    plugs: tuple[str, ...]
    sockets: tuple[str, ...]
    adapter: Adapter | None
    serves: Mapping[str, Pin]

    @property
    def score(self) -> Score:
        """What it adds to the whole."""
        return len(self.serves), -(self.adapter is not None), -(self.adapter.price if self.adapter else 0.0)


def seats(
    old: Mapping[str, Plug], new: Mapping[str, Plug], on: Mapping[str, Sequence[tuple[Wire, str | None]]],
    adapters: Sequence[Adapter],
) -> list[Seat]:  # fmt: skip
    """Every way that is sound: no wire of a plug would come onto a pin that carries something else. Raises LimitError.

    `on` gives, for each old plug with wires, each wire with what it carries.
    """
    found = [
        Seat((name,), (socket.id,), None, serves)
        for name, wires in on.items()
        for socket in new.values()
        if old[name].style is not None and socket.style == old[name].style
        if (serves := _straight(wires, old[name], socket)) is not None
    ]
    for adapter in adapters:
        for seat in _through(adapter, old, new, on):
            found.append(seat)
            if len(found) > MOST_SEATS:
                raise LimitError("wiring: too many ways to seat the plugs; leave adapters out that are not at hand")
    return found


def _straight(wires: Sequence[tuple[Wire, str | None]], plug: Plug, socket: Plug) -> dict[str, Pin] | None:
    """The pins under a plug that moves whole; None where one used pin does not agree."""
    serves = {}
    for wire, carries in wires:
        pin = socket.pins.get(wire.pin)
        if pin is None or carries is None or not agrees(plug.pins[wire.pin], carries, pin):
            return None
        serves[wire.id] = pin
    return serves


def agrees(old: Pin, carries: str, new: Pin) -> bool:
    """Whether a wire that was on `old` may go onto `new`: the same signal, voltage class and contact."""
    return (
        new.carries == carries
        and (old.volts_class is None or new.volts_class is None or old.volts_class == new.volts_class)
        and (old.contact is None or new.contact is None or old.contact == new.contact)
    )


def _through(
    adapter: Adapter, old: Mapping[str, Plug], new: Mapping[str, Plug],
    on: Mapping[str, Sequence[tuple[Wire, str | None]]],
) -> Iterator[Seat]:  # fmt: skip
    ends, outs = list(adapter.sockets), list(adapter.plugs)
    plugs = [name for name in on if old[name].style in adapter.sockets.values()]
    boards = [name for name, socket in new.items() if socket.style in adapter.plugs.values()]
    used = min(len(ends), len(plugs))
    for taken in permutations(plugs, used):
        for placed in permutations(ends, used) if used < len(ends) else [tuple(ends)]:
            if any(old[name].style != adapter.sockets[end] for name, end in zip(taken, placed, strict=True)):
                continue
            for seated in permutations(boards, len(outs)):
                if any(new[name].style != adapter.plugs[out] for name, out in zip(seated, outs, strict=True)):
                    continue
                sides = dict(zip(placed, taken, strict=True)), dict(zip(outs, seated, strict=True))
                serves = _led(adapter, *sides, old, new, on)
                if serves:
                    yield Seat(taken, seated, adapter, serves)


def _led(
    adapter: Adapter, froms: Mapping[str, str], tos: Mapping[str, str], old: Mapping[str, Plug],
    new: Mapping[str, Plug], on: Mapping[str, Sequence[tuple[Wire, str | None]]],
) -> dict[str, Pin] | None:  # fmt: skip
    leads = {
        (froms[lead.from_end], lead.from_pin): (tos[lead.to_end], lead.to_pin)
        for lead in adapter.leads
        if lead.from_end in froms
    }
    serves: dict[str, Pin] = {}
    for name in froms.values():
        for wire, carries in on[name]:
            led = leads.get((name, wire.pin))
            if led is None:
                continue
            pin = new[led[0]].pins.get(led[1])
            if pin is None or carries is None or not agrees(old[name].pins[wire.pin], carries, pin):
                return None
            serves[wire.id] = pin
    return serves


def choose(options: Sequence[Seat], stock: Mapping[str, int]) -> list[Seat]:
    """The best set of seats in which no plug, socket or adapter is used twice; `stock` counts the adapters.

    A set packing problem. Raises LimitError where no optimum is proved.
    """
    if not options:
        return []
    most = {name: 1 for seat in options for name in _things(seat)}
    takes = [frozenset(_things(seat)) for seat in options]
    for name, count in stock.items():
        most[f"adapter {name}"] = count
        takes = [
            take | {f"adapter {name}"} if seat.adapter is not None and seat.adapter.id == name else take
            for take, seat in zip(takes, options, strict=True)
        ]
    criteria = _criteria(options)
    chosen = pack_by_branching(takes, most, criteria)
    if chosen is None:
        chosen = load("twincore.wiring.packing").pack(takes, most, criteria)
    return [options[index] for index in chosen]


def _things(seat: Seat) -> list[str]:
    """What a seat takes for itself."""
    return [*(f"plug {each}" for each in seat.plugs), *(f"socket {each}" for each in seat.sockets)]


def _criteria(options: Sequence[Seat]) -> list[list[int]]:
    """What is to be least, in this order: wires not served, adapters, price in hundredths, places in the order of the files."""
    return [
        [-seat.score[0] for seat in options],
        [-seat.score[1] for seat in options],
        [round(-seat.score[2] * 100) for seat in options],
        list(range(len(options))),
    ]
