"""How much a job's record may still grow: what is taken is what its package takes."""

import json

from jobs.models import Entry, Job
from twincore.chain import MOST_ENTRIES, MOST_SAID
from twincore.job import TARGETS
from twinshown.refusals import Refused

KEPT_FOR_ENDING = 0.9


def take_room(job: Job, entry: Entry) -> None:
    """Count what an entry says; refuse one for which a job has no room. The job is locked."""
    declared = TARGETS.get(entry.target.partition(".")[0])
    share = 1 if declared is None or declared.when_full else KEPT_FOR_ENDING
    job.said += len(json.dumps([entry.before, entry.after, entry.adds, entry.reason], ensure_ascii=False).encode())
    if entry.number > MOST_ENTRIES * share or job.said > MOST_SAID * share:
        raise Refused(
            f"This job is full: a record has at most {MOST_ENTRIES:,} entries and {MOST_SAID // 1_000_000} MB. "
            "Close it, and open another job for the same machine."
        )
