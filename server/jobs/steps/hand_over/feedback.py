"""What a job teaches: which boards went in for which, and how they did, at once and after a month."""

from collections.abc import Mapping
from datetime import datetime, timedelta
from typing import Any
from uuid import uuid5

from django.db.models import QuerySet

from jobs.models import Job
from people.models import Person
from references.actions import count_outcome as count
from stock.actions import Exchanged
from twincore.job import FIRST, sheets

CALL_AFTER = timedelta(days=30)


def count_outcome(job: Job, now: datetime) -> None:
    """Bring what was said last into the counts of this pairing; what is said of a machine counts for each of its boards."""
    said: dict[str, Any] = job.state["feedback"]
    last = said.get("later") or said.get("now")
    for state in sheets(job.state):
        if state["replacement"]:
            key = job.pk if state["board"] == FIRST else uuid5(job.pk, state["board"])
            count(key, str(state["original"]), state["replacement"], last["result"] if last else None, now)


def exchanged(job: Job) -> list[Exchanged]:
    """The boards that came out of a job's machine, and those that were left in it."""
    return [
        Exchanged(state["original"], state["replacement"], known_plainly(state["facts"]))
        for state in sheets(job.state)
        if state["left"] is not None and state["original"] and state["replacement"]
    ]


def known_plainly(facts: Mapping[str, Any]) -> dict[str, Any]:
    """What is known of a machine, as a list of machines has it: one value a fact."""
    values = {name: said["value"] for name, said in facts.items() if isinstance(said, dict) and "value" in said}
    return {name: value for name, value in values.items() if isinstance(value, str | int | float | bool)}


def calls_to_make(person: Person, now: datetime) -> QuerySet[Job]:
    """Closed jobs with a new board about which nobody has asked after a month, the longest waiting first."""
    return (
        Job.objects.filter(
            depot=person.depot_id, closed_at__lte=now - CALL_AFTER, origin__isnull=True,
            replacement_revision__isnull=False,
        )
        .exclude(state__feedback__has_key="later")
        .select_related("depot")
        .order_by("closed_at", "number")
    )  # fmt: skip
