"""Carry over: whose school is followed, what is set by hand, and what is still to be decided before the plan stands."""

from typing import Any

from twincore.carry_over import disagreements
from twincore.errors import Refusal, WrongValue
from twincore.job.case import Case, new_board, position
from twincore.job.given import Check, Given
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.facts import codes_to_read
from twincore.job.shared.meanings import checked_meaning
from twincore.job.shared.placing import placed_value, plug_put_value
from twincore.job.shared.wires import plugs_taken_apart


def school_value(case: Case, name: str, after: Any, given: Given) -> str:
    """The school that is followed; another than functions takes a reason."""
    return _school(case, after, given)


def decision_value(case: Case, name: str, after: Any, given: Given) -> str:
    """The school that is followed for one function."""
    if comparison_of(case).family.function(name) is None:
        raise WrongValue(f"There is no function {name} to decide about.")
    return _school(case, after, given)


def override_value(case: Case, name: str, after: Any, given: Given) -> Any:
    """A position of the new board that a person sets otherwise."""
    return position(new_board(case), name, after)


def meaning_value(case: Case, name: str, after: Any, given: Given) -> Any:
    """What somebody says that positions mean, where no profile says it."""
    return checked_meaning(case, name, after)


def reason_value(case: Case, name: str, after: str, given: Given) -> str:
    """Why the work goes on with a function that is not met, or open."""
    if comparison_of(case).family.function(name) is None:
        raise WrongValue(f"There is no function {name} to give a reason for.")
    return after


def _school(case: Case, after: Any, given: Given) -> str:
    comparison = comparison_of(case)
    school = next(each for each in comparison.schools() if each.id == after)
    if school.record is None:
        raise WrongValue(
            "This school says nothing for this machine. Give the facts that would decide, or follow another."
        )
    if not given.why:
        raise WrongValue("Say why this school is followed.")
    return str(after)


def rows_needing_reason(case: Case) -> dict[str, str]:
    """Functions that the plan does not meet or leaves open, with their titles."""
    comparison = comparison_of(case)
    return {name: comparison.family.titles[name] for name in comparison.unmet()}


def rows_to_decide(case: Case) -> dict[str, str]:
    """Functions that the schools set differently, with their titles; none where one school is followed in everything."""
    comparison = comparison_of(case)
    if comparison.school is not None or comparison.followed() is not None:
        return {}
    as_found = comparison.undecided().wanted()
    found = disagreements(comparison.schools(), as_found, comparison.replacement, comparison.family)
    return {name: comparison.family.titles[name] for name in found}


def check_confirmed(case: Case, note: str) -> None:
    """Refuse a plan that sets nothing, or on which something is still to be decided."""
    comparison = comparison_of(case)
    if comparison.plan_record() is None:
        raise Refusal(
            "There are no positions that mean something on this board. Choose another replacement."
            if comparison.replacement.meanings_known
            else f"Nobody wrote down what the positions of {comparison.replacement.part_number} mean. Follow a school, or "
            "set each of them by hand."
        )
    state = case.state
    if undecided := [title for name, title in rows_to_decide(case).items() if name not in state["decisions"]]:
        raise Refusal(f"The schools disagree. Decide, and say why: {', '.join(undecided)}.")
    if apart := plugs_taken_apart(case):
        raise Refusal(
            f"The new board does not take {', '.join(apart)} complete. Record the wires of each, in Record, before one comes off."
        )
    if unread := [node["id"] for node in codes_to_read(case)]:
        raise Refusal(f"It stands on the plate. Read it there, or set it by hand: {', '.join(unread)}.")
    if missing := [title for name, title in rows_needing_reason(case).items() if name not in state["reasons"]]:
        raise Refusal(f"Give a reason for going on with: {', '.join(missing)}.")


CHECKS: dict[str, Check] = {
    "school": school_value, "decision": decision_value, "override": override_value, "reason": reason_value,
    "meaning": meaning_value, "placed": placed_value, "plug_put": plug_put_value,
}  # fmt: skip
