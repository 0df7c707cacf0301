"""Fit: the list of what is done on the dead machine, what needs power, and what of either is still missing."""

from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Any

from twincore.choose import KitLine, Mounting
from twincore.errors import Refusal, WrongValue
from twincore.job.between import leads_to
from twincore.job.boards import several, title_of, turned
from twincore.job.case import Case, new_board, original_of, position
from twincore.job.entering import entered_otherwise, found_by_learning, learns, to_reenter, wanted_of
from twincore.job.given import Check, Given
from twincore.job.holds import points_of
from twincore.job.left import plan_of, planned_positions
from twincore.job.order import cleared, done
from twincore.job.presses import press_plan
from twincore.job.taking import kit_of, leads_of, mounting_of
from twincore.job.targets.fit import WITH_POWER, EnergisedSaid, LearnedSaid, ReadbackSaid
from twincore.job.wires import WiringOf, step_key, wiring_of, wiring_plan
from twincore.profile import Board, Record
from twincore.wiring import IRREVERSIBLE, NoPlug, Step, no_plug_for, second_looks

MOUNTED = "mounted"
PINCHED = "no lead pinched"


@dataclass(frozen=True, slots=True)
class Look:
    """One thing to look at or do, and tick: its key in the job, its group, and what it is about."""

    key: str
    group: str
    about: dict[str, Any] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Fitting:
    """All that fitting asks for on this job, from the data of both boards and the record."""

    replacement: Board
    plan: Record
    kit: tuple[KitLine, ...]
    wiring: WiringOf | None
    mounting: Mounting | None
    looks: tuple[Look, ...]
    no_plugs: dict[str, NoPlug]
    """By the key of a step that cannot be taken back: why there is no plug that fits."""
    learned: tuple[str, ...] = ()
    """The elements whose positions a learning run finds."""


def fitting_of_job(case: Case) -> Fitting:
    """What is to be fitted, and how it is looked at. The plan is confirmed."""
    plan, replacement = plan_of(case), new_board(case)
    wiring = wiring_plan(case)
    mounting = mounting_of(case)
    no_plugs = _no_plugs(case, wiring)
    looks = (*_mounting_looks(mounting), *_last_looks(no_plugs), *_second(wiring), *_places(case), *_powered(case))
    kit = (*kit_of(case), *leads_of(wiring.plan if wiring else None))
    return Fitting(replacement, plan, kit, wiring, mounting, looks, no_plugs, tuple(found_by_learning(case)))


def _no_plugs(case: Case, wiring: WiringOf | None) -> dict[str, NoPlug]:
    if wiring is None:
        return {}
    family, original = original_of(case)
    by_id = {each.wire.id: each for each in wiring.plan.wires}
    plugs = {
        step_key(step): by_id[step.wires[0]].wire.connector
        for step in wiring.plan.steps
        if step.wires and by_id[step.wires[0]].treatment in IRREVERSIBLE
    }
    if not plugs:
        return {}
    record, replacement, adapters = wiring_of(case), new_board(case), case.shelf.adapters
    by_plug = {
        plug: no_plug_for(wiring.plan, plug, original, record, replacement, family, adapters)
        for plug in set(plugs.values())
    }
    return {key: by_plug[plug] for key, plug in plugs.items()}


def _mounting_looks(mounting: Mounting | None) -> Iterable[Look]:
    for hole in mounting.new_holes if mounting else ():
        about = {
            "from_left_mm": hole.from_left_mm,
            "from_bottom_mm": hole.from_bottom_mm,
            "diameter_mm": hole.diameter_mm,
        }
        yield Look(f"hole {hole.hole + 1}", "drill", about)
    yield Look(MOUNTED, "mount")


def _last_looks(no_plugs: dict[str, NoPlug]) -> Iterable[Look]:
    steps: dict[str, str] = {}
    for key, each in no_plugs.items():
        steps.setdefault(each.plug, key)
    for plug, key in steps.items():
        yield Look(last_look_key(plug), "last look", {"step": key})


def last_look_key(plug: str) -> str:
    """The name of the last look before the wires of a plug are cut, stripped or crimped: one for all of them."""
    return f"last {plug}"


def _second(wiring: WiringOf | None) -> Iterable[Look]:
    for each in second_looks(wiring.plan) if wiring else ():
        yield Look(f"second {each.key}", "second look", {"why": each.why, "wire": each.wire, "place": each.place})


def _places(case: Case) -> Iterable[Look]:
    """Loose parts and leads whose place was logged as they came off; and no lead pinched."""
    rows = sorted(case.state["removed"].items(), key=lambda each: each[1]["n"])
    for name, each in rows:
        if each["kind"] in ("part", "routing"):
            yield Look(f"place {name}", "place", {"what": each["what"], "place": each["place"], "kind": each["kind"]})
    yield Look(PINCHED, "place", {"what": "No lead pinched, none near a moving or hot part", "kind": "routing"})


