"""What each step checks: its targets' own rules, what is missing, and what its confirmation needs. No step reaches another."""

from twincore.job.given import Captured, Check
from twincore.job.steps import carry_over, choose, fit, hand_over, make_safe, prove, recognise, record, rule_out

CHECKS: dict[str, Check] = {
    kind: check
    for step in (rule_out, recognise, choose, make_safe, record, carry_over, fit, prove, hand_over)
    for kind, check in step.CHECKS.items()
}
"""Each target's own rule, beside its declared form."""
CAPTURED: dict[str, Captured] = {
    kind: captured for step in (rule_out, recognise, make_safe, record) for kind, captured in step.CAPTURED.items()
}
"""What entries bring along that is told by the job and its boards."""
CONFIRMED = {
    "make_safe": make_safe.check_confirmed, "record": record.check_confirmed, "carry_over": carry_over.check_confirmed,
    "fit": fit.check_confirmed, "prove": prove.check_confirmed, "hand_over": hand_over.check_confirmed,
}  # fmt: skip
"""What a step's confirmation needs; ruling out also takes how it ended."""
