"""What jobs ask of the depot, over HTTP."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Query, Router

from config.paging import paged
from jobs.models import Job
from people.access import person_of
from twincore.job import State, current
from twinshown.paging import Page, Paging
from twinshown.shapes import Schema
from workshop import asking

router = Router(tags=["workshop"])


class AskedShown(Schema):
    """What a job asks of the depot; its pictures are those of its original."""

    job: UUID
    code: str
    machine: str
    complaint: str
    what: str
    by: str
    at: str
    original: str | None
    pictures: list[UUID]


@router.get("/asked", response=Page[AskedShown])
def list_asked(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """What open jobs of the depot ask and nobody answered yet."""
    person = person_of(request)
    found = paged(asking.asked_of(person), paging, lambda job: job)
    pictures = asking.pictures_beside(person, found["items"])
    found["items"] = [_asked(job, current(job.state), pictures) for job in found["items"]]
    return found


def _asked(job: Job, state: State, pictures: dict[str, list[UUID]]) -> AskedShown:
    asked = state["asked"] or {"what": "What was asked cannot be read: open the job.", "by": "", "at": ""}
    return AskedShown(
        job=job.pk, code=job.code, machine=job.machine, complaint=job.complaint, original=state["original"],
        pictures=pictures.get(state["original"] or "", []), what=asked["what"], by=asked["by"], at=asked["at"],
    )  # fmt: skip
