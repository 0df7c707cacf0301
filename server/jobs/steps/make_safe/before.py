"""What a person said of hold points in earlier jobs."""

from typing import Any
from uuid import UUID

from config.compiled import Compiled
from jobs.models import Job
from people.models import Person
from twincore.job import current
from twinshown.steps.make_safe.view import AsBefore

MOST_LOOKED_AT = 12
LASTING = ("where", "tag", "instrument")
"""What somebody says of a hold point that stays the same from job to job: looked at again, not typed again."""


BEFORE = Compiled(
    lambda depot, job: Job.objects.filter(depot=depot).exclude(pk=job).order_by("-changed_at")
    .values_list("machine_key", "family_revision__family", "state__holds", "state__energised")[:MOST_LOOKED_AT],
    depot=-1, job=UUID(int=0),
)  # fmt: skip


def as_before(job: Job, person: Person) -> AsBefore:
    """What this person said last: on this machine first, then of its kind, then anywhere."""
    rows = BEFORE(depot=job.depot_id, job=job.pk)
    kind = job.family_revision.family_id if job.family_revision else None
    nearest = sorted(rows, key=lambda row: (row[0] != job.machine_key, row[1] != kind))
    found: dict[str, dict[str, str]] = {}
    for _, _, holds, energised in nearest:
        state = current({"holds": holds or {}, "energised": energised})
        held = state["energised"]["held"] if state["energised"] else {}
        for name, kept in {**held, **state["holds"]}.items():
            said: dict[str, Any] = {**kept}
            if said["by"] == person.shown_name and not said.get("skipped"):
                lasts = {key: str(said[key]) for key in LASTING if said.get(key)}
                if lasts:
                    found.setdefault(name, lasts)
    return found
