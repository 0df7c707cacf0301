"""What handing a stored job over rests on besides what its entries add up to."""

from datetime import datetime

from django.db.models import Q

from jobs.heads import rules_of
from jobs.models import Job
from jobs.sheets import sheets_of
from parts.queries import offers
from twinshown.steps.hand_over.view import Handing


def handing_of(job: Job, now: datetime) -> Handing:
    """The sheet at hand with what the parts desk said of the job's boards, why it was decided so, and the last entry's digest."""
    chosen = [name for each in sheets_of(job) if (name := each.state["replacement"])]
    decided = job.entries.filter(Q(target="school") | Q(target__startswith="decision.")).order_by("number")
    return Handing(
        rules=rules_of(job.depot),
        closed=job.closed_at is not None,
        offers=offers(chosen, now) if chosen else {},
        reasons={(board, target): reason for board, target, reason in decided.values_list("board", "target", "reason")},
        digest=last_digest(job),
    )


def last_digest(job: Job) -> str:
    """The digest of the last entry, empty where there is none."""
    return job.entries.order_by("-number").values_list("digest", flat=True).first() or ""
