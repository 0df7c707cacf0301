"""A job's sheet from its entries alone: each step with how it stands, and what was recorded."""

from collections.abc import Mapping
from typing import Any

from twincore.job.order import STEPS, standing, step_in_hand, waiting_for
from twincore.job.replay import replay


def sheet_of(document: Mapping[str, Any]) -> dict[str, Any]:
    """The sheet of a job's document, as the command line prints it. Raises DocumentError at an entry that is none."""
    found = replay(document["entries"])
    state, closed = found.state, bool(document.get("closed_at"))
    return {
        "job": document.get("number"),
        "machine": document.get("machine"),
        "complaint": document.get("complaint", ""),
        "entries": len(document["entries"]),
        "step": step_in_hand(state),
        "steps": [
            {"id": step, "state": standing(state, step, closed), "waits_for": waiting_for(state, step)}
            for step in STEPS
        ],
        "untold": sorted(found.untold),
        "state": {key: value for key, value in state.items() if value not in (None, {}, [])},
    }
