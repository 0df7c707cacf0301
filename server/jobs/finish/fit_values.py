"""Fit: what each entry's value must be."""

from datetime import datetime
from typing import Any

from catalogue.profiles import board_profile
from config.errors import Faulty, Refused
from jobs.finish.fitting import fitting_of_job, last_look_key, learns, missing_dead, replacement_of, to_reenter
from jobs.given import Given
from jobs.models import Job
from jobs.work.holding import points_of
from jobs.work.recording import position
from people.models import Person


def kit_value(job: Job, name: str, after: Any, given: Given, person: Person, now: datetime) -> int:
    """How many of a kit's part there are."""
    if all(line.item != name for line in fitting_of_job(job).kit):
        raise Faulty(f"The kit has no {name}.")
    if isinstance(after, bool) or not isinstance(after, int) or not 0 <= after <= 1000:
        raise Faulty("Expected how many there are, from 0 to 1,000.")
    return after


def readback_value(job: Job, name: str, after: Any, given: Given, person: Person, now: datetime) -> dict[str, Any]:
    """A position read back from the new board, by somebody who did not look at the plan, or over the port."""
    if not isinstance(after, dict) or set(after) != {"value"}:
        raise Faulty('Expected {"value": position}.')
    value = position(board_profile(replacement_of(job)), name, after["value"])
    return {
        "value": value,
        "how": given.read_how or "by eye",
        "by": person.shown_name,
        "at": now.isoformat(timespec="seconds"),
    }


def look_value(job: Job, name: str, after: Any, given: Given, person: Person, now: datetime) -> bool:
    """Something looked at and found in order."""
    if after is not True:
        raise Faulty("Expected true.")
    if all(look.key != name for look in fitting_of_job(job).looks):
        raise Faulty(f"There is nothing called {name} to look at on this job. Load the page again.")
    return True


def check_step(job: Job, key: str) -> None:
    """Refuse a step that cannot be taken back before somebody had a last look."""
    fitting = fitting_of_job(job)
    if key in fitting.no_plugs and last_look_key(key) not in job.state["looks"]:
        raise Refused("This step cuts, strips or crimps, and cannot be taken back. Have the last look first.")


def reentered_value(job: Job, name: str, after: Any, given: Given, person: Person, now: datetime) -> str:
    """What was entered into the new board in place of what the old one remembered, as it shows it afterwards."""
    if all(each["id"] != name for each in to_reenter(job)):
        raise Faulty(f"There is nothing called {name} to enter again.")
    if not isinstance(after, str) or not after.strip() or len(after) > 2000:
        raise Faulty("Write down what the new board shows now.")
    return after.strip()


def learned_value(job: Job, name: str, after: Any, given: Given, person: Person, now: datetime) -> dict[str, Any]:
    """A learning run that was made: how many cycles, and what the display showed."""
    if not learns(job):
        raise Faulty("Nothing is learned on this job.")
    if not isinstance(after, dict) or set(after) != {"cycles", "shown"}:
        raise Faulty('Expected {"cycles": count, "shown": text}.')
    cycles, shown = after["cycles"], after["shown"]
    if isinstance(cycles, bool) or not isinstance(cycles, int) or not 0 <= cycles <= 1000:
        raise Faulty("Expected a count of cycles from 0 to 1,000.")
    if not isinstance(shown, str) or not shown.strip() or len(shown) > 200:
        raise Faulty("Write down what the board showed at the end.")
    missing = [look.about["need"] for look in fitting_of_job(job).looks
               if look.group == "learning" and look.key not in job.state["looks"]]  # fmt: skip
    if missing:
        raise Refused(f"Before the learning run: {', '.join(missing).lower()}.")
    return {"cycles": cycles, "shown": shown.strip(), "by": person.shown_name, "at": now.isoformat(timespec="seconds")}


def energised_value(job: Job, name: str, after: Any, given: Given, person: Person, now: datetime) -> dict[str, Any]:
    """The supply put back on purpose: everything on the dead machine done, hold points released, the last one first."""
    expected = [each.id for each in points_of(job)][::-1]
    if not isinstance(after, dict) or set(after) != {"released"}:
        raise Faulty('Expected {"released": [hold points in the order in which they were released]}.')
    if after["released"] != expected:
        titles = [each.title for each in points_of(job)][::-1]
        raise Faulty(f"Hold points are released from the last to the first: {', '.join(titles)}.")
    if (missing := missing_dead(job, fitting_of_job(job))) and not given.reason.strip():
        raise Refused(f"Before power: {'; '.join(missing)}. Do it, or say why it is left.", missing=missing)
    return {
        "released": expected, "held": job.state["holds"], "left": missing, "reason": given.reason.strip(),
        "by": person.shown_name, "at": now.isoformat(timespec="seconds"),
    }  # fmt: skip
