"""A last look before a wire is cut, stripped or crimped: is there no plug that fits? And what is looked at twice before power."""

from collections.abc import Sequence
from dataclasses import dataclass

from twincore.profile import Board, Family
from twincore.wiring.choosing import seats
from twincore.wiring.documents import Adapter, Wire, WiringRecord
from twincore.wiring.pins import plugs_of
from twincore.wiring.plan import carried
from twincore.wiring.planned import Trap, WiringPlan

IRREVERSIBLE = ("new end",)
"""Treatments that cannot be taken back: the old end is gone."""
SECOND_LOOKS = ("new device", "polarity", "contact", "link", "tied back")


@dataclass(frozen=True, slots=True)
class NoPlug:
    """Why a plug does not simply go on: the sockets of its style whose pins differ, and what could seat it otherwise.

    `other_ways` are sockets, with the adapter's title or empty, that would seat it but are taken by something better.
    """

    plug: str
    style: str
    traps: tuple[Trap, ...]
    other_ways: tuple[tuple[str, str], ...]


@dataclass(frozen=True, slots=True)
class SecondLook:
    """One thing to look at again before power: a wire (its id) or a pin that is linked; `why` is one of SECOND_LOOKS."""

    key: str
    why: str
    wire: str | None
    place: str


def no_plug_for(
    plan: WiringPlan, plug: str, original: Board, record: WiringRecord, replacement: Board, family: Family,
    adapters: Sequence[Adapter],
) -> NoPlug:  # fmt: skip
    """What stands against moving a whole plug instead of its wires one by one."""
    old, new = plugs_of(original, family), plugs_of(replacement, family)
    on: dict[str, list[tuple[Wire, str | None]]] = {}
    for wire in record.wires:
        on.setdefault(wire.connector, []).append((wire, carried(wire, old[wire.connector].pins[wire.pin])))
    chosen = {(seat.plugs, seat.sockets) for seat in plan.seats}
    other = [
        (", ".join(seat.sockets), seat.adapter.title if seat.adapter else "")
        for seat in seats(old, new, on, adapters)
        if plug in seat.plugs and (seat.plugs, seat.sockets) not in chosen
    ]
    return NoPlug(
        plug, old[plug].style or "", tuple(trap for trap in plan.traps if trap.plug == plug),
        tuple(dict.fromkeys(other)),
    )  # fmt: skip


def second_looks(plan: WiringPlan) -> list[SecondLook]:
    """Wires of devices that are changed along, polarity pairs, changeover contacts, links, and wires that were tied back, in the order of the plan."""
    found = []
    for each in plan.wires:
        why: str | None = next((mark for mark in ("new device", "polarity", "contact") if mark in each.marks), None)
        if each.treatment == "tied back":
            why = "tied back"
        if why is not None:
            place = each.to_pin.place if each.to_pin else each.from_pin.place
            found.append(SecondLook(f"{why} {each.wire.id}", why, each.wire.id, place))
    found += [SecondLook(f"link {e.pin.place}", "link", None, e.pin.place) for e in plan.free if e.treatment == "link"]
    return found
