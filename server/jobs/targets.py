"""What an entry says, checked: in its declared form first, then by its target's own rule; and what it brings along."""

from typing import Any
from uuid import UUID

from bench.comparing import exactly
from catalogue import queries as catalogue
from catalogue.models import Board
from catalogue.profiles import family_profile
from config.errors import Faulty, Refused
from jobs.finish import feedback, fit_values, handing, proving
from jobs.front import ruling_out
from jobs.front.choosing import choice_made
from jobs.given import Check, Given
from jobs.models import Job
from jobs.work import carrying, holding, recording
from twincore.errors import DocumentError
from twincore.job import STEPS, TARGETS, Target
from twincore.job.targets.recognise import FactSaid, PlateSaid
from twincore.match import ASSUMPTIONS, TOGETHER
from twincore.recognise import read_serial
from twincore.rule_out import UNKNOWN

MOST_NAMED = 400
OWN_COSTS = ("price", "minutes", "days")


def declared(target: str) -> Target | None:
    """The declaration of a target; None for the confirmation of a step. Raises Faulty where there is none such."""
    kind, _, name = target.partition(".")
    found = TARGETS.get(kind)
    if found is None and kind == "confirmed" and name in STEPS:
        return None
    if found is None or bool(name) != found.named:
        raise Faulty(f"There is nothing called {target} in a job.")
    return found


def value_of(job: Job, target: Target, name: str, after: Any, given: Given) -> Any:
    """What is said at a target; None takes it back. Raises Faulty or Refused with what is wrong and what to do."""
    if target.kind in BOARDS:
        return BOARDS[target.kind](job, _in_form(target, after))
    if after is None:
        return None
    if target.names and name not in target.names:
        raise Faulty(f"Expected one of {', '.join(target.names)}, found {name}.")
    if target.ids:
        _check_id(name)
    kept: dict[str, Any] = job.state[target.key] if target.named else {}
    if target.named and name not in kept and len(kept) >= MOST_NAMED:
        raise Refused(f"A job keeps at most {MOST_NAMED} of these. Take one out first.")
    said = _in_form(target, after)
    check = CHECKS.get(target.kind)
    return said if said is None or check is None else check(job, name, said, given)


def brings(job: Job, target: Target, name: str, value: Any, given: Given) -> dict[str, Any] | None:
    """What an entry brings along from data that no entry holds, so that it can be played again without them."""
    match target.kind:
        case "hold":
            return {"isolates": holding.isolates(job, name)}
        case _ if value is None:
            return None
        case "original":
            return recording.brought_by_original(job)
        case "replacement":
            return {"choice": choice_made(job, value, given)}
        case "test":
            told = value.get("result") in UNKNOWN
            return {"powered": not told and ruling_out.risk_of(job, name) != "dead"}
        case "cause":
            return {"blocks": ruling_out.blocks_power(job, name)}
    return None


def _in_form(target: Target, after: Any) -> Any:
    if after is None:
        return None
    try:
        return target.checked(after)
    except DocumentError as error:
        first = error.faults[0]
        words = f"{first.expected} for {first.place}" if first.place else first.expected
        raise Faulty(f"{words[0].upper()}{words[1:]}.", error.faults if first.place else ()) from error


def _check_id(name: str) -> None:
    try:
        UUID(name)
    except ValueError as error:
        raise Faulty(f"Expected an id made by the client, found {name[:40]}.") from error


def _family(job: Job, after: str | None) -> str | None:
    job.original_revision = job.replacement_revision = None
    if after is None:
        job.family_revision = None
        return None
    family = catalogue.family(after)
    job.family_revision = family.current
    return family.code


def _original(job: Job, after: str | None) -> str | None:
    job.replacement_revision = None
    if after is None:
        job.original_revision = None
        return None
    board = catalogue.board(after)
    job.original_revision = board.current
    if job.family_revision is None or job.family_revision.family_id != board.family_id:
        job.family_revision = board.family.current
    return board.part_number


def _replacement(job: Job, after: str | None) -> str | None:
    if after is None:
        job.replacement_revision = None
        return None
    if TOGETHER in after and not Board.objects.filter(part_number=after).exists():
        raise Refused("Nobody has written a profile of this set yet. Ask the parts lead to load one.")
    board = catalogue.board(after)
    assert job.family_revision is not None  # choose waits for recognise
    if board.family_id != job.family_revision.family_id:
        raise Refused(f"{board.part_number} is of another family ({board.family.title}).")
    job.replacement_revision = board.current
    return board.part_number


BOARDS = {"family": _family, "original": _original, "replacement": _replacement}


def _plate(job: Job, name: str, after: PlateSaid, given: Given) -> PlateSaid:
    if not after["text"]:
        raise Faulty("Type the number as it stands on the plate.")
    if all(each.id != after["scheme"] for each in catalogue.schemes_of()):
        raise Faulty(f"There is no nameplate scheme {after['scheme']}.")
    return after


def _serial(job: Job, name: str, after: str, given: Given) -> str:
    plate = job.state["plates"].get("plate")
    scheme = next((each for each in catalogue.schemes_of() if plate and each.id == plate["scheme"]), None)
    found = read_serial(after, scheme)
    if not found.ok and not given.reason.strip():
        raise Faulty(
            f"Expected {found.expected or 'a serial number'}. If it stands so on the plate, say so as the reason."
        )
    return " ".join(found.groups)


def _fact(job: Job, name: str, after: FactSaid, given: Given) -> FactSaid:
    value = after["value"].strip() if isinstance(after["value"], str) else after["value"]
    if value == "":
        raise Faulty("Give a value, or take the fact back.")
    exactly(value)
    return {"value": value, "source": after["source"]}


def _wish(job: Job, name: str, after: Any, given: Given) -> Any:
    assert job.family_revision_id is not None  # choose waits for recognise
    definition = family_profile(job.family_revision_id).function(name)
    if definition is None:
        raise Faulty(f"There is no function {name} in this family.")
    if not definition.accepts(exactly(after)):
        raise Faulty(f"{definition.title}: expected {definition.wanted_value()}.")
    return after


def _cost(job: Job, name: str, after: float, given: Given) -> float:
    if name not in (*ASSUMPTIONS, *OWN_COSTS):
        raise Faulty(f"Expected one of {', '.join((*ASSUMPTIONS, *OWN_COSTS))}, found {name}.")
    return after


CHECKS: dict[str, Check] = {
    "symptom": ruling_out.symptom_value, "test": ruling_out.test_value, "cause": ruling_out.cause_value,
    "plate": _plate, "serial": _serial, "fact": _fact, "wish": _wish, "cost": _cost, "hold": holding.hold_value,
    **recording.CHECKS, **carrying.CHECKS, **fit_values.CHECKS, **proving.CHECKS, **handing.CHECKS,
    "feedback": feedback.feedback_value,
}  # fmt: skip
"""Each target's own rule, beside its declared form."""
