"""What so many pieces serve at best, and with which share of each kind."""

from collections.abc import Sequence
from dataclasses import replace
from math import floor
from typing import NamedTuple

from twincore.stock.demand import expected_served
from twincore.stock.program import CLOSE, ROUNDING, Cut, Group, Program

ROUNDS = 40
ENOUGH = 1e-6
"""By what share more may be served at best."""
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


def best_shares(groups: Sequence[Group], held: Sequence[int], near: Sequence[float] = ()) -> tuple[float, Shares]:
    """What so many pieces serve at best, and with which share of each kind: a concave program by cutting planes
    (J. E. Kelley 1960). `near` are failures that each group may be near to at best.
    """
    mine = [replace(group, most=count) for group, count in zip(groups, held, strict=True) if count]
    if not mine:
        return 0.0, []
    begin = [load for load, count in zip(near, held, strict=True) if count] if near else [0.0] * len(mine)
    cuts = [
        [Cut(group.most, at) for at in sorted({load, *(group.failures * share for share in BEGIN)}) if at > 0]
        for group, load in zip(mine, begin, strict=True)
    ]
    served, best = -1.0, [0.0]
    for _ in range(ROUNDS):
        program = Program(mine, [], cuts)
        program.limits[: program.places.shares[0].start, 0] = 1.0  # all of it is carried
        found = program.relaxed()
        now, added = 0.0, False
        for group, shares, place, known in zip(mine, program.places.shares, program.places.served, cuts, strict=True):
            planned = [failures * found.x[share] for (_, failures, _), share in zip(group.kinds, shares, strict=True)]
            real = expected_served(group.most, sum(planned))
            now += real - sum((1 - worth) * each for (_, _, worth), each in zip(group.kinds, planned, strict=True))
            if found.x[place] > real / program.unit + CLOSE:
                known.append(Cut(group.most, sum(planned)))
                added = True
        if now > served:
            served, best = now, found.x
        if not added or -found.fun * program.unit - served <= ENOUGH * served:
            break
    return served, [
        (kind, group.van, group.piece, floor(best[share] * 1e6 + 0.5) / 1e6)
        for group, shares in zip(mine, program.places.shares, strict=True)
        for (kind, _, _), share in zip(group.kinds, shares, strict=True)
        if best[share] > ROUNDING
    ]
