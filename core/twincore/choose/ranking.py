"""Rank candidates: verdicts first, then closeness of behaviour, minutes of work, money, days."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from twincore.behaviour import Proof
from twincore.choose.criteria import CRITERIA, Context
from twincore.choose.judged import RANK, VERDICTS, Judged, Question, questions_of, worst
from twincore.choose.ways import Way
from twincore.settings import Carried

CLOSENESS = ("identical", "within tolerance", "open", "not proved", "not run", "different", "no position")
BESIDE_THE_FIT = frozenset(each.id for each in CRITERIA if not each.of_the_fit)
"""Criteria that say nothing of the fit."""
WORST_FIRST = tuple(reversed(VERDICTS[1:]))
SWAP_MINUTES = 20.0
"""Taking a board out and putting one in, before anything special (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Candidate:
    """A board (or a set) that may take the original's place, judged on every criterion."""

    at: Context
    """What it was judged by."""
    cells: tuple[Judged, ...]

    @property
    def part_number(self) -> str:
        """Its number."""
        return self.at.candidate.part_number

    @property
    def way(self) -> Way | None:
        """The statements that lead to it."""
        return self.at.way

    @property
    def carried(self) -> Carried | None:
        """What carry-over found."""
        return self.at.carried

    @property
    def proof(self) -> Proof | None:
        """What the twin check found."""
        return self.at.proof

    @property
    def same(self) -> bool:
        """Whether it is the very same number again."""
        return self.at.same

    @property
    def closeness(self) -> str:
        """How close a twin it is, in one word."""
        if self.carried is not None and self.carried.record is None:
            return "no position"
        if self.proof is None:
            return "not proved" if self.at.checked else "not run"
        return self.proof.verdict

    @property
    def verdict(self) -> str:
        """The verdict on the whole."""
        return verdict_of({each.criterion: each.verdict for each in self.cells})

    @property
    def minutes(self) -> float:
        """Rough minutes of work."""
        return SWAP_MINUTES + sum(each.minutes for each in self.cells)

    @property
    def price(self) -> float | None:
        """What it costs in the trade, as last heard."""
        return None if self.at.offer is None else self.at.offer.get("price")

    @property
    def days(self) -> float | None:
        """How long until it is there: none where it is in stock."""
        if self.at.offer is None:
            return None
        return 0.0 if self.at.offer.get("stock", 0) > 0 else self.at.offer.get("days")

    @property
    def questions(self) -> tuple[Question, ...]:
        """What would have to be found out on the machine."""
        return questions_of(self.cells)

    def cell(self, criterion: str) -> Judged:
        """The cell of a criterion."""
        return next(each for each in self.cells if each.criterion == criterion)

    @property
    def rank(self) -> tuple[Any, ...]:
        """Lower is better; the same for the same data, whatever the order they came in."""
        fit = [each.verdict for each in self.cells if each.criterion not in BESIDE_THE_FIT]
        counts = tuple([fit.count(verdict) for verdict in WORST_FIRST])
        safety = 0 if self.carried is None else self.carried.misses(True)
        listed = 0 if self.same or self.way else 1
        close = CLOSENESS.index(self.closeness), counts[1:]
        # where nobody knows how the original is set, what is listed for it says more than a comparison on factory settings
        by_twin = (safety, counts[0], *close) if self.at.settings_known else (counts[0], listed, safety, *close)
        return (
            RANK[self.verdict], *by_twin,
            0 if self.same else 1, 0 if self.way else 1, -(self.way.mean if self.way else 0), self.minutes,
            self.price if self.price is not None else 1e12, self.days if self.days is not None else 1e6,
            self.part_number,
        )  # fmt: skip


def verdict_of(cells: Mapping[str, str]) -> str:
    """The worst of the verdicts by criterion; that it must be ordered, or that nobody asked yet, says nothing of the fit."""
    return worst(verdict for criterion, verdict in cells.items() if criterion not in BESIDE_THE_FIT or verdict == "no")


def ranked(candidates: Sequence[Candidate]) -> list[Candidate]:
    """Best first."""
    return sorted(candidates, key=lambda each: each.rank)
