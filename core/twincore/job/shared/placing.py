"""Wires and plugs put by hand: what may be said, what is unsound about it, and what is proposed."""

from dataclasses import dataclass, replace
from typing import Any, cast

from twincore.errors import Refusal, WrongValue
from twincore.job.case import Case, new_board, original_of
from twincore.job.given import Given
from twincore.job.rules.state import State
from twincore.job.shared.wires import wiring_of, wiring_plan
from twincore.job.targets.carry_over import PlacedSaid, PlugPutSaid
from twincore.job.touching import put
from twincore.wiring import WirePlan, WiringPlan, plugs_of

UNSOUND = {
    "other signal": "that pin carries something else",
    "volts": "another voltage",
    "other contact": "the other relay contact",
    "two outputs": "two outputs would be joined",
    "full": "more wires than the pin holds",
}


def placed_value(case: Case, name: str, after: PlacedSaid, given: Given) -> Any:
    """Where a wire is put by hand; a place that is unsound for it takes a reason."""
    record = wiring_of(case)
    known = {each.id for each in record.wires} | {f"{each.connector}.{each.pin}" for each in record.wires}
    if name not in known:
        raise WrongValue(f"There is no wire {name} in the record. Record it first.")
    places = {
        pin.place for plug in plugs_of(new_board(case), original_of(case)[0]).values() for pin in plug.pins.values()
    }
    if missing := [each for each in after["to"] if each not in places]:
        raise WrongValue(f"{new_board(case).part_number} has no pin {', '.join(missing)}.")
    if len(set(after["to"])) < len(after["to"]):
        raise WrongValue("Name each pin once.")
    if (other := after.get("joined")) is not None:
        if after["to"]:
            raise WrongValue("Give a pin, or the wire that it is joined with, not both.")
        said = case.state["placed"].get(other)
        if other == name or other not in known or (said and (said.get("joined") or not said["to"])):
            raise WrongValue(f"Wire {other} has no pin of its own to join this one to.")
    _check_sound(case, "placed", name, after, given)
    return after


def plug_put_value(case: Case, name: str, after: PlugPutSaid, given: Given) -> Any:
    """Which socket a plug goes onto complete; what is unsound about any of its wires takes a reason."""
    family, board = original_of(case)
    old, new = plugs_of(board, family), plugs_of(new_board(case), family)
    if name not in old:
        raise WrongValue(f"{board.part_number} has no plug {name}.")
    if after["to"] not in new:
        raise WrongValue(f"{new_board(case).part_number} has no socket {after['to']}.")
    if any(socket["to"] == after["to"] and plug != name for plug, socket in case.state["plugs_put"].items()):
        raise Refusal(f"Another plug was put on {after['to']}. Remove that first.")
    used = {each.pin for each in wiring_of(case).wires if each.connector == name}
    if not used:
        raise WrongValue(f"No wire of {name} is in the record. Say in Record how its wires are carried.")
    if missing := used - set(new[after["to"]].pins):
        raise WrongValue(f"{after['to']} has no pin {', '.join(sorted(missing))}: this plug cannot go on it complete.")
    _check_sound(case, "plugs_put", name, after, given)
    return after


def _check_sound(case: Case, key: str, name: str, after: Any, given: Given) -> None:
    """Refuse what is unsound where nobody says why it is done all the same."""
    if given.reason.strip():
        return
    state = cast(dict[str, Any], {**case.state})
    put(state, key, name, after)
    then = replace(case, state=cast(State, state))
    plan, before = wiring_plan(then), wiring_plan(case)
    if plan is None or before is None:
        return
    was = {each.wire.id: unsound_of(each) for each in before.plan.wires}
    found = [
        (each, new)
        for each in plan.plan.wires
        if (new := [code for code in unsound_of(each) if code not in was[each.wire.id]])
    ]
    if found:
        told = "; ".join(
            f"{each.from_pin.place} onto {', '.join(each.places)}: {', '.join(UNSOUND[c] for c in codes)}"
            for each, codes in found[:4]
        )
        raise Refusal(f"{told}. Say why it goes there all the same.")


def unsound_of(each: WirePlan) -> list[str]:
    """What is unsound about where somebody put a wire."""
    return [mark for mark in each.marks if mark in UNSOUND] if "by hand" in each.marks else []


@dataclass(frozen=True, slots=True)
class PlugProposed:
    """A plug of the old board and the socket that it would go on, of whose pins nobody knows what they carry."""

    plug: str
    socket: str
    pins: int


def plugs_proposed(case: Case, plan: WiringPlan) -> list[PlugProposed]:
    """Plugs that the plan moves nowhere, and the socket of the same name and the same pins, which nothing known speaks against.

    Where both boards say what their pins carry, nothing is proposed: the plan knows better.
    """
    family, board = original_of(case)
    old, new = plugs_of(board, family), plugs_of(new_board(case), family)
    homeless = {each.wire.connector for each in plan.wires if each.to_pin is None and "unknown" in each.marks}
    taken = {name for seat in plan.seats for name in seat.sockets}
    found = []
    for name in (each for each in old if each in homeless and each in new and each not in taken):
        mine, its = old[name], new[name]
        alike = list(mine.pins) == list(its.pins) and (mine.style or its.style) == (its.style or mine.style)
        against = any(
            pin.carries is not None and its.pins[key].carries is not None and pin.carries != its.pins[key].carries
            for key, pin in mine.pins.items() if key in its.pins
        )  # fmt: skip
        if alike and not against:
            found.append(PlugProposed(name, name, len(mine.pins)))
    return found
