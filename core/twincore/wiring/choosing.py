"""Which plugs move whole, and which adapters serve: the choice that leaves the fewest wires to single handling.

Exact. Criteria in this order: most wires served without touching their ends, fewest adapters, least price, then the
first in the order of the files. Plugs that share no socket and no adapter are chosen apart.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import permutations

from twincore.errors import LimitError
from twincore.wiring.documents import Adapter, Wire
from twincore.wiring.pins import Pin, Plug

MOST_STATES = 400_000
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
    """Every way that is sound: no wire of a plug would come onto a pin that carries something else.

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
        found += _through(adapter, old, new, on)
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

    Raises LimitError where more than 400,000 states would have to be looked at.
    """
    chosen: list[Seat] = []
    for group in _apart(options):
        chosen += _Choice(group, stock).best()
    return chosen


def _apart(options: Sequence[Seat]) -> list[list[Seat]]:
    """Options in groups that share nothing, so that each can be chosen by itself."""
    groups: list[tuple[set[str], list[Seat]]] = []
    for seat in options:
        names = {f"plug {each}" for each in seat.plugs} | {f"socket {each}" for each in seat.sockets}
        if seat.adapter:
            names.add(f"adapter {seat.adapter.id}")
        touching = [group for group in groups if group[0] & names]
        merged = set(names).union(*(group[0] for group in touching))
        members = [each for group in touching for each in group[1]] + [seat]
        groups = [group for group in groups if group not in touching] + [(merged, members)]
    position = {id(seat): index for index, seat in enumerate(options)}
    return [sorted(members, key=lambda seat: position[id(seat)]) for _, members in groups]


class _Choice:
    """Dynamic programming over the plugs in order; a state is what is still free of what later plugs could use."""

    def __init__(self, options: Sequence[Seat], stock: Mapping[str, int]) -> None:
        self.options, self.stock = options, stock
        self.plugs = list(dict.fromkeys(name for seat in options for name in seat.plugs))
        rank = {name: index for index, name in enumerate(self.plugs)}
        self.starting: list[list[Seat]] = [[] for _ in self.plugs]
        for seat in options:
            self.starting[min(rank[name] for name in seat.plugs)].append(seat)
        later: set[str] = set()
        self.later: list[set[str]] = [set() for _ in self.plugs]
        for index in range(len(self.plugs) - 1, -1, -1):
            later |= {name for seat in self.starting[index] for name in _names(seat)}
            self.later[index] = set(later)
        self.kept: dict[tuple[int, frozenset[tuple[str, int]]], tuple[Score, Seat | None]] = {}

    def best(self) -> list[Seat]:
        """The chosen seats, first plug first."""
        used: dict[str, int] = {}
        self._score(0, used)
        found = []
        for index in range(len(self.plugs)):
            seat = self.kept[(index, self._state(index, used))][1]
            if seat is not None:
                found.append(seat)
                used = _with(used, seat)
        return found

    def _state(self, index: int, used: Mapping[str, int]) -> frozenset[tuple[str, int]]:
        return frozenset((name, count) for name, count in used.items() if name in self.later[index])

    def _score(self, index: int, used: dict[str, int]) -> Score:
        if index == len(self.plugs):
            return (0, 0, 0.0)
        state = (index, self._state(index, used))
        if state in self.kept:
            return self.kept[state][0]
        if len(self.kept) > MOST_STATES:
            raise LimitError("wiring: too many ways to seat the plugs; leave adapters out that are not at hand")
        top: Score | None = None
        pick: Seat | None = None
        for seat in (*self.starting[index], None):
            if seat is not None and not self._free(seat, used):
                continue
            rest = self._score(index + 1, _with(used, seat) if seat else used)
            here = seat.score if seat else (0, 0, 0.0)
            total = (here[0] + rest[0], here[1] + rest[1], here[2] + rest[2])
            if top is None or total > top:
                top, pick = total, seat
        assert top is not None  # leaving a plug is always possible
        self.kept[state] = (top, pick)
        return top

    def _free(self, seat: Seat, used: Mapping[str, int]) -> bool:
        if any(f"plug {each}" in used for each in seat.plugs) or any(f"socket {e}" in used for e in seat.sockets):
            return False
        return seat.adapter is None or used.get(f"adapter {seat.adapter.id}", 0) < self.stock[seat.adapter.id]


def _names(seat: Seat) -> list[str]:
    adapter = [f"adapter {seat.adapter.id}"] if seat.adapter else []
    return [*(f"plug {each}" for each in seat.plugs), *(f"socket {each}" for each in seat.sockets), *adapter]


def _with(used: Mapping[str, int], seat: Seat) -> dict[str, int]:
    found = dict(used)
    for name in _names(seat):
        found[name] = found.get(name, 0) + 1
    return found
