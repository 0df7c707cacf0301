"""The best counts and a bound, found in steps; solved by HiGHS (through SciPy)."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from itertools import takewhile
from time import monotonic
from typing import NamedTuple

from twincore.heavy import load
from twincore.stock.pricing import Outlook, Prices, Table, best_prices
from twincore.stock.program import CLOSE, ROUNDING, SHORTEST_S, Bound, Cut, Group, Program, first_cuts
from twincore.stock.sharing import Shares, best_shares

PRICED = 0.25
"""The share of the time of the first step in which prices are looked for."""
FEW = 300
"""With so few shares it is solved at once, without prices."""
SOLVED = 0.95
"""The share of what is left of the time that the solver is given: it is not always in time."""
NEAR = 3e-4
"""Copies that lose less than this share of the bound are looked at first."""
INSIDE = 1e-3
"""Tangents touch inside this share of what a group has at least and at most."""

Copies = Mapping[int, int]
"""Groups, and how many copies of each are looked at."""


class Search:
    """The best counts of some groups, found in steps; what was found, and what nothing found can pass.

    Prices bound it and say which copies may be worth their room. Of those that nearly are it is solved in whole numbers (kernel search,
    E. Angelelli and others 2010); then of all that could still be part of something better, with tangents where it stands.
    """

    def __init__(self, groups: Sequence[Group], bounds: Sequence[Bound]) -> None:
        self.groups, self.bounds = groups, bounds
        self.cuts = [first_cuts(group) for group in groups]
        self.best = Found([0] * len(groups), 0.0, [])
        self.bound = sum({index: failures for group in groups for index, failures, _ in group.kinds}.values())
        self.ended = not groups
        self._outlook: Outlook | None = None
        self._members: Copies | None = None

    @property
    def shares(self) -> int:
        """How many shares are planned: of each group one of each kind that it may serve."""
        return sum(len(group.kinds) for group in self.groups)

    @property
    def open(self) -> float:
        """How much more than was found there may be."""
        return max(0.0, self.bound - self.best.served)

    def look(self, seconds: float, stop: Callable[[], bool] = lambda: False) -> tuple[Table, Prices]:
        """Look for the prices that bound it best, as long as there is time."""
        table = Table(self.groups, self.bounds)
        _, prices = best_prices(table, seconds, stop)
        self._outlook = table.outlook(prices)
        self.bound = min(self.bound, self._outlook.bound)
        for group, cuts, loads in zip(self.groups, self.cuts, self._outlook.loads, strict=True):
            cuts += [
                Cut(count, each) for count, each in enumerate(loads, 1) if INSIDE < each / group.failures < 1 - INSIDE
            ]
        return table, prices

    def take(self, held: Sequence[int], loads: Sequence[float]) -> None:
        """Take counts that are within the bounds, with the failures that each may take, if they serve more than was found."""
        self._found(Found(list(held), *best_shares(self.groups, held, loads)))

    def step(self, gap: float, seconds: float) -> None:
        """Go on, to a solution within so much of the bound, as long as there is time."""
        ends = monotonic() + seconds
        if self._outlook is None and self.shares > FEW:
            self.look(seconds * PRICED)
        self._members = self._hopeful() if self._members else self._not_losing(NEAR * self.bound)
        left = max(SOLVED * (ends - monotonic()), SHORTEST_S)
        whole = _in_whole(self.groups, self.bounds, self.cuts, self._members, gap, left)
        self._found(whole.found)
        if all(self._members.get(index, 0) >= most for index, most in self._hopeful().items()):
            self.bound = max(min(self.bound, whole.bound), self.best.served)
            unit = max((group.failures for group in self.groups), default=1.0)
            closer = _closer(self.groups, self.cuts, whole)
            self.ended = self.open <= ROUNDING * unit or (whole.bound < float("inf") and gap == 0 and not closer)

    def _found(self, found: "Found") -> None:
        self.best = max(self.best, found, key=lambda each: each.served)
        self.bound = max(self.bound, self.best.served)

    def _hopeful(self) -> Copies:
        """What could be part of something better than was found."""
        return self._not_losing(0.0 if self._outlook is None else self._outlook.bound - self.best.served)

    def _not_losing(self, most: float) -> Copies:
        """The copies that lose less than so much of what prices bound; all of them where it was not looked for prices."""
        if self._outlook is None:
            return {index: group.most for index, group in enumerate(self.groups)}
        copies = (sum(1 for _ in takewhile(lambda lost: lost < most, each)) for each in self._outlook.loses)
        return {index: each for index, each in enumerate(copies) if each}


class Found(NamedTuple):
    """Counts, what they serve, and which share of each kind."""

    held: list[int]
    served: float
    shares: Shares


class Whole(NamedTuple):
    """The best in whole numbers of some groups, a bound on what they can serve, and how much the model thought each serves."""

    found: Found
    bound: float
    planned: list[float]


def _closer(groups: Sequence[Group], cuts: list[list[Cut]], whole: Whole) -> bool:
    """Add tangents where a solution stands between two; whether there was any."""
    added = False
    for index, group in enumerate(groups):
        now = whole.planned[index]
        count = whole.found.held[index]
        near = CLOSE * max(1.0, group.failures)
        if count and all(count != other or abs(now - each) > near for other, each in cuts[index]):
            cuts[index].append(Cut(count, now))
            added = True
    return added


def _in_whole(
    groups: Sequence[Group], bounds: Sequence[Bound], cuts: list[list[Cut]], members: Copies, gap: float, seconds: float
) -> Whole:  # fmt: skip
    """In whole numbers, of these copies alone."""
    if not members:
        return Whole(Found([0] * len(groups), 0.0, []), 0.0, [0.0] * len(groups))
    place = {index: new for new, index in enumerate(members)}
    some = [replace(groups[index], most=most) for index, most in members.items()]
    program = Program(
        some, [Bound([place[each] for each in bound.groups if each in place], bound.what, bound.most) for bound in bounds],
        [[cut for cut in cuts[index] if cut.pieces <= most] for index, most in members.items()],
    )  # fmt: skip
    numpy, optimize = load("numpy"), load("scipy.optimize")
    integral = numpy.zeros(program.places.count)
    integral[: program.places.shares[0].start] = 1
    found = optimize.milp(
        program.aim, integrality=integral, bounds=optimize.Bounds(program.limits[:, 0], program.limits[:, 1]),
        constraints=optimize.LinearConstraint(program.matrix, -numpy.inf, program.lines.most),
        options={"time_limit": seconds, "mip_rel_gap": gap},
    )  # fmt: skip
    dual = getattr(found, "mip_dual_bound", None)
    bound = float("inf") if dual is None or not numpy.isfinite(dual) else (-float(dual) + ROUNDING) * program.unit
    held, planned = [0] * len(groups), [0.0] * len(groups)
    if found.x is None:
        return Whole(Found(held, 0.0, []), bound, planned)
    for index, group, copies, shares in zip(members, some, program.places.copies, program.places.shares, strict=True):
        held[index] = sum(round(found.x[each]) for each in copies)
        planned[index] = sum(
            failures * found.x[share] for (_, failures, _), share in zip(group.kinds, shares, strict=True)
        )
    served, each = best_shares(groups, held)
    return Whole(Found(held, served, each), bound, planned)
