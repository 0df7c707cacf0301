"""The way in, as an earlier job took it: on this machine first, then on one of the same board; each piece offered for one tap."""

from django.db.models import Q

from jobs.models import Job
from jobs.steps.record.schemas import PieceShown, RouteShown
from twincore.job import current

MOST_LOOKED_AT = 30


def route_shown(job: Job) -> RouteShown | None:
    """What came off on the way in the last time, in its order, without what is off here already; None where nobody logged it."""
    number = job.state["original"]
    same = Q(machine_key=job.machine_key)
    if number:
        same |= Q(state__original=number) | Q(state__replacement=number)
    rows = (
        Job.objects.filter(same, depot=job.depot_id)
        .exclude(pk=job.pk)
        .exclude(state__removed={})
        .select_related("depot")
        .order_by("-opened_at")[:MOST_LOOKED_AT]
    )
    jobs = sorted(rows, key=lambda each: each.machine_key != job.machine_key)
    here = {(each["what"], each["kind"]) for each in current(job.state)["removed"].values()}
    for other in jobs:
        pieces = sorted(current(other.state)["removed"].values(), key=lambda each: each["n"])
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
