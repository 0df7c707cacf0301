"""What open jobs ask of the depot: a board to be completed, a marking to be told; the parts lead answers in the job."""

from collections import defaultdict
from uuid import UUID

from django.db.models import QuerySet

from catalogue.models import BoardPicture
from jobs.models import Job
from people.models import Person
from twincore.job import current

MOST_PICTURES = 6


def asked_of(person: Person) -> QuerySet[Job]:
    """The depot's open jobs that wait for an answer, the one that waits longest first."""
    rows = Job.objects.filter(depot=person.depot_id, closed_at=None, state__asked__what__isnull=False)
    return rows.filter(state__answered=None).select_related("depot").order_by("state__asked__at", "pk")


def pictures_beside(person: Person, jobs: list[Job]) -> dict[str, list[UUID]]:
    """The depot's pictures of the boards that jobs have as originals, by their numbers; one query."""
    numbers = [number for job in jobs if (number := current(job.state)["original"])]
    found: dict[str, list[UUID]] = defaultdict(list)
    for each in BoardPicture.objects.filter(depot=person.depot_id, part_number__in=numbers):
        if len(found[each.part_number]) < MOST_PICTURES:
            found[each.part_number].append(each.pk)
    return found
