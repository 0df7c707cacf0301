"""How often boards fail, where few failures were counted: drawn towards what is usual, by the beta-binomial model.

A machine either fails or not in a year: of so many machine-years so many had a failure. Rates of boards of one family scatter
as a beta distribution does; its two numbers are found from the rates that were counted (by moments), and each board's own
counts move it (A. Gelman and others, Bayesian Data Analysis, 3rd edition, sections 5.1 and 5.3, equation 5.6).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt

STRONGEST = 1000.0
"""Machine-years that what is usual counts for at most: rates that do not scatter at all are not taken for certain."""
WEAKEST = 2.0


@dataclass(frozen=True, slots=True)
class Beta:
    """A beta distribution of the share of machine-years with a failure; `a + b` is what it counts for, in machine-years."""

    a: float
    b: float

    @property
    def mean(self) -> float:
        """The rate that is expected, in failures a machine and year."""
        return self.a / (self.a + self.b)

    @property
    def deviation(self) -> float:
        """The standard deviation of the rate."""
        return sqrt(self.a * self.b / (self.a + self.b + 1)) / (self.a + self.b)


def prior_of(counts: Sequence[tuple[float, float]], usual: float, counts_for: float = 10.0) -> Beta:
    """What is usual among boards, from failures and machine-years of each.

    Where fewer than two boards have been counted, it is the `usual` rate with the weight of `counts_for` machine-years.
    Raises ValueError where there are more failures than machine-years, or the usual rate is none.
    """
    if not 0 < usual < 1:
        raise ValueError("the usual rate is a number above 0 and below 1")
    if any(not 0 <= failed <= years for failed, years in counts):
        raise ValueError("failures are at least 0 and at most one a machine and year")
    rates = [failed / years for failed, years in counts if years > 0]
    mean = sum(rates) / len(rates) if rates else usual
    if len(rates) < 2 or not 0 < mean < 1:
        return Beta(usual * counts_for, (1 - usual) * counts_for)
    variance = sum((each - mean) ** 2 for each in rates) / (len(rates) - 1)
    strength = mean * (1 - mean) / variance - 1 if variance > 0 else STRONGEST
    strength = min(max(strength, WEAKEST), STRONGEST)
    return Beta(mean * strength, (1 - mean) * strength)


def drawn(prior: Beta, failed: float, years: float) -> Beta:
    """The rate of one board: its own counts, drawn towards what is usual."""
    if not 0 <= failed <= years:
        raise ValueError("failures are at least 0 and at most one a machine and year")
    return Beta(prior.a + failed, prior.b + years - failed)
