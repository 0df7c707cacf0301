"""How a replacement did, at once and after a month: asked for, and counted into the cross-references."""

from datetime import datetime, timedelta
from typing import Any

from django.db.models import QuerySet

from config.errors import Faulty
from jobs.given import Given
from jobs.models import Job
from people.models import Person
from references.actions import count_outcome as count
from references.models import Outcome

MOMENTS = ("now", "later")
CALL_AFTER = timedelta(days=30)


def feedback_value(job: Job, name: str, after: Any, given: Given, person: Person, now: datetime) -> dict[str, Any]:
    """What somebody says of the replacement, at once (`now`) or after a month (`later`)."""
    if name not in MOMENTS:
        raise Faulty(f"Expected feedback.{' or feedback.'.join(MOMENTS)}.")
    if not isinstance(after, dict) or not {"result"} <= set(after) <= {"result", "note"}:
        raise Faulty('Expected {"result": how it did, "note": text}.')
    if after["result"] not in Outcome.Result.values:
        raise Faulty(f"Expected one of {', '.join(Outcome.Result.values)}.")
    note = after.get("note", "")
    if not isinstance(note, str) or len(note) > 2000:
        raise Faulty("Expected a text of at most 2,000 characters.")
    if after["result"] != Outcome.Result.WORKED and not note.strip():
        raise Faulty("Say what did not work, or what was changed: the next one who takes this pairing reads it.")
    return {
        "result": after["result"], "note": note.strip(), "by": person.shown_name, "at": now.isoformat(timespec="seconds"),
    }  # fmt: skip


def count_outcome(job: Job, now: datetime) -> None:
    """Bring what was said last into the counts of this pairing."""
    said: dict[str, Any] = job.state["feedback"]
    last = said.get("later") or said.get("now")
    count(job.pk, job.state["original"], job.state["replacement"], last["result"] if last else None, now)


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
