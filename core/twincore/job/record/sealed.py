"""What the closing of a job seals, by which entries it closes, and what may still be said afterwards."""

from collections.abc import Mapping
from typing import Any

from twincore.job.targets import CONFIRMATIONS, TARGETS

LATER = frozenset(target.key for target in TARGETS.values() if target.later or target.ends_job)
"""What of a job's state comes with the closing, or after it."""
CLOSING = frozenset(
    [target.kind for target in TARGETS.values() if target.ends_job]
    + [f"confirmed.{step}" for step, each in CONFIRMATIONS.items() if each.ends_job]
)
"""The entries that may close a job; the one that does carries its seal."""
LATE = frozenset(target.key for target in TARGETS.values() if target.late)
"""Parts of the state that records of earlier versions do not have."""
HEAD = ("machine", "complaint", "number", "depot", "opened")


def as_recorded(state: Mapping[str, Any]) -> dict[str, Any]:
    """A state as a record has it: a part that came late stands there only where something is said in it."""

    def told(part: Mapping[str, Any]) -> dict[str, Any]:
        return {key: value for key, value in part.items() if value or key not in LATE}

    kept = told(state)
    if kept.get("boards"):
        kept["boards"] = {name: told(part) for name, part in kept["boards"].items()}
    return kept


def sealed_part(job: Mapping[str, Any]) -> dict[str, Any]:
    """What of a job's document the closing seals: its head, and its state but for the closing and what comes after it."""
    state = as_recorded(job.get("state") or {})
    confirmed = {step: value for step, value in state.get("confirmed", {}).items() if step != "hand_over"}
    kept = {key: value for key, value in state.items() if key not in LATER} | {"confirmed": confirmed}
    return {name: job.get(name) for name in HEAD} | {"state": kept}
