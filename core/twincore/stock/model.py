"""The mixed integer program of a plan, and what so many pieces serve at best; solved by HiGHS (through SciPy)."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from math import floor
from time import monotonic
from typing import NamedTuple

from twincore.heavy import load
from twincore.stock.demand import expected_served, slope

POINTS = 3
"""Tangents of the curve of one piece to begin with; of more pieces one, for these bend later."""
ROUNDS = 40
CLOSE = 1e-7
ROUNDING = 1e-6
"""What floating-point solvers call feasible; bounds are told wider by as much."""


@dataclass(frozen=True, slots=True)
class Group:
    """Pieces of one number in one van, and the kinds that they may serve: index, failures, what each counts."""

    van: str
    piece: str
    kinds: tuple[tuple[int, float, float], ...]
    cost: float
    size: float
    most: int

    @property
    def failures(self) -> float:
        """Of all kinds that it may serve."""
        return sum(failures for _, failures, _ in self.kinds)


class Share(NamedTuple):
    """Which share of a kind's failures is put right with a piece of a van."""

    kind: str
    van: str
    piece: str
    share: float


class Bound(NamedTuple):
    """What these groups add up to at most: of their `cost` or their `size`."""

    groups: list[int]
    what: str
    most: float


class Cut(NamedTuple):
    """Where a tangent touches the curve of so many pieces: at so many failures."""

    pieces: int
    failures: float


def _first_cuts(group: Group) -> list[Cut]:
    one = [Cut(1, group.failures * point / POINTS) for point in range(1, POINTS + 1)]
    return [*one, *(Cut(count, group.failures) for count in range(2, group.most + 1))]


Shares = list[tuple[int, str, str, float]]
"""Of a kind by its index: van, piece, share."""


@dataclass
class Lines:
    """Linear constraints, each at most a number, as they are gathered."""

    row: list[int] = field(default_factory=list)
    column: list[int] = field(default_factory=list)
    value: list[float] = field(default_factory=list)
    most: list[float] = field(default_factory=list)

    def add(self, terms: Sequence[tuple[int, float]], most: float) -> None:
        """One more."""
        for column, value in terms:
            self.row.append(len(self.most))
            self.column.append(column)
            self.value.append(value)
        self.most.append(most)


class Places:
    """Where the variables stand: copies carried, shares of kinds, failures served."""

    def __init__(self, groups: Sequence[Group]) -> None:
        self.copies: list[range] = []
        at = 0
        for group in groups:
            self.copies.append(range(at, at + group.most))
            at += group.most
        self.shares: list[range] = []
        for group in groups:
            self.shares.append(range(at, at + len(group.kinds)))
            at += len(group.kinds)
        self.served = range(at, at + len(groups))
        self.count = at + len(groups)


class Search:
    """The best counts of some groups, found in steps; what was found, and what nothing found can pass.

    First without whole numbers, which bounds it; then in whole numbers of what that carries (kernel search, E. Angelelli and
    others 2010); then of all that could still be part of something better (by reduced costs), with tangents where it stands.
    """

    def __init__(self, groups: Sequence[Group], bounds: Sequence[Bound]) -> None:
        self.groups, self.bounds = groups, bounds
        self.cuts = [_first_cuts(group) for group in groups]
        self.best = Found([0] * len(groups), 0.0, [])
        self.bound = sum({index: failures for group in groups for index, failures, _ in group.kinds}.values())
        self.ended = not groups
        self._members: list[int] | None = None
        self._loses = [0.0] * len(groups)

    def begin_with(self, counts: Mapping[tuple[str, str], int]) -> None:
        """Begin with counts by van and piece that are within the bounds."""
        held = [counts.get((group.van, group.piece), 0) for group in self.groups]
        self.best = Found(held, *best_shares(self.groups, held))

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
            loose, bound, self._loses = relaxed
            self.bound = min(self.bound, bound)
            self._members = [index for index, carried in enumerate(loose) if carried > ROUNDING]
        else:
            self._members = self._hopeful()
        whole = _in_whole(self.groups, self.bounds, self.cuts, self._members, gap, max(ends - monotonic(), 0.05))
        self.best = max(self.best, whole.found, key=lambda found: found.served)
        if set(self._hopeful()) <= set(self._members):
            self.bound = max(min(self.bound, whole.bound), self.best.served)
            unit = max((group.failures for group in self.groups), default=1.0)
            closer = _closer(self.groups, self.cuts, whole)
            self.ended = self.open <= ROUNDING * unit or (whole.bound < float("inf") and gap == 0 and not closer)

    def _hopeful(self) -> list[int]:
        """What could be part of something better than was found."""
        most = self.bound - self.best.served
        return [index for index, lost in enumerate(self._loses) if lost < most]


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
) -> tuple[list[float], float, list[float]] | None:
    """Without whole numbers: what is carried of each, the bound, and what is lost at least where one is carried. None where
    the time is too short for it.
    """
    program = Program(groups, bounds, cuts)
    found = load("scipy.optimize").linprog(
        program.aim, A_ub=program.matrix, b_ub=program.lines.most, bounds=program.limits, method="highs-ds",
        options={"time_limit": max(seconds, 0.05)},
    )  # fmt: skip
    if found.status != 0:
        return None
    carried = [sum(found.x[each] for each in copies) for copies in program.places.copies]
    loses = [max(0.0, float(found.lower.marginals[copies[0]])) * program.unit for copies in program.places.copies]
    return carried, (-float(found.fun) + ROUNDING) * program.unit, loses


