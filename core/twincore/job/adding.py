"""What a new entry says, checked, and what it brings along: all that can be told from the job and its boards."""

from typing import Any
from uuid import UUID

from twincore.errors import DocumentError, Refusal, WrongValue
from twincore.job.case import Case
from twincore.job.given import Given
from twincore.job.rules.order import STEPS, cleared
from twincore.job.rules.state import ConfirmedSaid
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.left import as_left, left_record
from twincore.job.steps import CAPTURED, CHECKS, CONFIRMED, recognise, rule_out
from twincore.job.target import Target, checked
from twincore.job.targets import TARGETS
from twincore.job.values import is_name

MOST_NAMED = 400
"""Values of one kind that a job keeps."""


def declared(target: str) -> Target | None:
    """The declaration of a target; None for the confirmation of a step. Raises WrongValue where there is none such."""
    kind, _, name = target.partition(".")
    found = TARGETS.get(kind)
    if found is None and kind == "confirmed" and name in STEPS:
        return None
    if found is None or bool(name) != found.named:
        raise WrongValue(f"There is nothing called {target} in a job.")
    if not is_name(name):
        raise WrongValue(f"Expected a name after {kind} that can be read and written.")
    return found


def in_form(target: Target, after: Any) -> Any:
    """A value in its declared form; None takes it back. Raises WrongValue."""
    if after is None:
        return None
    try:
        return target.checked(after)
    except DocumentError as error:
        first = error.faults[0]
        words = f"{first.expected} for {first.place}" if first.place else first.expected
        raise WrongValue(f"{words[0].upper()}{words[1:]}.", error.faults if first.place else ()) from error


def value_of(case: Case, target: Target, name: str, after: Any, given: Given) -> Any:
    """What is said at a target. Raises WrongValue or Refusal with what is wrong and what to do."""
    if after is None:
        if target.kind == "board":
            recognise.check_taken_out(case, name)
        return None
    if target.names and name not in target.names:
        raise WrongValue(f"Expected one of {', '.join(target.names)}, found {name}.")
    if target.ids:
        _check_id(name)
    kept: dict[str, Any] = case.state[target.key] if target.named else {}  # type: ignore[literal-required]
    if target.named and name not in kept and len(kept) >= MOST_NAMED:
        raise Refusal(f"A job keeps at most {MOST_NAMED} of these. Take one out first.")
    said = in_form(target, after)
    check = CHECKS.get(target.kind)
    return said if said is None or check is None else check(case, name, said, given)


def brought(case: Case, target: Target, name: str, value: Any) -> dict[str, Any] | None:
    """What an entry brings along from data that no entry holds, so that it can be played again without them."""
    if not target.captures or (value is None and not target.captures_always) or target.kind not in CAPTURED:
        return None
    return CAPTURED[target.kind](case, name, value)


def confirmation(case: Case, step: str, after: Any) -> ConfirmedSaid | None:
    """A step's confirmation; None takes it back. Refuses what the step does not allow yet."""
    if after is None:
        return None
    try:
        said: ConfirmedSaid = checked(ConfirmedSaid, after)
    except DocumentError as error:
        raise WrongValue('Expected {"note": text}.', error.faults) from error
    if step in ("recognise", "choose"):
        raise Refusal("This step is done by choosing a board.")
    if step == "rule_out":
        end = said.get("end", "condemned")
        rule_out.check_confirmed(case, said["note"], end)
        return {"note": said["note"], "end": end}
    if "end" in said:
        raise WrongValue('Expected {"note": text}.')
    CONFIRMED[step](case, said["note"])
    return said


def settled_by(case: Case, step: str) -> dict[str, Any] | None:
    """What a confirmation settles besides itself, as far as the job and its boards tell."""
    if step == "fit":
        return {"left": as_left(case)}
    if step == "prove" and not cleared(case.state):
        return {"verdict": comparison_of(case).proof(left_record(case)).verdict}
    return None


def _check_id(name: str) -> None:
    try:
        UUID(name)
    except ValueError as error:
        raise WrongValue(f"Expected an id made by the client, found {name[:40]}.") from error
