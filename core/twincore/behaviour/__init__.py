"""Behaviour: boards as timed machines; what they show, and whether two of them ever show anything different."""

from twincore.behaviour.functions import Offset
from twincore.behaviour.prove import CounterCase, Proof, Twin, make_twin, prove
from twincore.behaviour.simulate import Shown, run_board, simulate

__all__ = ["CounterCase", "Offset", "Proof", "Shown", "Twin", "make_twin", "prove", "run_board", "simulate"]
