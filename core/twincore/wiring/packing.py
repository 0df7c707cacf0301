"""Set packing by branch and bound on its linear relaxation (HiGHS, through scipy), loaded when it is first needed.

One criterion after another, so that every number in it stays small and exact.
"""

from collections.abc import Mapping, Sequence

import numpy
from scipy.optimize import Bounds, LinearConstraint, milp

from twincore.errors import LimitError

LONGEST_S = 10.0


def pack(takes: Sequence[frozenset[str]], most: Mapping[str, int], criteria: Sequence[Sequence[int]]) -> list[int]:
    """The indices taken: of each thing at most so many, each criterion least in its order. Raises LimitError."""
    matrix = numpy.array([[name in take for take in takes] for name in most], dtype=float)
    limits = [LinearConstraint(matrix, ub=list(most.values()))]
    taken = numpy.zeros(len(takes))
    for criterion in criteria:
        costs = numpy.array(criterion, dtype=float)
        found = milp(
            costs, constraints=limits, integrality=numpy.ones(len(takes)), bounds=Bounds(0, 1),
            options={"mip_rel_gap": 0.0, "time_limit": LONGEST_S},
        )  # fmt: skip
        if found.status != 0:
            raise LimitError(f"wiring: the best choice of plugs and adapters was not proved within {LONGEST_S:g} s")
        taken = numpy.round(found.x)
        limits.append(LinearConstraint(costs[None, :], ub=float(costs @ taken)))
    return [index for index, share in enumerate(taken) if share]
