"""How much a job's record may still grow: what is taken is what its package takes."""

import json

from jobs.models import Entry, Job
from twincore.chain import MOST_ENTRIES, MOST_SAID
from twinshown.refusals import Refused

ENDING = ("confirmed", "signed", "hold", "energised", "correction", "feedback")
"""Kinds of entry that a full job still takes, so that it can be closed."""
KEPT_FOR_ENDING = 0.9


def take_room(job: Job, entry: Entry) -> None:
    """Count what an entry says; refuse one for which a job has no room. The job is locked."""
    share = 1 if entry.target.partition(".")[0] in ENDING else KEPT_FOR_ENDING
    job.said += len(json.dumps([entry.before, entry.after, entry.adds, entry.reason], ensure_ascii=False).encode())
    if entry.number > MOST_ENTRIES * share or job.said > MOST_SAID * share:
        raise Refused(
            f"This job is full: a record has at most {MOST_ENTRIES:,} entries and {MOST_SAID // 1_000_000} MB. "
            "Close it, and open another job for the same machine."
        )
