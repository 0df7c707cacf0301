"""What a criterion is, and what it judges by."""

from abc import ABC, abstractmethod
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, ClassVar

from twincore.behaviour import Proof
from twincore.choose.fitting import AdapterLead, Fitting
from twincore.choose.judged import Facts, Judged, Question, Reason, worst
from twincore.choose.statements import Statement
from twincore.choose.ways import Way
from twincore.profile import Family
from twincore.settings import Carried


@dataclass(frozen=True, slots=True)
class Context:
    """A candidate beside the original, and all that is known when it is judged."""

    original: Fitting
    candidate: Fitting
    family: Family
    facts: Facts
    way: Way | None = None
    """The statements that lead to it."""
    elsewhere: Sequence[Statement] = ()
    """Statements that list it for other machines: a condition of theirs fails here."""
    change_companions: bool = False
    adapters: Sequence[AdapterLead] = ()
    """The adapter leads at hand."""
    offer: Mapping[str, Any] | None = None
    """What the parts desk said last (`stock`, `days`, `price`, `age_s`)."""
    carried: Carried | None = None
    proof: Proof | None = None
    checked: bool = False
    """Whether the twin check was run."""
    settings_known: bool = True
    """Whether carry-over and twin check rest on how the original is set; else on how it left its maker, which says nothing for sure."""

    @property
    def same(self) -> bool:
        """Whether it is the very same number again."""
        return self.candidate.part_number == self.original.part_number


class Criterion(ABC):
    """One thing that a candidate is judged on: may it take the original's place in this machine?"""

    id: ClassVar[str]
    same_again: ClassVar[bool] = False
    """Whether two boards of the same number share it by being the same, whether anybody wrote it down or not."""
    of_the_twin: ClassVar[bool] = False
    """Whether it is judged anew once carry-over and twin check were run."""
    of_the_fit: ClassVar[bool] = True
    """Whether it says anything of the fit, and counts in the rank."""

    @abstractmethod
    def judge(self, at: Context) -> Judged:
        """The verdict, with its reasons as data, and what to find out where it is to check."""

    def cell(self, at: Context) -> Judged:
        """The verdict for the matrix; a board of the same number again is told as such."""
        found = self.judge(at)
        if self.same_again and at.same:
            return self.judged([Reason("same number", "fits")], [], found.minutes)
        if self.of_the_twin and not at.settings_known:
            reasons = [replace(each, verdict="to check") if each.verdict == "no" else each for each in found.reasons]
            return self.judged(reasons, list(found.questions), found.minutes)
        return found

    def judged(self, reasons: list[Reason], questions: list[Question] | None = None, minutes: float = 0.0) -> Judged:
        """A verdict of this criterion: the worst of its reasons."""
        return Judged(self.id, worst(each.verdict for each in reasons), tuple(reasons), tuple(questions or ()), minutes)
