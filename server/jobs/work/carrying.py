"""Carry over: whose school is followed, the wiring plan, and the key presses, from what the job holds."""

from dataclasses import dataclass
from typing import Any

from catalogue import queries as catalogue
from catalogue.profiles import adapters_of, board_profile, family_profile
from config.errors import Faulty
from jobs.comparison import comparison_of
from jobs.given import Check, Given
from jobs.models import Job
from jobs.work.recording import findings_of, position, wiring_of
from twincore.errors import LimitError
from twincore.profile import factory_record
from twincore.programming import PressPlan, plan_presses
from twincore.wiring import ORDERS, Adapter, Step, WiringFinding, WiringPlan, carry_wires


def school_value(job: Job, name: str, after: Any, given: Given) -> str:
    """The school that is followed; another than functions takes a reason."""
    return _school(job, after, given)


def decision_value(job: Job, name: str, after: Any, given: Given) -> str:
    """The school that is followed for one function."""
    if comparison_of(job).family.function(name) is None:
        raise Faulty(f"There is no function {name} to decide about.")
    return _school(job, after, given)


def override_value(job: Job, name: str, after: Any, given: Given) -> Any:
    """A position of the new board that a person sets otherwise."""
    assert job.replacement_revision_id is not None  # carrying over waits for the choice
    return position(board_profile(job.replacement_revision_id), name, after)


def reason_value(job: Job, name: str, after: str, given: Given) -> str:
    """Why the work goes on with a function that is not met, or open."""
    if comparison_of(job).family.function(name) is None:
        raise Faulty(f"There is no function {name} to give a reason for.")
    return after


def _school(job: Job, after: Any, given: Given) -> str:
    comparison = comparison_of(job)
    school = next(each for each in comparison.schools() if each.id == after)
    if school.record is None:
        raise Faulty("This school says nothing for this machine. Give the facts that would decide, or follow another.")
    if not given.reason.strip():
        raise Faulty("Say why this school is followed.")
    return str(after)


def check_planned(job: Job, name: str) -> None:
    """Refuse a step that the wiring plan does not have."""
    plan = wiring_plan(job)
    if plan is None or name not in {step_key(step) for step in plan.plan.steps}:
        raise Faulty(f"There is no step {name} in the wiring plan. Load the page again.")


def step_key(step: Step) -> str:
    """The name under which a step is ticked: what it moves, not its number, which may change."""
    return f"plug {step.plug}" if step.plug else f"wire {step.wires[0]}" if step.wires else f"link {step.place}"


@dataclass(frozen=True, slots=True)
class WiringOf:
    """The wiring plan of a job, with the findings that stand beside it."""

    plan: WiringPlan
    findings: list[WiringFinding]


def wiring_plan(job: Job) -> WiringOf | None:
    """The wiring plan; None where a board is not chosen or one of the profiles names no plugs."""
    if not (job.family_revision_id and job.original_revision_id and job.replacement_revision_id):
        return None
    original, replacement = board_profile(job.original_revision_id), board_profile(job.replacement_revision_id)
    if "connectors" not in original.document or "connectors" not in replacement.document:
        return None
    family = family_profile(job.family_revision_id)
    order = job.state.get("order") or ORDERS[0]
    try:
        plan = carry_wires(original, wiring_of(job), replacement, family, adapters_at_hand(), order)
    except LimitError as error:
        raise Faulty(f"{error}.") from error
    return WiringOf(plan, findings_of(job))


def adapters_at_hand() -> list[Adapter]:
    """The adapter leads of the catalogue."""
    return [each for revision in catalogue.guide_revisions("adapters") for each in adapters_of(revision)]


def press_plan(job: Job) -> PressPlan | None:
    """The presses from the factory's state to the plan; None where there is no plan or it leaves something open."""
    if job.replacement_revision_id is None or job.original_revision_id is None:
        return None
    record = comparison_of(job).plan_record()
    if record is None or record.unreadable:
        return None
    replacement = board_profile(job.replacement_revision_id)
    return plan_presses(replacement, factory_record(replacement), record)


CHECKS: dict[str, Check] = {
    "school": school_value, "decision": decision_value, "override": override_value, "reason": reason_value,
}  # fmt: skip
