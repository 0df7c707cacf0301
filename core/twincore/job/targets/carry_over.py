"""Carry over: whose school is followed, positions set by hand, reasons, the order of the wires."""

from twincore.job.target import Step, Target
from twincore.job.values import Position, Text
from twincore.settings.schools import School
from twincore.wiring.plan import Order

REOPENS: tuple[Step, ...] = ("carry_over", "fit", "prove")

TARGETS = (
    Target("school", "carry_over", School, "school", "replacement", named=False, takes_back=REOPENS),
    Target("order", "carry_over", Order, "order", "original", named=False, takes_back=REOPENS),
    Target("override", "carry_over", Position, "overrides", "replacement", takes_back=REOPENS),
    Target("decision", "carry_over", School, "decisions", "replacement", takes_back=REOPENS),
    Target("reason", "carry_over", Text, "reasons", "replacement", takes_back=("carry_over",)),
)
