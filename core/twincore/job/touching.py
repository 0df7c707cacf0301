"""A state's parts changed: put under a name, taken out, confirmations taken back. The state before stays as it was."""

from typing import Any

from twincore.job.target import Step


def put(state: dict[str, Any], key: str, name: str, value: Any) -> None:
    """Put a value under a name, or take it out, in a part of its own: the state before shares the others."""
    part = state[key]
    if value is not None:
        state[key] = {**part, name: value}
    elif name in part:
        state[key] = {each: kept for each, kept in part.items() if each != name}


def reopen(state: dict[str, Any], *steps: Step) -> None:
    """Take confirmations back, with what they settled."""
    for step in steps:
        put(state, "confirmed", step, None)
    if "prove" in steps:
        state["verdict"] = None
    if "fit" in steps:
        state["left"] = None
