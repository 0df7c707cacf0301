"""The key presses of a job, from the factory's state to the plan."""

from twincore.job.case import Case
from twincore.job.shared.comparison import comparison_of
from twincore.profile import factory_record
from twincore.programming import PressPlan, plan_presses


def press_plan(case: Case) -> PressPlan | None:
    """The presses from the factory's state to the plan; None where there is no plan or it leaves something open."""
    if case.replacement is None or case.original is None:
        return None
    record = comparison_of(case).plan_record()
    if record is None or record.unreadable:
        return None
    return plan_presses(case.replacement, factory_record(case.replacement), record)