def _powered(case: Case) -> Iterable[Look]:
    """What is ticked with the supply on: the panels keyed in, and what a learning run needs beforehand."""
    for index, need in enumerate(new_board(case).document.get("entering", {}).get("before", ())):
        yield Look(f"{WITH_POWER}entering {index}", "entering", {"need": need})
    presses = press_plan(case)
    for index, _ in enumerate(presses.panels if presses else ()):
        yield Look(f"{WITH_POWER}panel {index}", "panel", {"panel": index})
    if learns(case):
        needs = new_board(case).document["learning"].get("needs", ())
        for index, need in enumerate(needs):
            yield Look(f"{WITH_POWER}learning {index}", "learning", {"need": need})


def check_confirmed(case: Case, note: str) -> None:
    """Refuse to call it fitted while something with the supply on is left and nobody says why."""
    if (missing := missing_powered(case, fitting_of_job(case))) and not note:
        raise Refusal(f"Not done yet: {'; '.join(missing)}. Do it, or say why it is left.", missing=missing)


def by_hand(fitting: Fitting) -> list[str]:
    """The elements that are set with the board in the hand; panels set the others once there is power."""
    panels = {name for panel in fitting.replacement.document.get("panels", ()) for name in _panel_items(panel)}
    panels |= set(fitting.learned)
    return [each.id for each in fitting.replacement.elements if each.id not in panels]


def _panel_items(panel: dict[str, Any]) -> list[str]:
    return list(panel["items"]) if panel["kind"] == "menu" else [panel["element"]]


def differing_readbacks(case: Case, fitting: Fitting) -> list[str]:
    """Elements of the new board that read otherwise than planned; what a learning run found is not among them."""
    found = found_by_learning(case)
    plan = {name: value for name, value in planned_positions(case).items() if name not in found}
    return [name for name, each in case.state["readbacks"].items() if name in plan and plan[name] != each["value"]]


def missing_dead(case: Case, fitting: Fitting) -> list[str]:
    """What is not done yet on the dead machine, in words."""
    state = case.state
    found = []
    unset = [name for name in by_hand(fitting) if name not in state["readbacks"]]
    if unset:
        found.append(f"set and read back: {', '.join(unset)}")
    if wrong := differing_readbacks(case, fitting):
        found.append(f"reads otherwise than planned: {', '.join(wrong)}")
    short = [
        line.item for line in fitting.kit if line.needed == "needed" and state["kit"].get(line.item, 0) < line.count
    ]
    if short:
        found.append(f"not counted or missing from the kit: {', '.join(short)}")
    steps = fitting.wiring.plan.steps if fitting.wiring else ()
    if left := sum(step_key(step) not in state["ticked"] for step in steps):
        found.append(f"{left} of {len(steps)} wires, plugs and links not moved")
    open_looks = [
        look for look in fitting.looks if not look.key.startswith(WITH_POWER) and look.key not in state["looks"]
    ]
    groups = {"drill": "holes not drilled", "mount": "the board not mounted", "last look": "last looks open",
              "second look": "second looks open", "place": "places and leads not looked at"}  # fmt: skip
    for group, words in groups.items():
        if count := sum(look.group == group for look in open_looks):
            found.append(words if group == "mount" else f"{words}: {count}")
    found += still_off(case)
    if moving := [each["what"] for each in left_behind(case)]:
        found.append(f"not moved across, and not said to stay: {', '.join(moving)}")
    return found


def left_behind(case: Case) -> list[dict[str, Any]]:
    """The parts of the old board that go across and of which nobody said that they did, stay, or were not there."""
    return [
        each
        for each in original_of(case)[1].document.get("moves", ())
        if case.state["moving"].get(each["id"]) not in ("moved", "stays", "not there")
    ]


def still_off(case: Case) -> list[str]:
    """What came off and is not back on, in words."""
    off = [each["what"] for each in case.state["removed"].values() if not each["back"]]
    return [f"taken off and not back on: {', '.join(off[:6])}"] if off else []


def missing_powered(case: Case, fitting: Fitting) -> list[str]:
    """What is not done yet with the supply on, in words."""
    state = case.state
    found = []
    hand = by_hand(fitting)
    unread = [
        each.id for each in fitting.replacement.elements if each.id not in state["readbacks"] and each.id not in hand
    ]
    if unread:
        found.append(f"not read back: {', '.join(unread)}")
    if wrong := differing_readbacks(case, fitting):
        found.append(f"reads otherwise than planned: {', '.join(wrong)}")
    if open_looks := [each for each in fitting.looks if each.group == "entering" and each.key not in state["looks"]]:
        found.append(f"before anything is keyed in: {', '.join(each.about['need'].lower() for each in open_looks)}")
    if learns(case) and state["learned"] is None:
        found.append("the learning run")
    if left := [each["what"] for each in to_reenter(case) if each["id"] not in state["reentered"]]:
        found.append(f"not entered again: {', '.join(left)}")
    if other := [f"{each['what']} ({wanted_of(case, each)})" for each in entered_otherwise(case)]:
        found.append(f"shows otherwise than it was: {', '.join(other)}")
    return found


