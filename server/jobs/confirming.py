"""Confirmations: what each step checks before it is done, and what its confirmation settles."""

from typing import Any

from bench.comparison_view import disagreements_shown
from config.errors import Faulty, Refused
from jobs.comparison import comparison_of
from jobs.finish.chaining import closed_as
from jobs.finish.fitting import as_left, fitting_of_job, left_record, missing_powered
from jobs.finish.handing import check_handed
from jobs.finish.proving import check_proved
from jobs.front.choosing import rejudged
from jobs.front.ruling_out import check_end
from jobs.given import Given
from jobs.models import Job
from jobs.work.holding import check_all_hold
from jobs.work.recording import missing_of
from twincore.errors import DocumentError
from twincore.job import ConfirmedSaid, checked

IN_REGISTER = ("identical", "within tolerance")


def confirmation(job: Job, step: str, after: Any) -> ConfirmedSaid | None:
    """A step's confirmation; None takes it back. Refuses what the step does not allow yet."""
    if after is None:
        return None
    try:
        said: ConfirmedSaid = checked(ConfirmedSaid, after)
    except DocumentError as error:
        raise Faulty('Expected {"note": text}.', error.faults) from error
    if step in ("recognise", "choose"):
        raise Refused("This step is done by choosing a board.")
    if step == "rule_out":
        end = said.get("end", "condemned")
        check_end(job, end, said["note"])
        return {"note": said["note"], "end": end}
    if "end" in said:
        raise Faulty('Expected {"note": text}.')
    checks = {
        "make_safe": _check_holds, "record": _check_record, "carry_over": _check_plan, "fit": _check_fitted,
        "prove": _check_verdict, "hand_over": check_handed,
    }  # fmt: skip
    checks[step](job, said["note"])
    return said


def settles(job: Job, step: str, said: ConfirmedSaid, given: Given) -> dict[str, Any] | None:
    """What a confirmation settles besides itself: what it brings along into the record."""
    match step:
        case "record":
            return {"rejudged": rejudged(job, given.now)}
        case "fit":
            return {"left": as_left(job)}
        case "prove":
            return {"verdict": comparison_of(job).proof(left_record(job)).verdict}
        case "hand_over":
            closing = {} if job.depot.second_person else {"closed_as": closed_as(job)}
            return {"by_id": given.person.pk, **closing}
        case "rule_out" if said.get("end") == "cleared":
            return {"closed_as": closed_as(job)}
    return None


def _check_holds(job: Job, note: str) -> None:
    check_all_hold(job)


def _check_record(job: Job, note: str) -> None:
    if missing := missing_of(job):
        raise Refused(
            f"The record is not complete: {'; '.join(missing)}. Record it, or mark what cannot be read as unreadable.",
            missing=missing,
        )


def _check_plan(job: Job, note: str) -> None:
    comparison = comparison_of(job)
    record = comparison.plan_record()
    if record is None:
        raise Refused("There are no positions that mean something on this board. Choose another replacement.")
    if undecided := [title for name, title in rows_to_decide(job).items() if name not in job.state["decisions"]]:
        raise Refused(f"The schools disagree. Decide, and say why: {', '.join(undecided)}.")
    from_plan = rows_needing_reason(job)
    if missing := [title for name, title in from_plan.items() if name not in job.state["reasons"]]:
        raise Refused(f"Give a reason for going on with: {', '.join(missing)}.")


def rows_needing_reason(job: Job) -> dict[str, str]:
    """Functions that the plan does not meet or leaves open, with their titles."""
    comparison = comparison_of(job)
    return {name: comparison.family.titles[name] for name in comparison.unmet()}


def rows_to_decide(job: Job) -> dict[str, str]:
    """Functions that the schools set differently, with their titles; none where one school is followed in everything."""
    if job.state["school"] is not None:
        return {}
    return {each.id: each.title for each in disagreements_shown(comparison_of(job))}


def _check_fitted(job: Job, note: str) -> None:
    if (missing := missing_powered(job, fitting_of_job(job))) and not note:
        raise Refused(f"Not done yet: {'; '.join(missing)}. Do it, or say why it is left.", missing=missing)


def _check_verdict(job: Job, note: str) -> None:
    verdict = comparison_of(job).proof(left_record(job)).verdict
    if verdict not in IN_REGISTER and not note:
        raise Refused(f"The twin check says: {verdict}. Give a reason for going on, or choose another replacement.")
    check_proved(job, note)
