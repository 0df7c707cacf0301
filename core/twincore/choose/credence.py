"""How much a statement is worth: a Beta posterior over whether a pairing works, moved by what happened in the field."""

from dataclasses import dataclass

from twincore.choose.statements import WITH_SOURCE, WITHOUT_SOURCE
from twincore.heavy import load


@dataclass(frozen=True, slots=True)
class Credence:
    """The chance that a pairing works: mean and the interval that holds it nine times out of ten; and the counts."""

    mean: float
    low: float
    high: float
    worked: int
    failed: int


def credence(worked: int, failed: int, has_source: bool) -> Credence:
    """The Beta posterior of a pairing (conjugate prior of the binomial; Bayes, see any textbook of statistics)."""
    a, b = WITH_SOURCE if has_source else WITHOUT_SOURCE
    a, b = a + worked, b + failed
    quantile = load("scipy.special").betaincinv
    return Credence(a / (a + b), float(quantile(a, b, 0.05)), float(quantile(a, b, 0.95)), worked, failed)
