"""Which pieces each van carries, so that the expected number of failures put right at the first visit is greatest.

Every failure of a kind of machine is put right with a piece that serves it, as far as one is left; how many of a Poisson number
of failures so many pieces put right is concave in the mean, so that tangents bound it from above. What is left is a mixed
integer program (maximal covering, R. Church and C. ReVelle 1974, with counts): prices bound it, and HiGHS solves what they leave; where
vans lend to each other, so that it becomes too large, pieces are exchanged by what prices say.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from time import monotonic

from twincore.stock.exchanging import Exchange
from twincore.stock.program import Bound, Group
from twincore.stock.search import PRICED, Search
from twincore.stock.sharing import Share, best_shares
from twincore.stock.wanted import Wanted

MOST_COPIES = 20
"""Of one piece in one van: each is a variable of the program."""
FIRST = 0.7
"""The share of the time in which every part is looked at once."""
MANY = 13_000
"""Of shares that are planned: with so many between vans that lend, pieces are exchanged, and the program is not begun."""
EXCHANGED = 0.8
"""The share of the time that is left then in which they are: what they serve at best is worked out at the end."""
SLICE = 0.25
"""The longest that one part is looked at before the others have their turn again."""


CLOSER = 0.8
"""Each part is solved closer than is asked for all: tangents say a little more than pieces serve."""


NOTHING = 1e-6
"""Failures served by which no plan is better: what is left of sums in floating point."""


@dataclass(frozen=True, slots=True)
class Plan:
    """What each van carries, and what it is worth."""

    counts: Mapping[str, Mapping[str, int]]
    """Pieces by van."""
    served: float
    """Expected failures put right at the first visit, each as it counts."""
    bound: float
    """No plan serves more."""
    shares: Sequence[Share]
    """Which piece of which van puts which share of a kind's failures right."""
    uncovered: Sequence[str]
    """Kinds that no carried piece serves."""

    @property
    def gap(self) -> float:
        """By what share the best plan may be better at most."""
        return 0.0 if self.bound - self.served <= NOTHING else 1 - self.served / self.bound


def plan(wanted: Wanted, gap: float = 0.005, seconds: float = 10.0, stop: Callable[[], bool] = lambda: False) -> Plan:
    """The best plan, or one of which it is known how much better another may be.

    `gap` is the share within which it is good enough, `seconds` the time after which the best so far is told; `stop` is asked
    between the parts of it. Raises ValueError where a kind, a piece or a van is named that is not there.
    """
    _check(wanted)
    ends = monotonic() + seconds
    parts = [wanted] if wanted.lending or wanted.budget is not None else _by_van(wanted)
    searches = [search_of(part) for part in parts]
    if wanted.lending and searches[0].shares > MANY:
        _exchange(searches[0], gap, seconds, stop)
    looked = [0] * len(searches)
    while not stop() and (left := ends - monotonic()) > 0:
        served, bound = sum(each.best.served for each in searches), sum(each.bound for each in searches)
        going = [index for index, each in enumerate(searches) if not each.ended]
        if not going or (all(looked[each] for each in going) and bound - served <= gap * bound):
            break
        # those that were looked at least often first, and of them the one of which least is known
        index = min(going, key=lambda each: (looked[each], -searches[each].open))
        if len(going) == 1:
            seconds_now = left
        elif not looked[index]:
            # what is left of the time goes to those that need it
            seconds_now = left / sum(not looked[each] for each in going) * FIRST
        else:
            seconds_now = min(left, seconds * SLICE)
        searches[index].step(gap * CLOSER, seconds_now)
        looked[index] += 1
    told = [_told(part, each) for part, each in zip(parts, searches, strict=True)]
    return Plan(
        {van: counts for each in told for van, counts in each.counts.items()},
        sum(each.served for each in told), sum(each.bound for each in told),
        [share for each in told for share in each.shares], [kind for each in told for kind in each.uncovered],
    )  # fmt: skip


def next_pieces(wanted: Wanted, now: Plan, stop: Callable[[], bool] = lambda: False) -> list[tuple[str, str, float]]:
    """What one more of each piece would bring in each van, the most first: van, piece, failures more put right.

    Those that may serve most are looked at first, until `stop` says that it is enough.
    """
    _check(wanted)
    groups = _groups(wanted)
    held = [now.counts.get(group.van, {}).get(group.piece, 0) for group in groups]
    found = []
    for index, group in sorted(enumerate(groups), key=lambda each: -each[1].failures):
        if stop():
            break
        if held[index] >= group.most:
            continue
        more = [*held[:index], held[index] + 1, *held[index + 1 :]]
        found.append((group.van, group.piece, best_shares(groups, more)[0] - now.served))
    return sorted(found, key=lambda each: (-each[2], each[0], each[1]))


