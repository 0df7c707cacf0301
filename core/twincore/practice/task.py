"""What a task is: a simulated machine as it truly stands, of which the learner sees what one sees of a machine."""

from dataclasses import dataclass, field, replace
from random import Random
from typing import Any, Literal, get_args

from twincore.errors import TwinError
from twincore.profile import Board, Family, Record, Scenario, Value
from twincore.rule_out import RuleOut
from twincore.settings import Carried

Level = Literal["read", "set", "carry", "wires", "keys", "meter", "find", "safe", "whole"]
LEVELS: tuple[Level, ...] = get_args(Level)
"""From two minutes to a quarter of an hour: read a bank; set a board to given functions; carry one over; put wires where they
belong; key values in; measure at pins; find out what it is; make a machine safe; the whole job."""


MOST_OTHERS = 3
ALIKE = ("identical", "within tolerance")
"""Verdicts of a twin check that say that nothing differs."""


class NoTask(TwinError):
    """These boards make no task of this level; says why."""


@dataclass(frozen=True, slots=True)
class Boards:
    """What a task is made of: a family, the board that comes out, the one that goes in, and what the family knows of faults."""

    family: Family
    original: Board
    replacement: Board
    rule_out: RuleOut | None = None
    others: tuple[Board, ...] = ()
    """Boards that it could be taken for, or that might go in."""

    @property
    def offered(self) -> dict[str, Board]:
        """All of them by their part numbers, in an order that tells nothing."""
        found = {each.part_number: each for each in (self.original, self.replacement, *self.others)}
        return dict(sorted(found.items()))


@dataclass(frozen=True, slots=True)
class Run:
    """Something that the machine can be made to do; one without a title was made for this task."""

    id: str
    title: str
    scenario: Scenario


@dataclass(frozen=True, slots=True)
class Lead:
    """A wire of the machine: the place that it was at, what it carries, and the places of the new board that carry that."""

    id: str
    colour: str
    place: str
    signal: str
    title: str
    right: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Meter:
    """A moment of a run (seconds) at which an output should be on; whose fault it is that it is not, and which input never comes."""

    scenario: Scenario
    at: float
    output: str
    blamed: str
    missing: str = ""


@dataclass(frozen=True, slots=True)
class WholeJob:
    """What a whole job asks besides; `printed` is what is still legible of the board's number."""

    printed: str
    keyed: bool
    """Whether the new board's values are keyed in on its own panel."""
    card: tuple[tuple[str, Value], ...]
    """Functions that stand on a card in the machine's door: those that the positions that cannot be read would tell."""
    memory: dict[Any, Any] = field(default_factory=dict, compare=False, repr=False)
    """What was worked out of it already: a task is played again from its beginning after everything that is done."""


@dataclass(frozen=True, slots=True)
class Task:
    """A simulated machine."""

    level: Level
    seed: int
    boards: Boards
    stood: Record
    """How the original's positions truly stand."""
    burnt: tuple[str, ...] = ()
    """The points of it that cannot be read."""
    carried: Carried | None = None
    """How the replacement should stand, where that is asked."""
    runs: tuple[Run, ...] = ()
    leads: tuple[Lead, ...] = ()
    suspect: str = ""
    """What is the matter with the machine."""
    meter: Meter | None = None
    whole: WholeJob | None = None
    again: str = ""
    """Set apart from what the same seed drew before, where that was passed over."""

    def rng(self, what: str) -> Random:
        """What else is drawn for this task is always drawn the same."""
        return Random(f"{self.level} {self.seed} {what}{self.again}")

    def read(self) -> Record:
        """What can be read of the original."""
        return replace(self.stood, points={**self.stood.points, **dict.fromkeys(self.burnt)})
