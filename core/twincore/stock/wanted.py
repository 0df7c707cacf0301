"""What a plan is asked for: kinds of machine, pieces that may be carried, vans, and what lending counts."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field


@dataclass(frozen=True, slots=True)
class Kind:
    """Machines of one kind that one van looks after."""

    id: str
    van: str
    failures: float
    """Expected until the next filling."""
    ways: Mapping[str, float]
    """The pieces that serve it, each with what a failure put right by it counts: 1, or less where work is left."""


@dataclass(frozen=True, slots=True)
class Piece:
    """A board, or a set of a board with what it needs, that is carried as one."""

    id: str
    cost: float = 0.0
    size: float = 0.0
    most: int = 3
    """More than these are never carried in one van."""


@dataclass(frozen=True, slots=True)
class Van:
    """A van with what may be in it: value and size at most; None where nothing bounds it."""

    id: str
    budget: float | None = None
    shelf: float | None = None


@dataclass(frozen=True, slots=True)
class Wanted:
    """What is to be planned."""

    kinds: Sequence[Kind]
    pieces: Sequence[Piece]
    vans: Sequence[Van]
    lending: Mapping[tuple[str, str], float] = field(default_factory=dict)
    """What a failure counts that one van puts right with a piece of another (lender, borrower): less by the hours it takes."""
    budget: float | None = None
    """The value in all vans together at most."""

    @property
    def failures(self) -> float:
        """Expected until the next filling, in all."""
        return sum(kind.failures for kind in self.kinds)
