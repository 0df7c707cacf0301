"""A state's parts changed: put under a name, taken out, emptied, confirmations taken back. The state before stays as it was."""

from typing import Any, cast

from twincore.job.state import ConfirmedKept, State, empty_state
from twincore.job.target import Step, Subject
from twincore.job.targets import TARGETS

GONE_WITH: dict[Subject, tuple[Subject, ...]] = {
    "kind": ("kind", "original", "replacement"), "original": ("original", "replacement"), "replacement": ("replacement",),
}  # fmt: skip
OUTLIVE_THE_ORIGINAL: tuple[Step, ...] = ("rule_out", "make_safe")
"""Confirmations that stay true whichever board it turns out to be."""


def without(state: State, subject: Subject) -> State:
    """The state without what speaks of something that turned out to be another."""
    gone = {target.key for target in TARGETS.values() if target.of in GONE_WITH[subject]}
    if subject != "replacement":
        gone |= {"how", "powered", "remembered", "refused", "left", "verdict", "confirmed"}
    fresh = empty_state()
    emptied = {name: fresh[name] for name in (*gone, "choice", "rejudged")}  # type: ignore[literal-required]
    kept: dict[str, ConfirmedKept] = {} if subject != "original" else {
        step: said for step, said in state["confirmed"].items() if step in OUTLIVE_THE_ORIGINAL
    }  # fmt: skip
    found = cast(State, {**state, **emptied})
    if subject != "replacement":
        found["confirmed"] = kept
    return found


def put(state: State, key: str, name: str, value: Any) -> None:
    """Put a value under a name, or take it out, in a part of its own: the state before shares the others."""
    everything = cast(dict[str, Any], state)
    part = everything[key]
    if value is not None:
        everything[key] = {**part, name: value}
    elif name in part:
        everything[key] = {each: kept for each, kept in part.items() if each != name}


def reopen(state: State, *steps: Step) -> None:
    """Take confirmations back, with what they settled."""
    for step in steps:
        put(state, "confirmed", step, None)
    if "prove" in steps:
        state["verdict"] = None
    if "fit" in steps:
        state["left"] = None
