"""Where the wires as found differ from what the diagram says: findings to settle before wires are carried over."""

from collections.abc import Sequence
from dataclasses import dataclass

from twincore.profile import Board, Family
from twincore.wiring.documents import Wire
from twincore.wiring.pins import plugs_of

SETTLEMENTS = ("was wired wrong", "machine was modified")
NO_WIRE = "no wire was there"
"""Said of a pin whose wire is missing: looked for, and not found."""
KINDS = ("other signal", "not in the diagram", "wire missing")


@dataclass(frozen=True, slots=True)
class WiringFinding:
    """One difference at a pin: what the diagram says belongs there, and what was found."""

    place: str
    kind: str
    diagram: str | None
    found: str | None
    wires: tuple[str, ...]


def wiring_findings(
    board: Board, family: Family, wires: Sequence[Wire], without_record: Sequence[str] = ()
) -> list[WiringFinding]:
    """Every pin at which diagram and record differ, in the order of the board's file.

    A pin without a wire is a finding only where the family does not call its signal optional and the profile names
    nothing that may stand in for the device, and only on plugs of which at least one wire is recorded. A plug on which
    the profile names no signal at all has no diagram to differ from.
    """
    found: list[WiringFinding] = []
    for plug in plugs_of(board, family).values():
        if plug.id in without_record or not any(wire.connector == plug.id for wire in wires):
            continue
        if not any(pin.carries for pin in plug.pins.values()):
            continue
        for pin in plug.pins.values():
            here = [wire for wire in wires if (wire.connector, wire.pin) == (plug.id, pin.pin)]
            names = tuple(wire.id for wire in here)
            others = [wire for wire in here if wire.signal is not None and wire.signal != pin.carries]
            if pin.carries is None and here:
                seen = next((wire.signal or wire.goes_to for wire in here), None)
                found.append(WiringFinding(pin.place, "not in the diagram", None, seen or None, names))
            elif others:
                found.append(WiringFinding(pin.place, "other signal", pin.carries, others[0].signal, names))
            elif pin.carries and not here and not pin.optional and not pin.without_device:
                found.append(WiringFinding(pin.place, "wire missing", pin.carries, None, ()))
    return found
