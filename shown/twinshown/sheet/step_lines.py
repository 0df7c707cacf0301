"""The nine steps of a job's sheet, each folded to one line of result."""

from datetime import datetime

from twincore.job import STEPS, State, Step, settled, standing, waiting_for
from twincore.job.rules.state import ConfirmedKept
from twinshown.sheet.schemas import StepState
from twinshown.words.steps import NAMES

ENDS = {"condemned": "Board condemned", "cleared": "Board cleared", "undecided": "Undecided, going on"}


OTHERS = {
    "cause": "the cause of the board's death to be cleared",
    "energised": "the supply to be on again",
    "boards": "the machine's other boards",
}


def waiting_words(each: str) -> str:
    """What a step waits for, in words."""
    return NAMES.get(each, OTHERS.get(each, each)).lower()


def steps_of(state: State, closed: bool) -> list[StepState]:
    """Every step with its state and result, from the job's own data alone."""
    return [_step(state, step, closed) for step in STEPS]


def _step(state: State, step: Step, closed: bool) -> StepState:
    finished = settled(state, step)
    confirmed = state["confirmed"].get(step)
    return StepState(
        id=step,
        name=NAMES[step],
        state=standing(state, step, closed),
        result=_result(state, step, closed, confirmed) if finished else "",
        waits_for=waiting_for(state, step),
        note=confirmed["note"] if confirmed else None,
        end=confirmed.get("end") if confirmed else None,
        by=confirmed["by"] if confirmed else "",
        at=datetime.fromisoformat(confirmed["at"]) if confirmed else None,
    )


def _result(state: State, step: str, closed: bool, confirmed: ConfirmedKept | None) -> str:
    match step:
        case "rule_out":
            end = confirmed.get("end", "condemned") if confirmed else "condemned"
            return f"{ENDS[end]}{_note(confirmed)}"
        case "recognise":
            return f"Original: {state['original']}"
        case "choose":
            return f"Replacement: {state['replacement']}"
        case "make_safe":
            if state.get("energised") is not None:
                return "Released in order; the supply is on again"
            return _held(state) + _note(confirmed)
        case "record":
            return _positions(state)
        case "carry_over":
            decided = len(state["reasons"]) + len(state.get("decisions", {})) + bool(state.get("school"))
            told = f", {decided} decision{'s' if decided != 1 else ''} with a reason" if decided else ""
            return f"Plan confirmed{told}"
        case "prove":
            return f"{str(state['verdict']).capitalize()}{_note(confirmed)}"
        case "hand_over":
            return "Closed" if closed else "Handed over; a second person signs"
    return f"Confirmed{_note(confirmed)}"


def _note(confirmed: ConfirmedKept | None) -> str:
    return f": {confirmed['note']}" if confirmed and confirmed["note"] else ""


def _held(state: State) -> str:
    skipped = sum(bool(each.get("skipped")) for each in state.get("holds", {}).values())
    held = len(state.get("holds", {})) - skipped
    if not held and not skipped:
        return "Confirmed"
    return f"{held} hold point{'s' if held != 1 else ''} confirmed" + (f", {skipped} skipped" if skipped else "")


def _positions(state: State) -> str:
    shown = ", ".join(f"{name} {value}" for name, value in list(state["found"].items())[:4])
    more = len(state["found"]) - 4
    # the drawings show banks as they hang; what is written as a row says in which order
    banks = any(set(str(value)) <= set("01?") and len(str(value)) > 1 for value in state["found"].values())
    return f"Read{', place 1 first' if banks else ''}: {shown}" + (f" and {more} more" if more > 0 else "")
