"""The best counts and a bound, found in steps; solved by HiGHS (through SciPy)."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from itertools import takewhile
from time import monotonic
from typing import NamedTuple

from twincore.heavy import load
from twincore.stock.program import CLOSE, ROUNDING, SHORTEST_S, Bound, Cut, Group, Program, first_cuts
from twincore.stock.sharing import Shares, best_shares

Copies = Mapping[int, int]
"""Groups, and how many copies of each are looked at."""


class Search:
    """The best counts of some groups, found in steps; what was found, and what nothing found can pass.

    First without whole numbers, which bounds it; then in whole numbers of what that carries (kernel search, E. Angelelli and
    others 2010); then of all that could still be part of something better (by reduced costs), with tangents where it stands.
    """

    def __init__(self, groups: Sequence[Group], bounds: Sequence[Bound]) -> None:
        self.groups, self.bounds = groups, bounds
        self.cuts = [first_cuts(group) for group in groups]
        self.best = Found([0] * len(groups), 0.0, [])
        self.bound = sum({index: failures for group in groups for index, failures, _ in group.kinds}.values())
        self.ended = not groups
        self._members: Copies | None = None
        self._relaxed, self._loses = self.bound, [[0.0] * group.most for group in groups]

    def begin_with(self, held: Sequence[int], bound: float, loads: Sequence[float]) -> None:
        """Begin with counts that are within the bounds, the failures that each may take, and what nothing can pass."""
        self.best = Found(list(held), *best_shares(self.groups, held, loads))
        self.bound = max(min(self.bound, bound), self.best.served)

    @property
    def open(self) -> float:
        """How much more than was found there may be."""
        return max(0.0, self.bound - self.best.served)

    def step(self, gap: float, seconds: float) -> None:
        """Go on, to a solution within so much of the bound, as long as there is time."""
        ends = monotonic() + seconds
        if self._members is None:
            relaxed = _relaxed(self.groups, self.bounds, self.cuts, seconds)
            if relaxed is None:
                return
            loose, self._relaxed, self._loses = relaxed
            self.bound = min(self.bound, self._relaxed)
            self._members = {
                index: self.groups[index].most for index, carried in enumerate(loose) if carried > ROUNDING
            }
        else:
            self._members = self._hopeful()
        whole = _in_whole(self.groups, self.bounds, self.cuts, self._members, gap, max(ends - monotonic(), SHORTEST_S))
        self.best = max(self.best, whole.found, key=lambda found: found.served)
        if all(self._members.get(index, 0) >= most for index, most in self._hopeful().items()):
            self.bound = max(min(self.bound, whole.bound), self.best.served)
            unit = max((group.failures for group in self.groups), default=1.0)
            closer = _closer(self.groups, self.cuts, whole)
            self.ended = self.open <= ROUNDING * unit or (whole.bound < float("inf") and gap == 0 and not closer)

    def _hopeful(self) -> Copies:
        """What could be part of something better than was found: what is lost is lost of the bound without whole numbers."""
        most = self._relaxed - self.best.served
        hopeful = (sum(1 for _ in takewhile(lambda lost: lost < most, each)) for each in self._loses)
        return {index: copies for index, copies in enumerate(hopeful) if copies}


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


def _relaxed(
    groups: Sequence[Group], bounds: Sequence[Bound], cuts: list[list[Cut]], seconds: float
) -> tuple[list[float], float, list[list[float]]] | None:
    """Without whole numbers: what is carried of each, the bound, and what is lost at least where one more copy is carried.
    None where the time is too short for it.
    """
    program = Program(groups, bounds, cuts)
    found = program.relaxed(seconds)
    if found.status != 0:
        return None
    carried = [sum(found.x[each] for each in copies) for copies in program.places.copies]
    lower = found.lower.marginals
    loses = [[max(0.0, float(lower[copy])) * program.unit for copy in copies] for copies in program.places.copies]
    return carried, (-float(found.fun) + ROUNDING) * program.unit, loses


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
