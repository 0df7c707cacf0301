"""The one use case of an entry: whether a job takes it, what it brings along, and what stands afterwards."""

from dataclasses import replace
from datetime import datetime
from typing import Any, TypeVar

from twincore.job import EntryMade, Target, as_said, board_of, changed, value_at
from twincore.job.adding import brought, confirmation, declared, in_form, settled_by, value_of
from twincore.job.given import Given
from twincore.job.merging import merged
from twincore.job.steps.choose import choice_made
from twinshown.entering.accepting import NewEntry, check_open, check_unchanged, check_waiting, takes_back
from twinshown.entering.choosing import CHOOSING
from twinshown.entering.port import JobAtHand, Maker
from twinshown.refusals import Faulty, Refused

Adds = dict[str, Any] | None
Sheet = TypeVar("Sheet", bound=JobAtHand)
AT_THE_DEPOT = "This is looked up at the depot. It can be said again once there is a connection."


class NotTheMaker(Refused):
    """An entry that another person made and left on the device."""

    status, title = 403, "Made by somebody else"


def enter(job: Sheet, new: NewEntry, by: Maker, now: datetime) -> Sheet:
    """Add one entry and bring the job's state up to it; one that is there already changes nothing. The sheet that it was made on.

    Raises NotThere, Refused (closed, waiting, not possible), Faulty (a value that is none), Changed (somebody else changed the
    same thing since its maker looked), and what the core refuses.
    """
    if new.maker and new.maker != by.username:
        raise NotTheMaker("Another person made this entry. It waits on the device until that person signs in again.")
    if job.sent_before(new):
        return job
    target = declared(new.target)
    check_open(job.state, job.closed, job.brought_in, new.target)
    mends = takes_back(job.void, new)
    board = board_of(new.target, new.board)
    job = job.sheet(board)
    new = _joined(job, target, new)
    check_unchanged(job.state, new, job.last_said)
    if not mends:
        check_waiting(job.state, new)
    job.check_others(new)
    before = value_at(job.state, new.target)
    at = job.made_at(new, now)
    given = Given(by.shown_name, at, new.reason, new.read_how, by.id)
    value, adds = _said(job, target, new, given)
    made = EntryMade(
        job.entry_count + 1, at, by.shown_name, new.target, value, new.reason.strip(), new.read_how, adds or {}, board
    )  # fmt: skip
    job.state = changed(job.state, made)
    if mends:
        job.void = tuple(each for each in job.void if (each.target, each.board) != (made.target, made.board))
    job.keep(new, made, before)
    return job


def _joined(job: JobAtHand, target: Target | None, new: NewEntry) -> NewEntry:
    """The entry beside what somebody else said meanwhile of other places of the same element."""
    now = value_at(job.state, new.target)
    if target is None or target.by_place is None or now in (as_said(new.before), as_said(new.after)):
        return new
    value = merged(job.case(), target, new.target.partition(".")[2], new.before, new.after, now)
    return new if value is None else replace(new, before=now, after=value)


def _said(job: JobAtHand, target: Target | None, new: NewEntry, given: Given) -> tuple[Any, Adds]:
    """What is said, checked, and what the entry brings along from data that no entry holds."""
    name = new.target.partition(".")[2]
    if target is None:
        said = confirmation(job.case(), name, new.after)
        return said, None if said is None else _settled(job, name, given)
    if not target.offline and not job.at_depot:
        raise Refused(AT_THE_DEPOT)
    if target.chooses:
        value: Any = CHOOSING[target.kind](job, in_form(target, new.after))
    else:
        value = value_of(job.case(), target, name, new.after, given)
    return value, _brought(job, target, name, value, given)


def _brought(job: JobAtHand, target: Target, name: str, value: Any, given: Given) -> Adds:
    """What an entry brings along: told by the job and its boards, or by the place where the job is kept."""
    if target.kind in CAPTURED_HERE:
        adds = None if value is None else CAPTURED_HERE[target.kind](job, name, value, given)
    else:
        adds = brought(job.case(), target, name, value)
    return {**(adds or {}), **job.documents()} if target.chooses else adds


def _picture(job: JobAtHand, name: str, value: Any, given: Given) -> Adds:
    picture = job.picture(name)
    if picture is None:
        raise Faulty("Send the picture itself first.")
    return picture


def _closing(job: JobAtHand, name: str, value: Any, given: Given) -> Adds:
    return {"closed_as": job.closed_as()} if value["ok"] else None


def _choice(job: JobAtHand, name: str, value: Any, given: Given) -> Adds:
    return {"choice": choice_made(job.alternatives(given.now, value), value, given)}


CAPTURED_HERE = {"picture": _picture, "signed": _closing, "replacement": _choice}
"""What only the place where a job is kept can tell."""


def _settled(job: JobAtHand, step: str, given: Given) -> Adds:
    """What a confirmation brings along into the record."""
    match step:
        case "record" | "carry_over":
            return {"rejudged": job.rejudged(given.now)}
        case "hand_over":
            return {"by_id": given.person_id, **({} if job.second_person else {"closed_as": job.closed_as()})}
    return settled_by(job.case(), step)
