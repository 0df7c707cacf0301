"""What of the fitting is not done yet, in words: on the dead machine, with the supply on, and on the machine's other boards."""

from collections.abc import Mapping, Sequence
from typing import Any

from twincore.job.case import Case, original_of
from twincore.job.rules.boards import several, title_of
from twincore.job.rules.order import cleared, done
from twincore.job.shared.fitting import Fitting, by_hand, fitting_of_job
from twincore.job.shared.in_hand import is_read
from twincore.job.shared.kit_steps import steps_left
from twincore.job.shared.left import planned_positions
from twincore.job.shared.telling import entered_otherwise, found_by_learning, learns, to_reenter, wanted_of
from twincore.job.shared.wires import step_key
from twincore.job.targets.fit import WITH_POWER


def differing_readbacks(case: Case, fitting: Fitting) -> list[str]:
    """Elements of the new board that read otherwise than planned; what a learning run found is not among them."""
    found = found_by_learning(case)
    plan = {name: value for name, value in planned_positions(case).items() if name not in found}
    return [name for name, each in case.state["readbacks"].items() if name in plan and plan[name] != each["value"]]


def missing_dead(case: Case, fitting: Fitting) -> list[str]:
    """What is not done yet on the dead machine, in words."""
    state = case.state
    found = [] if is_read(case) else ["the number on the new board not read"]
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
    if unmoved := sum(step_key(step) not in state["ticked"] for step in steps):
        found.append(f"{unmoved} of {len(steps)} wires, plugs and links not moved")
    open_looks = [
        look for look in fitting.looks if not look.key.startswith(WITH_POWER) and look.key not in state["looks"]
    ]
    if left := steps_left(case):
        found.append(f"of the kit not fitted: {', '.join(left)}")
    groups = {"hand": "not looked at on the new board", "drill": "holes not drilled", "mount": "the board not mounted", "last look": "last looks open",
              "second look": "second looks open", "place": "places and leads not looked at"}  # fmt: skip
    for group, words in groups.items():
        if count := sum(look.group == group for look in open_looks):
            found.append(words if group == "mount" else f"{words}: {count}")
    found += still_off(case)
    if moving := [each["what"] for each in left_behind(case)]:
        found.append(f"not moved across, and not said to stay: {', '.join(moving)}")
    return found


def left_behind(case: Case) -> Sequence[Mapping[str, Any]]:
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


def ready_for_power(case: Case) -> bool:
    """Whether all that a board asks for on the dead machine is done, and the supply is still off."""
    state = case.state
    return state["energised"] is None and done(state, "carry_over") and not missing_of_board(case)


def missing_beside(case: Case) -> list[str]:
    """What is not done yet on the machine's other boards before it gets power, in words."""
    return [words for each in case.beside for words in missing_of_board(each)]


def missing_of_board(case: Case) -> list[str]:
    """What is not done on one board of the machine before it gets power; with its title where there are several."""
    state = case.state
    if cleared(state):
        missing = still_off(case)
    elif not done(state, "carry_over"):
        missing = ["not planned, so not fitted", *still_off(case)]
    else:
        missing = missing_dead(case, fitting_of_job(case))
    return [f"{title_of(state, state['board'])}: {words}" for words in missing] if several(state) else missing
