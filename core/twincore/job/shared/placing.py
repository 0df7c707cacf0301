"""Wires and plugs put by hand: what may be said, what is unsound about it, and what is offered."""

from dataclasses import replace
from typing import Any, cast

from twincore.errors import Refusal, WrongValue
from twincore.job.case import Case, new_board, original_of
from twincore.job.given import Given
from twincore.job.rules.state import State
from twincore.job.shared.wires import wiring_of, wiring_plan
from twincore.job.targets.carry_over import PlacedSaid, PlugPutSaid
from twincore.job.touching import put
from twincore.wiring import UNSOUND, Unsound, WirePlan, WiringPlan, plugs_of

TOLD: dict[Unsound, str] = {
    "other signal": "that pin carries something else",
    "volts": "another voltage",
    "other contact": "the other relay contact",
    "two outputs": "two outputs would be joined",
    "two signals": "two different things would be joined",
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
        if other not in known or not _goes_somewhere(case, name, after, other):
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
    if not any(each.connector == name for each in wiring_of(case).wires):
        if not old[name].keyed:
            raise Refusal(f"{name} is not keyed: it goes in more than one way. Record its wires first.")
        # while plugs are recorded nobody said yet how its wires go: with the plug, if it goes complete
        case = _with(case, "plugs", name, "whole")
    used = {each.pin for each in wiring_of(case).wires if each.connector == name}
    if missing := used - set(new[after["to"]].pins):
        raise WrongValue(f"{after['to']} has no pin {', '.join(sorted(missing))}: this plug cannot go on it complete.")
    _check_sound(case, "plugs_put", name, after, given)
    return after


def _check_sound(case: Case, key: str, name: str, after: Any, given: Given) -> None:
    """Refuse what is unsound where nobody says why it is done all the same."""
    if given.why:
        return
    plan, before = wiring_plan(_with(case, key, name, after)), wiring_plan(case)
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
            f"{each.from_pin.place} onto {', '.join(each.places)}: {', '.join(TOLD[code] for code in codes)}"
            for each, codes in found[:4]
        )
        raise Refusal(f"{told}. Say why it goes there all the same.")


def unsound_of(each: WirePlan) -> list[Unsound]:
    """What is unsound about where somebody put a wire."""
    return [code for code in UNSOUND if code in each.marks] if "by hand" in each.marks else []


def _goes_somewhere(case: Case, name: str, after: PlacedSaid, other: str) -> bool:
    """Whether a wire that is joined with another comes onto a pin by it, and not onto itself."""
    plan = wiring_plan(_with(case, "placed", name, after))
    wires = plan.plan.wires if plan else ()
    mine = [each for each in wires if name in (each.wire.id, each.from_pin.place)]
    return other != name and any(each.joined is not None for each in mine)


def _with(case: Case, key: str, name: str, after: Any) -> Case:
    """The job as it would be with this said."""
    state = cast(dict[str, Any], {**case.state})
    put(state, key, name, after)
    return replace(case, state=cast(State, state))


def socket_offered(case: Case, plug: str) -> str | None:
    """The socket of the new board that a plug would go on if somebody says so: of the same name and the same pins, where it is not
    known what they carry and nothing that is printed at them differs. None where both boards say what their pins carry, for the plan knows better then.
    """
    if case.replacement is None or plug in case.state["plugs_put"]:
        return None
    family, board = original_of(case)
    mine, its = plugs_of(board, family).get(plug), plugs_of(case.replacement, family).get(plug)
    if mine is None or its is None or list(mine.pins) != list(its.pins):
        return None
    if mine.style is not None and its.style is not None and mine.style != its.style:
        return None
    pairs = [(pin.carries, its.pins[name].carries) for name, pin in mine.pins.items()]
    prints = [(pin.mark.casefold(), its.pins[name].mark.casefold()) for name, pin in mine.pins.items()]
    against = any(None not in pair and pair[0] != pair[1] for pair in pairs)
    against = against or any(all(pair) and pair[0] != pair[1] for pair in prints)
    return None if against or all(None not in pair for pair in pairs) else its.id


def plugs_offered(case: Case, plan: WiringPlan) -> dict[str, str]:
    """The plugs of which the plan knows no place, with the sockets that somebody may say they go on."""
    lost = dict.fromkeys(each.wire.connector for each in plan.wires if "unknown" in each.marks)
    return {name: socket for name in lost if (socket := socket_offered(case, name)) is not None}
