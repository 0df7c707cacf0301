"""What so many pieces serve at best, and with which share of each kind."""

from collections.abc import Sequence
from dataclasses import replace
from math import floor
from typing import NamedTuple

from twincore.stock.demand import expected_served
from twincore.stock.program import CLOSE, ROUNDING, Cut, Group, Program

ROUNDS = 40
BEGIN = (0.5, 1.0)
"""Tangents to begin with: at these shares of all the failures that a group may serve."""


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
    mine = [replace(group, most=count) for group, count in zip(groups, held, strict=True) if count]
    if not mine:
        return 0.0, []
    cuts = [[Cut(group.most, group.failures * share) for share in BEGIN] for group in mine]
    for _ in range(ROUNDS):
        program = Program(mine, [], cuts)
        program.limits[: program.places.shares[0].start, 0] = 1.0  # all of it is carried
        found = program.relaxed()
        served, added = 0.0, False
        for group, shares, place, known in zip(mine, program.places.shares, program.places.served, cuts, strict=True):
            planned = [failures * found.x[share] for (_, failures, _), share in zip(group.kinds, shares, strict=True)]
            real = expected_served(group.most, sum(planned))
            served += real - sum((1 - worth) * each for (_, _, worth), each in zip(group.kinds, planned, strict=True))
            if found.x[place] > real / program.unit + CLOSE:
                known.append(Cut(group.most, sum(planned)))
                added = True
        if not added:
            break
    return served, [
        (kind, group.van, group.piece, floor(found.x[share] * 1e6 + 0.5) / 1e6)
        for group, shares in zip(mine, program.places.shares, strict=True)
        for (kind, _, _), share in zip(group.kinds, shares, strict=True)
        if found.x[share] > ROUNDING
    ]
