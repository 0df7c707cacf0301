"""Every target of a job, declared once, step by step."""

from typing import cast

from twincore.job.target import Confirmation, Step, SupplyRule, Target
from twincore.job.targets import carry_over, choose, fit, hand_over, make_safe, prove, recognise, record, rule_out

TARGETS: dict[str, Target] = {
    target.kind: target
    for step in (rule_out, recognise, choose, make_safe, record, carry_over, fit, prove, hand_over)
    for target in step.TARGETS
}
"""By how entries call them."""

CONFIRMATIONS: dict[Step, Confirmation] = {
    each.step: each
    for each in (
        Confirmation("rule_out", supply="any", ends_job=True),
        Confirmation("recognise", supply="any"),
        Confirmation("choose", supply="any"),
        Confirmation("make_safe", supply="says off"),
        Confirmation("record", supply="any", settles="rejudged"),
        Confirmation("carry_over", supply="any", takes_back=("fit", "prove"), settles="rejudged"),
        Confirmation("fit", supply="any", takes_back=("prove",), settles="left"),
        Confirmation("prove", supply="any", settles="verdict"),
        Confirmation("hand_over", supply="any", ends_job=True),
    )
}
"""Beside the targets there is `confirmed.STEP`: that a step is done."""


def supply_rule(target: str) -> SupplyRule:
    """How the supply must stand for what is said at a target; nothing is asked of what is none."""
    kind, _, name = target.partition(".")
    declared = CONFIRMATIONS.get(cast(Step, name)) if kind == "confirmed" else TARGETS.get(kind)
    return "any" if declared is None else declared.supply


__all__ = ["CONFIRMATIONS", "TARGETS", "supply_rule"]
