"""How much a job's record may still grow: what is taken is what its package takes."""

from django.db.models import F, Func, IntegerField, Sum, TextField, Value
from django.db.models.functions import Cast, Coalesce

from config.errors import Refused
from jobs.models import Job
from twincore.chain import MOST_ENTRIES, MOST_SAID

ENDING = ("confirmed", "signed", "hold", "energised", "correction", "feedback")
"""Kinds of entry that a full job still takes, so that it can be closed."""
KEPT_FOR_ENDING = 0.9
EVERY = 20
"""After so many entries it is added up again: the largest that may be said is some tens of kilobytes."""


def check_room(job: Job, target: str) -> None:
    """Refuse an entry for which a job has no room. The job is locked."""
    share = 1 if target.partition(".")[0] in ENDING else KEPT_FOR_ENDING
    if job.entry_count >= MOST_ENTRIES * share or _said(job) >= MOST_SAID * share:
        raise Refused(
            f"This job is full: a record has at most {MOST_ENTRIES:,} entries and {MOST_SAID // 1_000_000} MB. "
            "Close it, and open another job for the same machine."
        )


def _said(job: Job) -> int:
    if job.entry_count % EVERY:
        return 0
    sizes = [
        Coalesce(
            Func(Cast(F(name), TextField()), function="octet_length", output_field=IntegerField()),
            Value(0),
        )
        for name in ("before", "after", "adds", "reason")
    ]
    return int(job.entries.aggregate(said=Sum(sum(sizes[1:], sizes[0])))["said"] or 0)
