"""Prove on the machine: what to run, what must be seen and when, and what a measured run says."""

from twincore.prove.check_list import OWN, CheckLine, check_lines
from twincore.prove.data import FORCED, Forcing, Override, ReadingWanted, overrides_of, own_switches, readings_of
from twincore.prove.expected import Expected, expected_events
from twincore.prove.judging import OFF, Event, JudgedRun, compare_events, due_from_trace, judge_run
from twincore.prove.making import Kept, PlannedStep
from twincore.prove.planning import PlannedRun, ProvingPlan, plan_proving
from twincore.prove.reasons import Reason, likely_reasons

__all__ = [
    "FORCED",
    "OFF",
    "OWN",
    "CheckLine",
    "Event",
    "Expected",
    "Forcing",
    "JudgedRun",
    "Kept",
    "Override",
    "PlannedRun",
    "PlannedStep",
    "ProvingPlan",
    "ReadingWanted",
    "Reason",
    "check_lines",
    "compare_events",
    "due_from_trace",
    "expected_events",
    "judge_run",
    "likely_reasons",
    "overrides_of",
    "own_switches",
    "plan_proving",
    "readings_of",
]
