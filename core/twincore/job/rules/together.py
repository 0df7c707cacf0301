"""Several open jobs on one machine: what each says of its supply, and where two cannot both be right."""

from typing import Literal

from twincore.job.rules.order import cleared, read_live, said_live
from twincore.job.rules.state import State
from twincore.job.targets import TARGETS, supply_rule

Supply = Literal["off", "on"]


def about_supply(target: str) -> bool:
    """Whether something said at a target says how the supply of the machine stands, or rests on a hold point."""
    return supply_rule(target).startswith("says")


def supply_said(state: State) -> Supply | None:
    """What a job says of its machine's supply: locked off, put on again, or nothing that anybody said."""
    if state["power"] == "off":
        return "off"
    return "on" if state["energised"] is not None else None


def supply_needed(state: State, target: str, read_how: str = "") -> Supply | None:
    """How the supply must stand for an entry to be true; None where it does not matter."""
    kind, _, name = target.partition(".")
    declared = TARGETS.get(kind)
    if declared is not None and (said_live(declared, name) or read_live(state, declared, name, read_how)):
        return "on"
    match supply_rule(target):
        case "on" | "says on":
            return "on"
        case "says off":
            return "off"
        case "off" if not cleared(state) and state["power"] == "off":
            return "off"
    return None


def contradicts(needed: Supply | None, other: Supply | None) -> bool:
    """Whether an entry and what another job says of the same machine's supply cannot both be true."""
    return needed is not None and other is not None and needed != other
