"""Every target of a job, declared once, step by step."""

from twincore.job.target import Target
from twincore.job.targets import carry_over, choose, fit, hand_over, make_safe, prove, recognise, record, rule_out

TARGETS: dict[str, Target] = {
    target.kind: target
    for step in (rule_out, recognise, choose, make_safe, record, carry_over, fit, prove, hand_over)
    for target in step.TARGETS
}
"""By how entries call them. Beside these there is `confirmed.STEP`: that a step is done."""

__all__ = ["TARGETS"]