def curve(
    wanted: Wanted, budgets: Sequence[float], gap: float = 0.01, seconds: float = 10.0,
    stop: Callable[[], bool] = lambda: False,
) -> list[tuple[float, Plan]]:  # fmt: skip
    """The best plan for each value that all vans together may carry, the first first."""
    return [
        (each, plan(replace(wanted, budget=each), gap, seconds / len(budgets), stop)) for each in budgets if not stop()
    ]


def _check(wanted: Wanted) -> None:
    vans, pieces = {van.id for van in wanted.vans}, {piece.id for piece in wanted.pieces}
    for kind in wanted.kinds:
        if kind.van not in vans:
            raise ValueError(f"{kind.id}: there is no van {kind.van}")
        if strange := sorted(set(kind.ways) - pieces):
            raise ValueError(f"{kind.id}: there is no piece {strange[0]}")
    for piece in wanted.pieces:
        if not 1 <= piece.most <= MOST_COPIES or piece.cost < 0 or piece.size < 0:
            raise ValueError(
                f"{piece.id}: from 1 to {MOST_COPIES} of it are carried, and it costs and takes at least 0"
            )
    for kind in wanted.kinds:
        if kind.failures < 0 or any(not 0 <= worth <= 1 for worth in kind.ways.values()):
            raise ValueError(f"{kind.id}: failures are at least 0, and what one counts is from 0 to 1")
    for pair, worth in wanted.lending.items():
        if not set(pair) <= vans or not 0 <= worth <= 1:
            raise ValueError(
                f"lending {pair[0]} to {pair[1]}: expected two vans, and what a failure counts from 0 to 1"
            )


def _by_van(wanted: Wanted) -> list[Wanted]:
    return [Wanted([kind for kind in wanted.kinds if kind.van == van.id], wanted.pieces, [van]) for van in wanted.vans]


def _groups(wanted: Wanted) -> list[Group]:
    """What each piece in each van may serve."""
    serves: dict[tuple[str, str], list[tuple[int, float, float]]] = {}
    for index, kind in enumerate(wanted.kinds):
        for van in wanted.vans:
            counts = 1.0 if kind.van == van.id else wanted.lending.get((van.id, kind.van), 0.0)
            for piece, worth in kind.ways.items():
                if counts * worth * kind.failures > 0:
                    serves.setdefault((van.id, piece), []).append((index, kind.failures, counts * worth))
    return [
        Group(van.id, piece.id, tuple(kinds), piece.cost, piece.size, piece.most)
        for van in wanted.vans for piece in wanted.pieces if (kinds := serves.get((van.id, piece.id)))
    ]  # fmt: skip


def search_of(wanted: Wanted) -> Search:
    """The search for the best counts of all that is wanted, not yet begun."""
    groups = _groups(wanted)
    bounds: list[Bound] = []
    for van in wanted.vans:
        mine = [index for index, group in enumerate(groups) if group.van == van.id]
        bounds += [Bound(mine, "cost", van.budget)] if van.budget is not None else []
        bounds += [Bound(mine, "size", van.shelf)] if van.shelf is not None else []
    if wanted.budget is not None:
        bounds.append(Bound(list(range(len(groups))), "cost", wanted.budget))
    return Search(groups, bounds)


def _exchange(search: Search, gap: float, seconds: float, stop: Callable[[], bool]) -> None:
    """Look for a plan without the program."""
    ends = monotonic() + seconds
    exchange = Exchange(*search.look(seconds * PRICED, stop))
    held = exchange.search((ends - monotonic()) * EXCHANGED, (1 - gap) * search.bound, stop)
    search.take(held, exchange.loads())
    search.ended = True


def _told(wanted: Wanted, search: Search) -> Plan:
    counts: dict[str, dict[str, int]] = {van.id: {} for van in wanted.vans}
    reached: set[int] = set()
    for group, count in zip(search.groups, search.best.held, strict=True):
        if count:
            counts[group.van][group.piece] = count
            reached.update(index for index, _, _ in group.kinds)
    shares = [Share(wanted.kinds[index].id, van, piece, share) for index, van, piece, share in search.best.shares]
    uncovered = [kind.id for index, kind in enumerate(wanted.kinds) if index not in reached]
    return Plan(counts, search.best.served, max(search.bound, search.best.served), shares, uncovered)
