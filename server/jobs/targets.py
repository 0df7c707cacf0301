"""What an entry's value must be: each target's own rule. The value as it is kept; None takes it back."""

from collections.abc import Callable
from datetime import datetime
from typing import Any

from bench.comparing import exactly
from catalogue import queries as catalogue
from catalogue.models import Board
from catalogue.profiles import board_profile, family_profile
from config.errors import Faulty, Refused
from jobs.comparison import comparison_of
from jobs.finish import feedback, fit_values, handing, proving
from jobs.front import ruling_out
from jobs.given import Given
from jobs.models import Job
from jobs.state import NAMED
from jobs.work import carrying, holding, recording
from people.models import Person
from twincore.match import ASSUMPTIONS, TOGETHER
from twincore.recognise import read_serial

FACT_SOURCES = ("plate", "display", "measured", "seen", "told")
REPORTS = ("code", "since", "pattern", "changed", "does")
PLATES = ("plate", "display")
REVISIONS = ("hardware", "firmware")
MOST_NAMED = 400
OWN_COSTS = ("price", "minutes", "days")


def value_of(job: Job, target: str, after: Any, given: Given, person: Person, now: datetime) -> Any:
    """The value to keep at a target. Raises Faulty or Refused with what is wrong and what to do."""
    kind, _, name = target.partition(".")
    match kind:
        case "family":
            return _family(job, after)
        case "original":
            return _original(job, after)
        case "replacement":
            return _replacement(job, after)
    if after is None:
        return None
    if kind in NAMED and name not in (kept := job.state[NAMED[kind][0]]) and len(kept) >= MOST_NAMED:
        raise Refused(f"A job keeps at most {MOST_NAMED} of these. Take one out first.")
    match kind:
        case "found":
            value = _position(job.original_revision_id, name, after)
            if value is not None and given.read_how not in recording.READ_HOW:
                raise Faulty(f"Say how it was read: {', '.join(recording.READ_HOW)}.")
            return value
        case "hold":
            return holding.hold_value(job, name, after, given.reason, person, now)
        case "override":
            return _position(job.replacement_revision_id, name, after)
        case "test":
            return ruling_out.test_value(job, name, after, person, now)
    if kind in recording.CHECKS:
        return recording.CHECKS[kind](job, name, after, person, now)
    if kind in FINISH:
        return FINISH[kind](job, name, after, given, person, now)
    return CHECKS[kind](job, name, after, given)


def text_of(value: Any, most: int = 2000) -> str | None:
    """A text as it is kept; an empty one is none."""
    if value is None or (isinstance(value, str) and not value.strip()):
        return None
    if not isinstance(value, str) or len(value) > most:
        raise Faulty(f"Expected a text of at most {most:,} characters.")
    return value.strip()


def _family(job: Job, after: Any) -> str | None:
    job.original_revision = job.replacement_revision = None
    if after is None:
        job.family_revision = None
        return None
    family = catalogue.family(str(after))
    job.family_revision = family.current
    return family.code


def _original(job: Job, after: Any) -> str | None:
    job.replacement_revision = None
    if after is None:
        job.original_revision = None
        return None
    board = catalogue.board(str(after))
    job.original_revision = board.current
    if job.family_revision is None or job.family_revision.family_id != board.family_id:
        # what was said of another kind of machine does not speak of this one
        job.state = {**job.state, "family": board.family_id, "symptoms": {}, "tests": {}, "causes": {}}
        job.family_revision = board.family.current
    return board.part_number


def _replacement(job: Job, after: Any) -> str | None:
    if after is None:
        job.replacement_revision = None
        return None
    if TOGETHER in str(after) and not Board.objects.filter(part_number=after).exists():
        raise Refused("Nobody has written a profile of this set yet. Ask the parts lead to load one.")
    board = catalogue.board(str(after))
    assert job.family_revision is not None  # choose waits for recognise
    if board.family_id != job.family_revision.family_id:
        raise Refused(f"{board.part_number} is of another family ({board.family.title}).")
    job.replacement_revision = board.current
    return board.part_number


def _position(revision_id: int | None, element: str, written: Any) -> Any:
    """A position as this board writes it, checked."""
    assert revision_id is not None  # the steps that need it wait for it
    return recording.position(board_profile(revision_id), element, written)


def _symptom(job: Job, name: str, after: Any, given: Given) -> str:
    ruling_out.check_symptom(job, name)
    return _one_of(after, ("yes", "no"))


def _report(job: Job, name: str, after: Any, given: Given) -> str | None:
    _known(name, REPORTS)
    return text_of(after)


def _cause(job: Job, name: str, after: Any, given: Given) -> dict[str, Any]:
    return ruling_out.cause_value(job, name, after)


