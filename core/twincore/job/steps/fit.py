"""Fit: what makes a part of it done, on the dead machine and with the supply on."""

from typing import Any

from twincore.errors import Refusal, WrongValue
from twincore.job.case import Case, new_board, position
from twincore.job.given import Check, Given, said
from twincore.job.rules.boards import title_of, turned
from twincore.job.rules.order import done
from twincore.job.shared.between import leads_to
from twincore.job.shared.fitting import MOUNTED, Fitting, fitting_of_job, last_look_key
from twincore.job.shared.holds import points_of
from twincore.job.shared.in_hand import in_hand_value, is_read
from twincore.job.shared.kit_steps import kit_step_value
from twincore.job.shared.telling import learns, to_reenter
from twincore.job.shared.unfitted import missing_of_board, missing_powered
from twincore.job.shared.wires import step_key
from twincore.job.targets.fit import EnergisedSaid, LearnedSaid, ReadbackSaid
from twincore.wiring import Step


def check_confirmed(case: Case, note: str) -> None:
    """Refuse to call it fitted while something with the supply on is left and nobody says why."""
    if (missing := missing_powered(case, fitting_of_job(case))) and not said(note):
        raise Refusal(f"Not done yet: {'; '.join(missing)}. Do it, or say why it is left.", missing=missing)


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
    if name == MOUNTED and not is_read(case):
        raise Refusal("First read the number off the board in your hand: many look alike. Then mount it.")
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
    missing = [words for each in case.boards for words in missing_of_board(each)]
    if missing and not given.why:
        raise Refusal(f"Before power: {'; '.join(missing)}. Do it, or say why it is left.", missing=missing)
    return {"released": expected, "left": missing, "reason": given.why}


CHECKS: dict[str, Check] = {
    "kit": kit_value, "in_hand": in_hand_value, "kit_step": kit_step_value, "readback": readback_value, "look": look_value, "ticked": ticked_value,
    "energised": energised_value, "learned": learned_value, "reentered": reentered_value,
}  # fmt: skip