def _in_whole(
    groups: Sequence[Group], bounds: Sequence[Bound], cuts: list[list[Cut]], members: list[int], gap: float, seconds: float
) -> Whole:  # fmt: skip
    """In whole numbers, of these groups alone."""
    if not members:
        return Whole(Found([0] * len(groups), 0.0, []), 0.0, [0.0] * len(groups))
    place = {index: new for new, index in enumerate(members)}
    some = [groups[index] for index in members]
    program = Program(
        some, [Bound([place[each] for each in bound.groups if each in place], bound.what, bound.most) for bound in bounds],
        [cuts[index] for index in members],
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


class Program:
    """The linear program of a plan: what is least wanted, at most what, between which limits."""

    def __init__(self, groups: Sequence[Group], bounds: Sequence[Bound], cuts: Sequence[Sequence[Cut]]) -> None:
        numpy, sparse = load("numpy"), load("scipy.sparse")
        self.places, self.lines = Places(groups), Lines()
        # solvers work to an absolute tolerance: failures are told in units of the most that one group has
        self.unit = max((group.failures for group in groups), default=1.0)
        self.aim = numpy.zeros(self.places.count)
        of_kind: dict[int, list[int]] = {}
        for index, group in enumerate(groups):
            copies, shares, served = self.places.copies[index], self.places.shares[index], self.places.served[index]
            self.aim[served] = -1.0
            for first, second in pairwise(copies):
                self.lines.add([(second, 1.0), (first, -1.0)], 0.0)
            for (kind, failures, worth), share in zip(group.kinds, shares, strict=True):
                self.aim[share] = (1 - worth) * failures / self.unit
                of_kind.setdefault(kind, []).append(share)
                self.lines.add([(share, 1.0), (copies[0], -1.0)], 0.0)
            _add_served(self.lines, group, copies, shares, served, cuts[index], self.unit)
        for of_one in of_kind.values():
            if len(of_one) > 1:
                self.lines.add([(share, 1.0) for share in of_one], 1.0)
        for bound in bounds:
            copies_of = [(copy, each) for each in bound.groups for copy in self.places.copies[each]]
            self.lines.add([(copy, float(getattr(groups[each], bound.what))) for copy, each in copies_of], bound.most)
        self.limits = numpy.zeros((self.places.count, 2))
        self.limits[:, 1] = 1.0
        self.limits[self.places.served.start :, 1] = numpy.inf
        shape = (len(self.lines.most), self.places.count)
        self.matrix = sparse.csr_matrix((self.lines.value, (self.lines.row, self.lines.column)), shape=shape)


def _add_served(
    lines: Lines, group: Group, copies: range, shares: range, served: int, cuts: Sequence[Cut], unit: float
) -> None:
    """What the carried copies serve is no more than each tangent of each count says, and than all copies could."""
    planned = [(share, -failures / unit) for (_, failures, _), share in zip(group.kinds, shares, strict=True)]
    lines.add([(served, 1.0), *planned], 0.0)
    most = group.failures
    # what each further copy serves at most; a curve of fewer copies holds with that added for each more
    upto = [expected_served(count, most) / unit for count in range(group.most + 1)]
    more = [after - before for before, after in pairwise(upto)]
    lines.add([(served, 1.0), *((copy, -each) for copy, each in zip(copies, more, strict=True))], 0.0)
    for count, failures in cuts:
        steep = slope(count, failures)
        rest = (expected_served(count, failures) - steep * failures) / unit
        if rest > CLOSE:
            tangent = [(share, value * steep) for share, value in planned]
            beyond = [(copy, -each) for copy, each in zip(copies[count:], more[count:], strict=True)]
            lines.add([(served, 1.0), *tangent, (copies[0], -rest), *beyond], 0.0)


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
