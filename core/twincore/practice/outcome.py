"""What came of a task: what was done beside what should have been, and where the two part first."""

from dataclasses import dataclass
from typing import Any

from twincore.profile import Board, Record


@dataclass(frozen=True, slots=True)
class Row:
    """One thing that was to be done: what it was, what should have come of it, and what did."""

    what: str
    should: Any
    did: Any
    right: bool
    skill: str


@dataclass(frozen=True, slots=True)
class Outcome:
    """The two sheets laid on each other."""

    rows: tuple[Row, ...]
    verdict: str = ""
    """What the twin check says of the machine as it was left, where there was anything to prove."""
    counter_case: dict[str, Any] | None = None
    """A scenario at whose end the machine does something else than before."""
    told: tuple[tuple[str, dict[str, Any]], ...] = ()
    """What else is to be said: a code and the data that its sentence is made from."""
    left: tuple[Board, Record] | None = None
    """The board that is in the machine, as it was left."""

    @property
    def first(self) -> Row | None:
        """Where the two part first."""
        return next((row for row in self.rows if not row.right), None)

    @property
    def right(self) -> bool:
        """Whether nothing parts."""
        return self.first is None
