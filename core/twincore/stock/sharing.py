"""What so many pieces serve at best, and with which share of each kind."""

from collections.abc import Sequence
from math import floor
from typing import NamedTuple

from twincore.heavy import load
from twincore.stock.demand import expected_served, slope
from twincore.stock.program import CLOSE, ROUNDING, Group, Lines

ROUNDS = 40


class Share(NamedTuple):
    """Which share of a kind's failures is put right with a piece of a van."""

    kind: str
    van: str
    piece: str
    share: float


Shares = list[tuple[int, str, str, float]]
"""Of a kind by its index: van, piece, share."""


def best_shares(groups: Sequence[Group], held: Sequence[int]) -> tuple[float, Shares]:
    """What so many pieces serve at best, and with which share of each kind: a concave program by cutting planes
    (J. E. Kelley 1960).
    """
    numpy, optimize, sparse = load("numpy"), load("scipy.optimize"), load("scipy.sparse")
    mine = [(group, count) for group, count in zip(groups, held, strict=True) if count]
    if not mine:
        return 0.0, []
    size = sum(len(group.kinds) for group, _ in mine)
    unit = max(group.failures for group, _ in mine)
    aim, lines = numpy.zeros(size + len(mine)), Lines()
    of_kind: dict[int, list[int]] = {}
    spans: list[range] = []
    for index, (group, count) in enumerate(mine):
        start = spans[-1].stop if spans else 0
        spans.append(range(start, start + len(group.kinds)))
        aim[size + index] = -1.0
        for (kind, failures, worth), share in zip(group.kinds, spans[-1], strict=True):
            aim[share] = (1 - worth) * failures / unit
            of_kind.setdefault(kind, []).append(share)
        for failures in (0.0, group.failures / 2, group.failures):
            _cut(lines, group, count, spans[-1], size + index, failures, unit)
    for of_one in of_kind.values():
        lines.add([(share, 1.0) for share in of_one], 1.0)
    above = numpy.ones(size + len(mine))
    above[size:] = numpy.inf
    for _ in range(ROUNDS):
        matrix = sparse.csr_matrix((lines.value, (lines.row, lines.column)), shape=(len(lines.most), len(aim)))
        found = optimize.linprog(
            aim, A_ub=matrix, b_ub=lines.most, bounds=numpy.column_stack([aim * 0, above]), method="highs"
        )
        served, cut = -float(aim[:size] @ found.x[:size]) * unit, False
        for index, (group, count) in enumerate(mine):
            failures = sum(each * found.x[share] for (_, each, _), share in zip(group.kinds, spans[index], strict=True))
            real = expected_served(count, failures)
            served += real
            if found.x[size + index] > real / unit + CLOSE:
                _cut(lines, group, count, spans[index], size + index, failures, unit)
                cut = True
        if not cut:
            break
    shares = [
        (kind, group.van, group.piece, floor(found.x[share] * 1e6 + 0.5) / 1e6)
        for index, (group, _) in enumerate(mine)
        for (kind, _, _), share in zip(group.kinds, spans[index], strict=True)
        if found.x[share] > ROUNDING
    ]
    return served, shares


def _cut(lines: Lines, group: Group, count: int, shares: range, served: int, failures: float, unit: float) -> None:
    steep = slope(count, failures)
    tangent = [(share, -each * steep / unit) for (_, each, _), share in zip(group.kinds, shares, strict=True)]
    lines.add([(served, 1.0), *tangent], (expected_served(count, failures) - steep * failures) / unit)
