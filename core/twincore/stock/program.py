"""The mixed integer program of a plan: copies carried, shares of kinds that they serve, failures served."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any, NamedTuple

from twincore.heavy import load
from twincore.stock.demand import expected_served, slope

POINTS = 3
"""Tangents of the curve of one piece to begin with; of more pieces one, for these bend later."""
CLOSE = 1e-7
ROUNDING = 1e-6
"""What floating-point solvers call feasible; bounds are told wider by as much."""
SHORTEST_S = 0.05
"""The least time that a solver is given: it finds something, however late it is."""


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


class Bound(NamedTuple):
    """What these groups add up to at most: of their `cost` or their `size`."""

    groups: list[int]
    what: str
    most: float


class Cut(NamedTuple):
    """Where a tangent touches the curve of so many pieces: at so many failures."""

    pieces: int
    failures: float


def first_cuts(group: Group) -> list[Cut]:
    """The tangents to begin with."""
    one = [Cut(1, group.failures * point / POINTS) for point in range(1, POINTS + 1)]
    return [*one, *(Cut(count, group.failures) for count in range(2, group.most + 1))]


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

    def relaxed(self) -> Any:
        """Solved without whole numbers, as SciPy tells it: values, and what is least."""
        return load("scipy.optimize").linprog(
            self.aim, A_ub=self.matrix, b_ub=self.lines.most, bounds=self.limits, method="highs-ds"
        )


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
