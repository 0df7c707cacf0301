"""Make safe: the hold points that a machine and a board need, and when each of them holds."""

from twincore.make_safe.dead import USUAL_V, Pair
from twincore.make_safe.points import FLAGS, KINDS, HoldPoint, hold_points
from twincore.make_safe.settling import Fault, above_limit, fault_of

__all__ = ["FLAGS", "KINDS", "USUAL_V", "Fault", "HoldPoint", "Pair", "above_limit", "fault_of", "hold_points"]
