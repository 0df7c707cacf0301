"""Carry over: a pair of boards compared whole: what each school would set, what the plan is, what the twin check says."""

from twincore.carry_over.closest import Closest, rate
from twincore.carry_over.comparing import Comparison, Keep, exactly, record_of, trimmer_reading, twin_key, work_out
from twincore.carry_over.outcome import Outcome, Word
from twincore.carry_over.schools import School, disagreements, schools_of, values_of
from twincore.carry_over.single import Single

__all__ = [
    "Closest",
    "Comparison",
    "Keep",
    "Outcome",
    "School",
    "Single",
    "Word",
    "disagreements",
    "exactly",
    "rate",
    "record_of",
    "schools_of",
    "trimmer_reading",
    "twin_key",
    "values_of",
    "work_out",
]
