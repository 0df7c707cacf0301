"""Fit: what each entry's value must be."""

from typing import Any

from catalogue.profiles import board_profile
from config.errors import Faulty, Refused
from jobs.finish.fitting import fitting_of_job, last_look_key, learns, missing_dead, replacement_of, to_reenter
from jobs.given import Check, Given
from jobs.models import Job
from jobs.work.carrying import check_planned
from jobs.work.holding import points_of
from jobs.work.recording import position
from twincore.job.targets.fit import EnergisedSaid, LearnedSaid, ReadbackSaid


def kit_value(job: Job, name: str, after: int, given: Given) -> int:
    """How many of a kit's part there are."""
    if all(line.item != name for line in fitting_of_job(job).kit):
        raise Faulty(f"The kit has no {name}.")
    return after


def readback_value(job: Job, name: str, after: ReadbackSaid, given: Given) -> dict[str, Any]:
    """A position read back from the new board, by somebody who did not look at the plan, or over the port."""
    return {"value": position(board_profile(replacement_of(job)), name, after["value"])}


def look_value(job: Job, name: str, after: Any, given: Given) -> bool:
    """Something looked at and found in order."""
    if all(look.key != name for look in fitting_of_job(job).looks):
        raise Faulty(f"There is nothing called {name} to look at on this job. Load the page again.")
    return True


def ticked_value(job: Job, name: str, after: bool, given: Given) -> bool:
    """A step of the wiring plan that was done; one that cannot be taken back waits for its last look."""
    fitting = fitting_of_job(job)
    if name in fitting.no_plugs and last_look_key(name) not in job.state["looks"]:
        raise Refused("This step cuts, strips or crimps, and cannot be taken back. Have the last look first.")
    check_planned(job, name)
    return after


def reentered_value(job: Job, name: str, after: Any, given: Given) -> str:
    """What was entered into the new board in place of what the old one remembered, as it shows it afterwards."""
    if all(each["id"] != name for each in to_reenter(job)):
        raise Faulty(f"There is nothing called {name} to enter again.")
    return str(after)


def learned_value(job: Job, name: str, after: LearnedSaid, given: Given) -> dict[str, Any]:
    """A learning run that was made: how many cycles, and what the display showed."""
    if not learns(job):
        raise Faulty("Nothing is learned on this job.")
    if not after["shown"]:
        raise Faulty("Write down what the board showed at the end.")
    missing = [look.about["need"] for look in fitting_of_job(job).looks
               if look.group == "learning" and look.key not in job.state["looks"]]  # fmt: skip
    if missing:
        raise Refused(f"Before the learning run: {', '.join(missing).lower()}.")
    return dict(after)


def energised_value(job: Job, name: str, after: EnergisedSaid, given: Given) -> dict[str, Any]:
    """The supply put back on purpose: everything on the dead machine done, hold points released, the last one first."""
    expected = [each.id for each in points_of(job)][::-1]
    if after["released"] != expected:
        titles = [each.title for each in points_of(job)][::-1]
        raise Faulty(f"Hold points are released from the last to the first: {', '.join(titles)}.")
    if (missing := missing_dead(job, fitting_of_job(job))) and not given.reason.strip():
        raise Refused(f"Before power: {'; '.join(missing)}. Do it, or say why it is left.", missing=missing)
    return {"released": expected, "left": missing, "reason": given.reason.strip()}


CHECKS: dict[str, Check] = {
    "kit": kit_value, "readback": readback_value, "look": look_value, "ticked": ticked_value,
    "energised": energised_value, "learned": learned_value, "reentered": reentered_value,
}  # fmt: skip
