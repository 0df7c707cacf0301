"""What a person said of hold points in earlier jobs."""

from typing import Any

from jobs.models import Job
from people.models import Person
from twincore.job import current
from twinshown.steps.make_safe.view import AsBefore

MOST_LOOKED_AT = 12
LASTING = ("where", "tag", "instrument")
"""What somebody says of a hold point that may be the same the next time: offered, never filled in."""


def as_before(job: Job, person: Person) -> AsBefore:
    """What this person said last of the hold points of this very machine; of another machine's nothing is offered."""
    found: dict[str, dict[str, str]] = {}
    others = (
        Job.objects.filter(depot=job.depot_id, machine_key=job.machine_key).exclude(pk=job.pk).order_by("-changed_at")
    )
    for holds, energised in others.values_list("state__holds", "state__energised")[:MOST_LOOKED_AT]:
        state = current({"holds": holds or {}, "energised": energised})
        held = state["energised"]["held"] if state["energised"] else {}
        for name, kept in {**held, **state["holds"]}.items():
            said: dict[str, Any] = {**kept}
            if said["by"] == person.shown_name and not said.get("skipped"):
                lasts = {key: str(said[key]) for key in LASTING if said.get(key)}
                if lasts:
                    found.setdefault(name, lasts)
    return found
