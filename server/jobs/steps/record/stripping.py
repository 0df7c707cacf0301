"""The way in, as an earlier job took it: on this machine first, then on one of the same board; each piece offered for one tap."""

from django.db.models import Q

from jobs.models import Job
from jobs.queries import jobs_with
from twincore.job import current, sheets
from twinshown.steps.record.schemas import PieceShown, RouteShown

MOST_LOOKED_AT = 30


def route_shown(job: Job) -> RouteShown | None:
    """What came off on the way in the last time, in its order, without what is off here already; None where nobody logged it."""
    number = job.state["original"]
    same = Q(machine_key=job.machine_key)
    if number:
        same |= Q(pk__in=jobs_with(number).values("pk"))
    rows = (
        Job.objects.filter(same, depot=job.depot_id)
        .exclude(pk=job.pk)
        .exclude(state__removed={}, state__boards={})
        .select_related("depot")
        .order_by("-opened_at")[:MOST_LOOKED_AT]
    )
    jobs = sorted(rows, key=lambda each: each.machine_key != job.machine_key)
    off = [each for state in sheets(current(job.state)) for each in state["removed"].values()]
    here = {(each["what"], each["kind"]) for each in off}
    for other in jobs:
        every = [each for state in sheets(current(other.state)) for each in state["removed"].values()]
        pieces = sorted(every, key=lambda each: each["n"])
        if pieces:
            return RouteShown(
                of=f"{other.code}, {other.machine}",
                pieces=[
                    PieceShown(what=each["what"], kind=each["kind"], count=each["count"], place=each["place"])
                    for each in pieces
                    if (each["what"], each["kind"]) not in here
                ],
            )
    return None
