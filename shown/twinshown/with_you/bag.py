"""The jobs that somebody has along, as the browser asks about them: text in, text out."""

import json
from datetime import datetime
from typing import Any

from twincore.job import FIRST
from twinshown.entering.accepting import NewEntry
from twinshown.refusals import NotThere, Refused, problem_body
from twinshown.rendering import rendered
from twinshown.sheet.schemas import EntryGiven
from twinshown.with_you.along import enter
from twinshown.with_you.answering import ADDRESS, answer
from twinshown.with_you.bench import play_pair as play_pair
from twinshown.with_you.bench import put_in_pair as put_in_pair
from twinshown.with_you.practice import play_task as play_task
from twinshown.with_you.practice import put_in_task as put_in_task
from twinshown.with_you.taken import TakenJob

_jobs: dict[str, TakenJob] = {}


def put_in(document: str) -> str:
    """Have a job along, as it was taken; its id. What was entered since is entered again."""
    taken = TakenJob(json.loads(document))
    _jobs[taken.id] = taken
    return taken.id


def job_along(job: str) -> TakenJob:
    """A job that is along. Raises KeyError."""
    return _jobs[job]


def take_out(job: str) -> None:
    """Have a job along no longer."""
    _jobs.pop(job, None)


def ask(method: str, address: str, body: str, now: str) -> list[Any]:
    """The status and the body that an address of a job answers; `now` is the time by the depot's clock."""
    found = ADDRESS.fullmatch(address.partition("?")[0])
    taken = _jobs.get(found["job"]) if found else None
    if taken is None:
        return [404, rendered(problem_body(NotThere("This job was not taken along.")))]
    said = answer(taken, method, address, body, datetime.fromisoformat(now))
    return [said.status, said.body]


def add(sheet: str, entry: str, now: str) -> list[Any]:
    """Enter something on a sheet: a status, and why it is refused."""
    job, _, board = sheet.partition(".")
    taken = job_along(job)
    given = EntryGiven.model_validate_json(entry)
    new = NewEntry(
        given.id, given.target, given.before, given.after, given.reason, given.read_how, given.maker, board or FIRST,
        given.upon,
    )  # fmt: skip
    at = datetime.fromisoformat(now)
    try:
        enter(taken, new, at)
    except Refused as error:
        return [error.status, rendered(problem_body(error))]
    return [200, ""]
