"""What jobs ask of the depot, over HTTP."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Query, Router, Schema

from config.paging import Page, Paging, paged
from people.access import person_of
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
    found["items"] = [
        AskedShown(
            job=job.pk, code=job.code, machine=job.machine, complaint=job.complaint, original=job.state["original"],
            pictures=pictures.get(job.state["original"] or "", []),
            **{name: job.state["asked"][name] for name in ("what", "by", "at")},
        )
        for job in found["items"]
    ]  # fmt: skip
    return found
