"""Behaviour: boards as timed machines; what they show, and whether two of them ever show anything different."""

from twincore.behaviour.changes import thresholds_of
from twincore.behaviour.drafting import Draft, draft_behaviour, drafted_board
from twincore.behaviour.functions import Offset
from twincore.behaviour.prove import CounterCase, Endless, Proof, Twin, make_twin, prove
from twincore.behaviour.simulate import Shown, run_board, simulate
from twincore.behaviour.traces import TraceChecked, TraceEvent, check_trace
from twincore.behaviour.why import Because, Move, why

__all__ = [
    "Because",
    "CounterCase",
    "Draft",
    "Endless",
    "Move",
    "Offset",
    "Proof",
    "Shown",
    "TraceChecked",
    "TraceEvent",
    "Twin",
    "check_trace",
    "draft_behaviour",
    "drafted_board",
    "make_twin",
    "prove",
    "run_board",
    "simulate",
    "thresholds_of",
    "why",
]
