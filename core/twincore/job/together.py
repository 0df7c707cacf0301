"""Several open jobs on one machine: what each says of its supply, and where two cannot both be right."""

from typing import Literal

from twincore.job.order import OVER_PORT, cleared
from twincore.job.state import State
from twincore.job.targets.fit import WITH_POWER

Supply = Literal["off", "on"]
ON_DEAD = ("found", "angle", "wire", "plug", "removed", "look", "ticked")
"""What is said by somebody whose hands are in the machine."""
WITH_SUPPLY = ("energised", "run", "reading", "check", "learned", "reentered", "trace", "kept")
"""What is said of a machine that has power."""


MADE_SAFE = "confirmed.make_safe"
ABOUT_SUPPLY = ("power", "hold", "energised", MADE_SAFE)
"""What says how the supply stands, or rests on a hold point."""


def about_supply(target: str) -> bool:
    """Whether something said at a target says how the supply of the machine stands."""
    return target in ABOUT_SUPPLY or target.partition(".")[0] in ABOUT_SUPPLY


def supply_said(state: State) -> Supply | None:
    """What a job says of its machine's supply: locked off, put on again, or nothing that anybody said."""
    if state["power"] == "off":
        return "off"
    return "on" if state["energised"] is not None else None


def supply_needed(state: State, target: str, read_how: str = "") -> Supply | None:
    """How the supply must stand for an entry to be true; None where it does not matter."""
    kind, _, name = target.partition(".")
    if target == MADE_SAFE:
        return "off"
    if kind in WITH_SUPPLY or name.startswith(WITH_POWER):
        return "on"
    if kind == "found" and (name in state["powered"] or read_how == OVER_PORT):
        return "on"
    return "off" if kind in ON_DEAD and not cleared(state) and state["power"] == "off" else None


def contradicts(needed: Supply | None, other: Supply | None) -> bool:
    """Whether an entry and what another job says of the same machine's supply cannot both be true."""
    return needed is not None and other is not None and needed != other
