"""What a plan serves at most, by prices: of each kind's failures, and of what a budget or a shelf has room for.

With prices every group stands alone: it takes the failures that it puts right for more than they cost, and is carried where that
is worth its room (Lagrangian relaxation, M. L. Fisher 1981). Any prices bound the best plan; those that bound it closest are
looked for in steps along the subgradient (B. T. Polyak 1969).
"""

from collections.abc import Callable, Sequence
from time import monotonic
from typing import Any, NamedTuple

from twincore.heavy import load
from twincore.stock.program import Bound, Group

BEGIN = 0.4
"""The price of a failure to begin with."""
AIM = 0.01
"""By what share under the bound a better one is aimed at."""
PATIENCE = 20
"""After so many steps without a better bound they become shorter."""
SHORTER, SHORTEST = 0.6, 1e-3
STEADY = 0.85
"""How much of the way that was gone is gone on with (P. M. Camerini, L. Fratta and F. Maffioli 1975)."""
BETTER = 1e-5
NEARER = 20
"""So often the range is halved in which the load of so many copies is looked for."""


class Prices(NamedTuple):
    """Of a failure of each kind, and of each bound's room."""

    failure: Any
    room: Any


class Priced(NamedTuple):
    """What no plan passes, and what is asked for at these prices."""

    bound: float
    count: Any
    """Of each group."""
    taken: Any
    """Of each kind's failures, by all groups together."""


class Worth(NamedTuple):
    """Of each group: what its failures put right are worth beyond what they cost at most, by a tangent at a load; how steep
    that is; and the failures that it would take at that slope.
    """

    value: Any
    slope: Any
    asked: Any


class Outlook(NamedTuple):
    """What prices say of every group: what no plan passes, by how much less it is bounded with so many copies of a group, and
    the failures that these would take.
    """

    bound: float
    loses: Sequence[Sequence[float]]
    """Of each group, for each copy."""
    loads: Sequence[Sequence[float]]


