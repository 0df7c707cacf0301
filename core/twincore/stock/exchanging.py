"""Counts that serve much, found by taking some pieces out and filling up again (G. Schrimpf and others 2000).

What one more piece brings is told by the prices that failures have as long as it is not there. Kinds of machine that no piece serves
together are worked out apart, and kept.
"""

from collections.abc import Callable, Iterable
from random import Random
from time import monotonic
from typing import Any, NamedTuple

from twincore.heavy import load
from twincore.stock.pricing import Prices, Table
from twincore.stock.program import SHORTEST_S

STEPS = 25
"""By which failures are shared out among pieces (M. Frank and P. Wolfe 1956)."""
HALVINGS = 7
"""Of the range in which the load of one more piece is looked for."""
MOST_KEPT = 20_000
"""Of what was worked out for counts of a part."""
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


class Worked(NamedTuple):
    """What counts of the groups of a part serve, and what one more piece of each would bring."""

    served: float
    gains: Any


class Exchange:
    """A search for counts within the bounds that serve much."""

    def __init__(self, table: Table, prices: Prices, seed: int = 0) -> None:
        self.table, self.chance, self.noise = table, Random(seed), table.numpy.random.default_rng(seed)
        self.rent = prices.room @ table.takes + LEAST
        self.parts = [(groups, Table([table.members[each] for each in groups], [])) for groups in parts_of(table)]
        self.part_of = {int(each): part for part, (groups, _) in enumerate(self.parts) for each in groups}
        self.held = table.numpy.zeros(table.groups, dtype=int)
        self.served = 0.0
        self._known: dict[tuple[int, bytes], Worked] = {}

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
            carried = [int(each) for each in self.table.numpy.flatnonzero(held)]
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
        return self.table.numpy.exp(self.noise.normal(0.0, UNLIKE, self.table.groups))

    def _fill(self, held: Any, rent: Any) -> float:
        """Add what brings most for its room, one by one, until nothing more fits; what all serve then."""
        numpy, table = self.table.numpy, self.table
        served, gains = numpy.zeros(len(self.parts)), numpy.zeros(table.groups)
        room = table.room - table.takes @ held
        changed: Iterable[int] = range(len(self.parts))
        while True:
            for part in changed:
                served[part], gains[self.parts[part][0]] = self._worked_out(part, held)
            fits = (held < table.most) & (table.takes <= room[:, None] + LEAST).all(axis=0) & (gains > LEAST)
            best = int(numpy.where(fits, gains / rent, 0.0).argmax())
            if not fits[best]:
                return float(served.sum())
            held[best] += 1
            room = room - table.takes[:, best]
            changed = (self.part_of[best],)

    def _worked_out(self, part: int, held: Any) -> Worked:
        groups, table = self.parts[part]
        key = (part, held[groups].tobytes())
        if key not in self._known:
            if len(self._known) >= MOST_KEPT:
                self._known.clear()
            shared = shared_out(table, held[groups])
            self._known[key] = Worked(shared.served, _gains(table, held[groups], shared))
        return self._known[key]


def parts_of(table: Table) -> list[Any]:
    """The groups that serve kinds together, one way or another: what one part carries is nothing to another but its room."""
    numpy, sparse = table.numpy, load("scipy.sparse")
    size = table.groups + len(table.of_kind)
    serves = (numpy.ones(len(table.group)), (table.group, table.groups + table.kind))
    count, part = load("scipy.sparse.csgraph").connected_components(sparse.coo_matrix(serves, shape=(size, size)))
    found = (numpy.flatnonzero(part[: table.groups] == each) for each in range(count))
    return [groups for groups in found if len(groups)]


def _gains(table: Table, held: Any, shared: SharedOut) -> Any:
    """What one more piece of each group brings."""
    rows, price = table.numpy.arange(len(table.group)), shared.price[table.kind] + table.lost
    new = table.worth(1, rows, price, table.closest(1, rows, price, HALVINGS)).value
    return table.numpy.where(held > 0, 1 - table.left(held + 1, shared.load), new)
