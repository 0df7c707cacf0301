"""Rule out: is it the board? Suspects, tests and what their results speak for."""

from twincore.rule_out.data import BOARD, Cause, Evidence, Expected, RuleOut, Suspect, Test, parse_rule_out
from twincore.rule_out.weigh import (
    SCHOOLS,
    UNKNOWN,
    Done,
    Report,
    Standing,
    Step,
    Suggestion,
    bayes,
    expected_bits,
    first_weights,
    next_tests,
    normalised,
    result_of,
    stand,
)

__all__ = [
    "BOARD",
    "SCHOOLS",
    "UNKNOWN",
    "Cause",
    "Done",
    "Evidence",
    "Expected",
    "Report",
    "RuleOut",
    "Standing",
    "Step",
    "Suggestion",
    "Suspect",
    "Test",
    "bayes",
    "expected_bits",
    "first_weights",
    "next_tests",
    "normalised",
    "parse_rule_out",
    "result_of",
    "stand",
]
