"""Confirmations: what a step settles besides itself, from the catalogue and the depot."""

from typing import Any

from jobs.candidates import rejudged
from jobs.cases import case_of
from jobs.ledger.chaining import closed_as
from jobs.models import Job
from twincore.job.adding import settled_by
from twincore.job.given import Given


def settles(job: Job, step: str, given: Given) -> dict[str, Any] | None:
    """What a confirmation brings along into the record."""
    match step:
        case "record":
            return {"rejudged": rejudged(job, given.now)}
        case "hand_over":
            closing = {} if job.depot.second_person else {"closed_as": closed_as(job)}
            return {"by_id": given.person_id, **closing}
    return settled_by(case_of(job), step)
