"""Proving dead: between which terminals is measured, and below what a reading counts as dead.

A machine is dead at nothing; what an instrument still shows of it is a volt or two. The limit at which a voltage may be touched says
nothing about that: a control supply of 24 V, live, lies under it.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from twincore.measure.constants import CONSTANTS
from twincore.profile import Board, Family

USUAL_V: float = CONSTANTS["dead"]["usual_v"]
"""What a depot that says nothing of its own lets an instrument still show."""
CLASS_V = {"24ac": 24.0, "24dc": 24.0, "12dc": 12.0, "5dc": 5.0}
"""The voltage of a supply that a signal's class tells; of mains it is known that it is more than enough."""


@dataclass(frozen=True, slots=True)
class Pair:
    """Two terminals of a supply between which is measured; `id` is what the reading is kept under."""

    id: str
    title: str


def dead_limit(
    supplies: Iterable[Mapping[str, Any]], families: Iterable[Family], boards: Iterable[Board], depot_v: float
) -> float:
    """Volts below which a reading counts as dead: the depot's own figure, or a tenth of the lowest supply if that is less
    (common practice, no source).
    """
    known = [float(each["volts"]) for each in supplies]
    known += [float(volts[0]) for board in boards if (volts := board.document.get("supply", {}).get("volts"))]
    known += [
        CLASS_V[signal["volts_class"]]
        for family in families
        for signal in family.document.get("signals", ())
        if signal.get("kind") == "supply" and signal.get("volts_class") in CLASS_V
    ]
    share = float(CONSTANTS["dead"]["share_of_supply"])
    return round(min([depot_v, *(volts * share for volts in known if volts > 0)]), 6)


def pairs_of(supplies: Iterable[Mapping[str, Any]]) -> tuple[Pair, ...]:
    """Every pair of terminals of every supply that enters the cabinet."""
    return tuple(
        Pair(f"{each['id']} {one}-{other}", f"{each.get('title', each['id'])}: {one} to {other}")
        for each in supplies
        for one, other in each["pairs"]
    )
