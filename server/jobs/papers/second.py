"""Whether a second program agrees with a verdict that is printed: kept, made at once where that is quick, else in the background."""

from typing import NamedTuple

from bench.kept import keep_all, known
from jobs.background import ask_second_check
from jobs.cases import case_of
from jobs.models import Job
from jobs.sheets import sheets_of
from twincore.carry_over import Comparison
from twincore.certificate import accepted
from twincore.errors import TwinError
from twincore.job.record.second_check import ALIKE
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.left import left_record
from twincore.profile import Record


class Second(NamedTuple):
    """What a second program says, in words, and the certificate that it accepted; empty where there is none."""

    words: str
    certificate: str = ""


CHECKED, BEING, NOT = "checked by a second program", "being checked by a second program", "not checked a second time"


def second_told(job: Job, planned: bool = True) -> str | None:
    """What is printed beside a verdict on the plan, or on the board as it was left; None where the twin check claims nothing,
    or cannot be made.
    """
    found = _of(job, planned)
    return found and found.words


def second_of_left(job: Job) -> Second | None:
    """What a second program says of the verdict on the board as it was left; None where there is none yet, or it claims nothing."""
    return _of(job, planned=False) if job.state["verdict"] else None


def check_all(job: Job) -> None:
    """Have every verdict of a job checked, however long that takes."""
    for each in sheets_of(job):
        for planned in (True, False):
            _of(each, planned, at_once=False)


def _of(job: Job, planned: bool, at_once: bool = True) -> Second | None:
    if job.original_revision_id is None or job.replacement_revision_id is None:
        return None
    try:
        comparison = comparison_of(case_of(job))
        record = comparison.plan_record() if planned else left_record(case_of(job))
        if record is None or comparison.proof(record).verdict not in ALIKE:
            return None
        return _kept(job, comparison, record, at_once)
    except TwinError:
        return None


def _kept(job: Job, comparison: Comparison, record: Record, at_once: bool) -> Second:
    key = comparison.second_key(record)
    found = known([key]).get(key)
    if found is None:
        found = accepted(comparison.twin(record), at_once)
        if not found and at_once:
            ask_second_check(job.pk)
            return Second(BEING)
        keep_all({key: found})
    return Second(CHECKED, found) if found else Second(NOT)
