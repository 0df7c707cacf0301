"""The state of a job as plain data, and what one entry does to it. Nothing here reads the database or the clock."""

from copy import deepcopy
from typing import Any

State = dict[str, Any]

STEPS = (
    "rule_out", "recognise", "choose", "make_safe", "record", "carry_over", "fit", "prove", "hand_over",
)  # fmt: skip
TARGETS = ("original", "replacement", "found", "override", "reason", "confirmed")


def empty_state() -> State:
    """A job about which nothing is known yet."""
    return {
        "original": None, "replacement": None, "found": {}, "how": {}, "overrides": {}, "reasons": {},
        "confirmed": {}, "left": None, "verdict": None,
    }  # fmt: skip


def value_at(state: State, target: str) -> Any:
    """What stands at a target now; None where nothing does."""
    kind, _, name = target.partition(".")
    match kind:
        case "original" | "replacement":
            return state[kind]
        case "found":
            return state["found"].get(name)
        case "override":
            return state["overrides"].get(name)
        case "reason":
            return state["reasons"].get(name)
    confirmed = state["confirmed"].get(name)
    return confirmed and {"note": confirmed["note"]}


def changed(state: State, target: str, value: Any, read_how: str = "") -> State:
    """The state after an entry; what the change makes untrue (a plan, a verdict) goes with it."""
    state = deepcopy(state)
    kind, _, name = target.partition(".")
    match kind:
        case "original":
            kept = {step: c for step, c in state["confirmed"].items() if step in ("rule_out", "make_safe")}
            state = empty_state() | {"original": value, "confirmed": kept}
        case "replacement":
            state["replacement"] = value
            state["overrides"], state["reasons"] = {}, {}
            _reopen(state, "carry_over", "fit", "prove")
        case "found":
            _set(state["found"], name, value)
            _set(state["how"], name, read_how or None)
            _reopen(state, "record", "carry_over", "fit", "prove")
        case "override":
            _set(state["overrides"], name, value)
            _reopen(state, "carry_over", "fit", "prove")
        case "reason":
            _set(state["reasons"], name, value)
            _reopen(state, "carry_over")
        case "confirmed":
            _set(state["confirmed"], name, value)
            if value is None:
                _reopen(state, *({"carry_over": ("fit", "prove"), "fit": ("prove",)}.get(name, ())))
    return state


def _set(names: dict[str, Any], name: str, value: Any) -> None:
    if value is None:
        names.pop(name, None)
    else:
        names[name] = value


def _reopen(state: State, *steps: str) -> None:
    for step in steps:
        state["confirmed"].pop(step, None)
    if "prove" in steps:
        state["verdict"] = None
    if "fit" in steps:
        state["left"] = None


def done(state: State, step: str) -> bool:
    """Whether a step is finished."""
    if step == "recognise":
        return state["original"] is not None
    if step == "choose":
        return state["replacement"] is not None
    return step in state["confirmed"]


def needs(step: str) -> tuple[str, ...]:
    """The steps that must be done before one can be worked on; the hold point stands before everything that is touched."""
    return {
        "choose": ("recognise",),
        "record": ("recognise", "make_safe"),
        "carry_over": ("choose", "record"),
        "fit": ("make_safe", "carry_over"),
        "prove": ("fit",),
        "hand_over": ("rule_out", "prove"),
    }.get(step, ())


def waiting_for(state: State, step: str) -> list[str]:
    """The steps that a step still waits for."""
    return [each for each in needs(step) if not done(state, each)]


def step_in_hand(state: State) -> str:
    """The first step, in the order of the work, that is not done and waits for nothing; the last one in the end."""
    return next((s for s in STEPS if not done(state, s) and not waiting_for(state, s)), STEPS[-1])


def step_of(target: str) -> str:
    """The step in which a target is worked on."""
    kind, _, name = target.partition(".")
    if kind == "confirmed":
        return name
    return {
        "original": "recognise", "replacement": "choose", "found": "record", "override": "carry_over",
        "reason": "carry_over",
    }[kind]  # fmt: skip
