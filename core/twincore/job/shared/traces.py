"""Traces of a job: what a live board was seen to do, run by run."""

import json
from typing import Any

from twincore.errors import DocumentError, WrongValue
from twincore.job.case import Case, original_of
from twincore.job.targets.record import MOST_TRACED, TraceSaid
from twincore.profile import Family, Trace, parse_trace

TRACE_KEYS = ("title", "steps", "seen", "until", "timed")


def check_length(after: TraceSaid) -> None:
    """Refuse a trace or run with more events than one is kept with."""
    if len(after.get("steps", ())) + len(after.get("seen", ())) > MOST_TRACED:
        raise WrongValue(f"Expected at most {MOST_TRACED} events in one trace.")


def traces_of(case: Case) -> dict[str, Trace]:
    """What the live original was seen to do, run by run."""
    return {
        name: read_own_trace(case, {key: value for key, value in node.items() if key in TRACE_KEYS})
        for name, node in case.state["traces"].items()
    }


def read_own_trace(case: Case, node: dict[str, Any]) -> Trace:
    """A trace of the original from plain data."""
    family, board = original_of(case)
    return read_trace(family, board.part_number, node)


def read_trace(family: Family, part_number: str, node: dict[str, Any]) -> Trace:
    """A trace of a board from plain data. Raises Faulty with every fault and its place."""
    document = {"format": "worthy-twin/trace", "version": 1, "part_number": part_number, **node}
    try:
        return parse_trace(json.dumps(document).encode(), family)
    except DocumentError as error:
        raise WrongValue("The trace cannot be kept.", error.faults) from error