def _plate(job: Job, name: str, after: Any, given: Given) -> dict[str, str]:
    _known(name, PLATES)
    if not isinstance(after, dict) or set(after) != {"text", "scheme"}:
        raise Faulty('Expected {"text": number, "scheme": scheme}.')
    text = text_of(after["text"], 80)
    if text is None:
        raise Faulty("Type the number as it stands on the plate.")
    if all(each.id != after["scheme"] for each in catalogue.schemes_of()):
        raise Faulty(f"There is no nameplate scheme {after['scheme']}.")
    return {"text": text, "scheme": after["scheme"]}


def _serial(job: Job, name: str, after: Any, given: Given) -> str | None:
    text = text_of(after, 80)
    if text is None:
        return None
    used = job.state.get("plates", {}).get("plate", {}).get("scheme")
    found = read_serial(text, next((each for each in catalogue.schemes_of() if each.id == used), None))
    if not found.ok and not given.reason.strip():
        raise Faulty(
            f"Expected {found.expected or 'a serial number'}. If it stands so on the plate, say so as the reason."
        )
    return " ".join(found.groups)


def _fact(job: Job, name: str, after: Any, given: Given) -> dict[str, Any]:
    if not isinstance(after, dict) or set(after) != {"value", "source"}:
        raise Faulty('Expected {"value": value, "source": source}.')
    value = after["value"]
    if isinstance(value, str):
        value = text_of(value, 200)
    if value is None:
        raise Faulty("Give a value, or take the fact back.")
    if not isinstance(value, str | bool | int | float):
        raise Faulty("Expected a number, a text, yes or no.")
    exactly(value)
    return {"value": value, "source": _one_of(after["source"], FACT_SOURCES)}


def _revision(job: Job, name: str, after: Any, given: Given) -> str | None:
    _known(name, REVISIONS)
    return text_of(after, 80)


def _feature(job: Job, name: str, after: Any, given: Given) -> str | None:
    return text_of(after, 200)


def _wish(job: Job, name: str, after: Any, given: Given) -> Any:
    assert job.family_revision_id is not None  # choose waits for recognise
    definition = family_profile(job.family_revision_id).function(name)
    if definition is None:
        raise Faulty(f"There is no function {name} in this family.")
    if not definition.accepts(exactly(after)):
        raise Faulty(f"{definition.title}: expected {definition.wanted_value()}.")
    return after


def _cost(job: Job, name: str, after: Any, given: Given) -> float:
    _known(name, (*ASSUMPTIONS, *OWN_COSTS))
    if isinstance(after, bool) or not isinstance(after, int | float) or not 0 <= after <= 1_000_000:
        raise Faulty("Expected a number from 0 to 1,000,000.")
    return after


def _reason(job: Job, name: str, after: Any, given: Given) -> str | None:
    if comparison_of(job).family.function(name) is None:
        raise Faulty(f"There is no function {name} to give a reason for.")
    return text_of(after)


def _power(job: Job, name: str, after: Any, given: Given) -> str:
    if after != "on":
        raise Faulty('Expected "on": the supply is off when it is locked off.')
    return "on"


def _answers(job: Job, name: str, after: Any, given: Given) -> str:
    return _one_of(after, ("yes", "no"))


def _ticked(job: Job, name: str, after: Any, given: Given) -> bool:
    fit_values.check_step(job, name)
    return carrying.ticked_value(job, name, after)


def _known(name: str, names: tuple[str, ...]) -> None:
    if name not in names:
        raise Faulty(f"Expected one of {', '.join(names)}, found {name}.")


def _one_of(value: Any, choices: tuple[str, ...]) -> str:
    if value not in choices:
        raise Faulty(f"Expected one of {', '.join(choices)}.")
    return str(value)


CHECKS: dict[str, Callable[[Job, str, Any, Given], Any]] = {
    "symptom": _symptom, "report": _report, "cause": _cause, "plate": _plate, "serial": _serial, "fact": _fact,
    "revision": _revision, "feature": _feature, "wish": _wish, "cost": _cost, "reason": _reason, "power": _power,
    "answers": _answers, "school": carrying.school_value, "decision": carrying.decision_value,
    "order": carrying.order_value, "ticked": _ticked,
}  # fmt: skip
FINISH: dict[str, Callable[[Job, str, Any, Given, Person, datetime], Any]] = {
    "kit": fit_values.kit_value, "readback": fit_values.readback_value, "look": fit_values.look_value,
    "energised": fit_values.energised_value, "learned": fit_values.learned_value, "reentered": fit_values.reentered_value,
    "run": proving.run_value, "reading": proving.reading_value, "forced": proving.forced_value,
    "defect": handing.defect_value, "numbered": handing.numbered_value, "old_board": handing.old_board_value,
    "spent": handing.spent_value, "signed": handing.signed_value, "correction": handing.correction_value,
    "feedback": feedback.feedback_value,
}  # fmt: skip
