"""Differences of ages and counts, bounded from above: matrices in closed form (Bellman 1958; D. L. Dill 1989)."""

from collections.abc import Sequence

Bound = tuple[int, int]
"""(units, 1) for at most, (units, 0) for less than."""
Matrix = list[list[Bound]]
"""Bounds for each variable less each other one; variable 0 is zero."""
NO_BOUND: Bound = (1 << 60, 1)


def sum_of(a: Bound, b: Bound) -> Bound:
    """The bound of a sum of two differences."""
    if a[0] >= NO_BOUND[0] or b[0] >= NO_BOUND[0]:
        return NO_BOUND
    return (a[0] + b[0], a[1] & b[1])


def tighten(ages: Matrix, i: int, j: int, bound: Bound) -> Matrix | None:
    """The part in which variable i less variable j keeps a bound; None where there is none."""
    if bound >= ages[i][j]:
        return ages
    if sum_of(ages[j][i], bound) < (0, 1):
        return None
    found = [list(row) for row in ages]
    size = range(len(ages))
    for k in size:
        through = sum_of(ages[k][i], bound)
        for m in size:
            total = sum_of(through, ages[j][m])
            if total < found[k][m]:
                found[k][m] = total
    return found


def elapse(ages: Matrix, running: Sequence[int]) -> Matrix:
    """The same after any time, in which these variables grow together."""
    found = [list(row) for row in ages]
    for i in running:
        for j in range(len(ages)):
            if j not in running:
                found[i][j] = NO_BOUND
    return found


def become(ages: Matrix, variable: int, at_least: int | None) -> Matrix:
    """The same with a variable set to zero, or to anything from `at_least` on."""
    found = [list(row) for row in ages]
    for other in range(len(ages)):
        if other != variable:
            found[variable][other] = found[0][other] if at_least is None else NO_BOUND
            found[other][variable] = found[other][0] if at_least is None else sum_of(found[other][0], (-at_least, 1))
    return found


def add_one(ages: Matrix, variable: int) -> Matrix:
    """The same with a variable one more."""
    found = [list(row) for row in ages]
    for other in range(len(ages)):
        if other != variable:
            found[variable][other] = sum_of(found[variable][other], (1, 1))
            found[other][variable] = sum_of(found[other][variable], (-1, 1))
    return found


def inside(ages: Matrix, others: Matrix) -> bool:
    """Whether whatever keeps the bounds of one matrix keeps those of the other."""
    return all(a <= b for row, other in zip(ages, others, strict=True) for a, b in zip(row, other, strict=True))