def kit_value(case: Case, name: str, after: int, given: Given) -> int:
    """How many of a kit's part there are."""
    if all(line.item != name for line in fitting_of_job(case).kit):
        raise WrongValue(f"The kit has no {name}.")
    return after


def readback_value(case: Case, name: str, after: ReadbackSaid, given: Given) -> dict[str, Any]:
    """A position read back from the new board, by somebody who did not look at the plan, or over the port."""
    return {"value": position(new_board(case), name, after["value"])}


def look_value(case: Case, name: str, after: Any, given: Given) -> bool:
    """Something looked at and found in order."""
    if all(look.key != name for look in fitting_of_job(case).looks):
        raise WrongValue(f"There is nothing called {name} to look at on this job. Load the page again.")
    return True


def ticked_value(case: Case, name: str, after: bool, given: Given) -> bool:
    """A step of the wiring plan that was done; one that cannot be taken back waits for its last look."""
    fitting = fitting_of_job(case)
    no_plug = fitting.no_plugs.get(name)
    if no_plug is not None and last_look_key(no_plug.plug) not in case.state["looks"]:
        raise Refusal("This step cuts, strips or crimps, and cannot be taken back. Have the last look first.")
    steps = {step_key(step): step for step in (fitting.wiring.plan.steps if fitting.wiring else ())}
    if name not in steps:
        raise WrongValue(f"There is no step {name} in the wiring plan. Load the page again.")
    _check_far_ends(case, fitting, steps[name])
    return after


def _check_far_ends(case: Case, fitting: Fitting, step: Step) -> None:
    """A lead to another board comes off once both its ends are recorded: afterwards nobody sees where it went."""
    wires = {each.wire.id: each.wire.connector for each in fitting.wiring.plan.wires} if fitting.wiring else {}
    for plug in dict.fromkeys([wires[each] for each in step.wires] + ([step.plug] if step.plug else [])):
        unrecorded = [far for far in leads_to(case, plug) if not done(turned(case.state, far), "record")]
        if unrecorded:
            titles = " and ".join(title_of(case.state, far) for far in unrecorded)
            raise Refusal(
                f"{plug} leads to {titles}. Record that board first: once the lead is off, nobody sees where it went."
            )


def reentered_value(case: Case, name: str, after: Any, given: Given) -> str:
    """What was entered into the new board in place of what the old one remembered, as it shows it afterwards."""
    if all(each["id"] != name for each in to_reenter(case)):
        raise WrongValue(f"There is nothing called {name} to enter again.")
    return str(after)


def learned_value(case: Case, name: str, after: LearnedSaid, given: Given) -> dict[str, Any]:
    """A learning run that was made: how many cycles, and what the display showed."""
    if not learns(case):
        raise WrongValue("Nothing is learned on this job.")
    if not after["shown"]:
        raise WrongValue("Write down what the board showed at the end.")
    missing = [look.about["need"] for look in fitting_of_job(case).looks
               if look.group == "learning" and look.key not in case.state["looks"]]  # fmt: skip
    if missing:
        raise Refusal(f"Before the learning run: {', '.join(missing).lower()}.")
    return dict(after)


def energised_value(case: Case, name: str, after: EnergisedSaid, given: Given) -> dict[str, Any]:
    """The supply put back on purpose: everything on the dead machine done, hold points released, the last one first."""
    expected = [each.id for each in points_of(case)][::-1]
    if after["released"] != expected:
        titles = [each.title for each in points_of(case)][::-1]
        raise WrongValue(f"Hold points are released from the last to the first: {', '.join(titles)}.")
    missing = [words for each in case.boards for words in _missing_of_board(each)]
    if missing and not given.reason.strip():
        raise Refusal(f"Before power: {'; '.join(missing)}. Do it, or say why it is left.", missing=missing)
    return {"released": expected, "left": missing, "reason": given.reason.strip()}


def ready_for_power(case: Case) -> bool:
    """Whether all that a board asks for on the dead machine is done, and the supply is still off."""
    state = case.state
    return state["energised"] is None and done(state, "carry_over") and not _missing_of_board(case)


def missing_beside(case: Case) -> list[str]:
    """What is not done yet on the machine's other boards before it gets power, in words."""
    return [words for each in case.beside for words in _missing_of_board(each)]


def _missing_of_board(case: Case) -> list[str]:
    """What is not done on one board of the machine; with its title where there are several."""
    state = case.state
    if cleared(state):
        missing = still_off(case)
    elif not done(state, "carry_over"):
        missing = ["not planned, so not fitted", *still_off(case)]
    else:
        missing = missing_dead(case, fitting_of_job(case))
    return [f"{title_of(state, state['board'])}: {words}" for words in missing] if several(state) else missing


CHECKS: dict[str, Check] = {
    "kit": kit_value, "readback": readback_value, "look": look_value, "ticked": ticked_value,
    "energised": energised_value, "learned": learned_value, "reentered": reentered_value,
}  # fmt: skip
