"""Counts that serve much, found by taking some pieces out and filling up again (G. Schrimpf and others 2000).

What one more piece brings is told by the prices that failures have as long as it is not there; gains only shrink while pieces
are added, so that few are looked at again (M. Minoux 1978).
"""

from collections.abc import Callable
from itertools import pairwise
from math import exp
from random import Random
from time import monotonic
from typing import Any, NamedTuple

from twincore.stock.pricing import Prices, Table
from twincore.stock.program import SHORTEST_S

STEPS = 25
"""By which failures are shared out among pieces (M. Frank and P. Wolfe 1956)."""
HALVINGS = 7
"""Of the range in which the load of one more piece is looked for."""
LOOKED = 8
"""So many gains are worked out at once."""
LEAST = 1e-7
TOLD_APART = 1e-13
TAKEN_OUT = 5
"""At most so many pieces at a time."""
UNLIKE, AGAIN = 0.15, 1.3
"""How unlike what a piece's room is worth is taken each time, and by how much more where it was just taken out."""
WORSE = 1e-3
"""By what share a plan may be worse than the one before it, at the beginning."""


class SharedOut(NamedTuple):
    """What counts serve, the price of one more failure of each kind, and the failures that each group takes."""

    served: float
    price: Any
    load: Any


def shared_out(table: Table, held: Any) -> SharedOut:
    """What so many pieces of each group serve, nearly; a little less than at best."""
    numpy = table.numpy
    rows = numpy.flatnonzero(held[table.group] > 0)
    price, loads = numpy.zeros(len(table.of_kind)), numpy.zeros(table.groups)
    if not len(rows):
        return SharedOut(0.0, price, loads)
    rows = rows[numpy.argsort(table.kind[rows], kind="stable")]
    kind, failures, lost = table.kind[rows], table.failures[rows], table.lost[rows]
    carried, group = numpy.unique(table.group[rows], return_inverse=True)
    begins = numpy.flatnonzero(numpy.r_[True, kind[1:] != kind[:-1]])
    of = numpy.repeat(numpy.arange(len(begins)), numpy.diff(numpy.r_[begins, len(kind)]))
    count, load, away = held[carried], numpy.zeros(len(carried)), 0.0
    unlike = lost + TOLD_APART * numpy.arange(len(rows))  # of two that are alike one takes it
    for step in range(STEPS):
        each = table.left(count, load)[group] - unlike
        most = numpy.maximum.reduceat(each, begins)
        takes = failures * ((each == most[of]) & (each > 0))
        share = 2 / (step + 2)
        load = (1 - share) * load + share * numpy.bincount(group, weights=takes, minlength=len(carried))
        away = (1 - share) * away + share * float(lost @ takes)
    price[kind[begins]], loads[carried] = numpy.maximum(0.0, most), load
    return SharedOut(float(table.served(count, load).sum()) - away, price, loads)


class Exchange:
    """A search for counts within the bounds that serve much."""

    def __init__(self, table: Table, prices: Prices, seed: int = 0) -> None:
        numpy = self.numpy = table.numpy
        self.table, self.chance = table, Random(seed)
        self.rent = prices.room @ table.takes + LEAST
        begins = numpy.searchsorted(table.group, numpy.arange(table.groups + 1))
        self.rows = [numpy.arange(first, end) for first, end in pairwise(begins)]
        self.held = numpy.zeros(table.groups, dtype=int)
        self.served = 0.0

    def search(
        self, seconds: float, enough: float = float("inf"), stop: Callable[[], bool] = lambda: False
    ) -> list[int]:
        """The counts that serve most of what is found in so many seconds, or the first that serve enough."""
        begun, seconds = monotonic(), max(seconds, SHORTEST_S)
        if not self.held.any():
            self.served = self._fill(self.held, self.rent)
        now, served = self.held.copy(), self.served
        while (past := (monotonic() - begun) / seconds) < 1 and self.served < enough and not stop():
            held, rent = now.copy(), self.rent * self._unlike()
            carried = [int(each) for each in self.numpy.flatnonzero(held)]
            if not carried:
                break
            out = self.chance.sample(carried, min(len(carried), self.chance.randint(1, TAKEN_OUT)))
            held[out] -= 1
            rent[out] *= AGAIN
            found = self._fill(held, rent)
            if found > served - WORSE * self.served * (1 - past) * self.chance.random() ** 2:
                now, served = held, found
            if found > self.served + LEAST:
                self.held, self.served = held.copy(), found
        return [int(each) for each in self.held]

    def loads(self) -> list[float]:
        """The failures that each group takes as it was found."""
        return [float(each) for each in shared_out(self.table, self.held).load]

    def _unlike(self) -> Any:
        return self.numpy.array([exp(self.chance.gauss(0.0, UNLIKE)) for _ in range(self.table.groups)])

    def _fill(self, held: Any, rent: Any) -> float:
        """Add what brings most for its room, one by one, until nothing more fits; what all serve then."""
        numpy, table = self.numpy, self.table
        shared = shared_out(table, held)
        gains = self._gains(range(table.groups), held, shared)
        known = numpy.ones(table.groups, dtype=bool)
        room = table.room - table.takes @ held
        while True:
            fits = (held < table.most) & (table.takes <= room[:, None] + LEAST).all(axis=0)
            for_room = numpy.where(fits, gains / rent, 0.0)
            best = int(for_room.argmax())
            if for_room[best] <= 0 or gains[best] <= LEAST:
                return shared.served
            if known[best]:
                held[best] += 1
                room = room - table.takes[:, best]
                shared = shared_out(table, held)
                known[:] = False
            looked = numpy.argsort(-for_room)[:LOOKED]
            gains[looked], known[looked] = self._gains(looked, held, shared)[looked], True

    def _gains(self, groups: Any, held: Any, shared: SharedOut) -> Any:
        """What one more piece of each of these groups brings."""
        numpy, table = self.numpy, self.table
        rows = numpy.concatenate([self.rows[each] for each in groups])
        price = shared.price[table.kind] + table.lost
        low, high = numpy.zeros(table.groups), table.all
        for _ in range(HALVINGS):
            load = (low + high) / 2
            more = table.worth(1, rows, price, load).asked > load
            low, high = numpy.where(more, load, low), numpy.where(more, high, load)
        new = table.worth(1, rows, price, (low + high) / 2).value
        return numpy.where(held > 0, 1 - table.left(held + 1, shared.load), new)