class Table:
    """Groups, kinds and bounds as arrays, a row for each kind that a group may serve: `group`, `kind`, `failures`, and `lost`
    of each failure that it puts right.
    """

    def __init__(self, groups: Sequence[Group], bounds: Sequence[Bound]) -> None:
        numpy = self.numpy = load("numpy")
        self.members = groups
        rows = [
            (at, kind, failures, 1 - worth) for at, each in enumerate(groups) for kind, failures, worth in each.kinds
        ]
        self.groups = len(groups)
        self.group, self.kind = (numpy.array([row[part] for row in rows], dtype=int) for part in (0, 1))
        self.failures, self.lost = (numpy.array([row[part] for row in rows]) for part in (2, 3))
        self.most = numpy.array([group.most for group in groups])
        self.all = numpy.array([group.failures for group in groups])
        self.loads = [self.all / 2 for _ in range(1 + max(group.most for group in groups))]
        self.of_kind = numpy.zeros(1 + max(row[1] for row in rows))
        self.of_kind[self.kind] = self.failures
        self.room = numpy.array([bound.most for bound in bounds], dtype=float)
        self.takes = numpy.zeros((len(bounds), len(groups)))
        for at, bound in enumerate(bounds):
            self.takes[at, bound.groups] = [getattr(groups[each], bound.what) for each in bound.groups]

    def left(self, count: Any, load: Any) -> Any:
        """The chance that of so many pieces one is left, of a Poisson number of failures with this mean."""
        numpy = self.numpy
        chance = below = numpy.exp(-load)
        for r in range(1, int(numpy.max(count, initial=0))):
            chance = chance * load / r
            below = below + chance * (count > r)
        return below * (count > 0)

    def served(self, count: Any, load: Any) -> Any:
        """The expected number that so many pieces put right: E[min(D, n)] = m P(D < n - 1) + n P(D >= n)."""
        return load * self.left(count - 1, load) + count * (1 - self.left(count, load))

    def by_group(self, group: Any, values: Any) -> Any:
        """Values added up for each group."""
        return self.numpy.bincount(group, weights=values, minlength=self.groups)

    def worth(self, count: Any, rows: Any, price: Any, load: Any) -> Worth:
        """What so many pieces of each group are worth at these prices of a failure, by tangents at these loads."""
        group, slope = self.group[rows], self.left(count, load)
        steep = slope[group] - price[rows]
        asked = self.failures[rows] * (steep > 0)
        value = self.served(count, load) - slope * load + self.by_group(group, asked * steep)
        return Worth(value, slope, self.by_group(group, asked))

    def closest(self, count: Any, rows: Any, price: Any, halvings: int) -> Any:
        """The loads at which tangents say least of what so many pieces of each group are worth: where that much is asked for."""
        numpy, low, high = self.numpy, self.numpy.zeros(self.groups), self.all
        for _ in range(halvings):
            load = (low + high) / 2
            more = self.worth(count, rows, price, load).asked > load
            low, high = numpy.where(more, load, low), numpy.where(more, high, load)
        return (low + high) / 2

    def priced(self, prices: Prices) -> Priced:
        """What is asked for at these prices, and the bound that they give."""
        numpy = self.numpy
        rent, price = prices.room @ self.takes, prices.failure[self.kind] + self.lost
        best, count, slopes = (numpy.zeros(self.groups) for _ in range(3))
        for each in range(1, int(self.most.max()) + 1):
            # one more puts nothing right that is worth its room: no further one does
            worth_it = (self.most >= each) & (1 - self.left(each, self.all) > rent)
            rows = numpy.flatnonzero(worth_it[self.group])
            if not len(rows):
                break
            found = self.worth(each, rows, price, self.loads[each])
            # prices change little from one time to the next: the load follows what is asked for
            self.loads[each] = (self.loads[each] + found.asked) / 2
            profit = found.value - each * rent
            better = worth_it & (profit > best)
            best[better], count[better], slopes[better] = profit[better], each, found.slope[better]
        taken = numpy.bincount(
            self.kind, weights=self.failures * (price < slopes[self.group]), minlength=len(self.of_kind)
        )
        return Priced(float(self.of_kind @ prices.failure + prices.room @ self.room + best.sum()), count, taken)

    def outlook(self, prices: Prices) -> Outlook:
        """What these prices say of every group and every count of it."""
        numpy = self.numpy
        rows, price = numpy.arange(len(self.group)), prices.failure[self.kind] + self.lost
        rent, most = prices.room @ self.takes, int(self.most.max())
        profits, loads = (numpy.zeros((most, self.groups)) for _ in range(2))
        for each in range(1, most + 1):
            loads[each - 1] = self.closest(each, rows, price, NEARER)
            value = self.worth(each, rows, price, loads[each - 1]).value
            profits[each - 1] = numpy.where(self.most >= each, value - each * rent, -numpy.inf)
        best = profits.max(axis=0).clip(0.0)
        # whoever carries so many carries these or more
        loses = best - numpy.maximum.accumulate(profits[::-1])[::-1]
        bound = float(self.of_kind @ prices.failure + prices.room @ self.room + best.sum())
        counts = [int(each) for each in self.most]
        return Outlook(
            bound,
            [loses[:count, group].tolist() for group, count in enumerate(counts)],
            [loads[:count, group].tolist() for group, count in enumerate(counts)],
        )


def best_prices(table: Table, seconds: float, stop: Callable[[], bool] = lambda: False) -> tuple[float, Prices]:
    """The closest bound that is found in so many seconds, and its prices."""
    numpy = table.numpy
    ends = monotonic() + seconds
    # failures and rooms are of unlike sizes: steps are by the share of each
    total = float(table.of_kind.sum())
    each = total / max(1, len(table.room))
    free = table.room > 0
    room = numpy.where(free, table.room, 1.0)
    by_failure, by_room = 1 / numpy.maximum(table.of_kind, BETTER), numpy.where(free, each / room**2, 0.0)
    now = Prices(numpy.full(len(table.of_kind), BEGIN), numpy.where(free, each / room / 2, 1 / BETTER))
    best, kept, long, without = float("inf"), now, 1.0, 0
    way = Prices(numpy.zeros_like(now.failure), numpy.zeros_like(now.room))
    while long > SHORTEST and monotonic() < ends and not stop():
        found = table.priced(now)
        if found.bound < best - BETTER * total:
            best, kept, without = found.bound, now, 0
        else:
            without += 1
            if without > PATIENCE:
                long, without, now = long * SHORTER, 0, kept
                continue
        way = Prices(
            STEADY * way.failure + (1 - STEADY) * (table.of_kind - found.taken),
            STEADY * way.room + (1 - STEADY) * (table.room - table.takes @ found.count),
        )
        steep = float(way.failure**2 @ by_failure + way.room**2 @ by_room)
        if steep == 0:
            break
        step = long * (found.bound - best * (1 - AIM)) / steep
        now = Prices(
            numpy.clip(now.failure - step * way.failure * by_failure, 0.0, 1.0),
            numpy.maximum(0.0, now.room - step * way.room * by_room),
        )
    return best, kept
