"""What the API of practice takes and shows of a task that is played."""

from typing import Any

from pydantic import Field

from twincore.practice import MOST_ACTIONS, MOST_OTHERS, Level
from twinshown.comparison.schemas import PlayShown, StepShown
from twinshown.shapes import Schema


class TaskNamed(Schema):
    """What makes a task: its level and seed, and the boards in their revisions. The same makes the same everywhere."""

    level: Level
    seed: int = Field(ge=0, le=2_000_000_000)
    family: int
    original: int
    replacement: int
    rule_out: int | None = None
    others: list[int] = Field(default=[], max_length=MOST_OTHERS)
    """Boards that are offered beside the two, in a whole job."""


class TaskPlayed(Schema):
    """A task, and what was done in it one after another."""

    task: TaskNamed
    actions: list[dict[str, Any]] = Field(max_length=MOST_ACTIONS)


class LaidRow(Schema):
    """One thing on both sheets: what should have come of it, and what did."""

    what: str
    should: str
    did: str
    right: bool
    skill: str


class Parting(Schema):
    """A run in which the machine does something else than it did before: both, laid on each other."""

    title: str
    steps: list[StepShown]
    tracks: PlayShown
    at: float
    """Where they part, in seconds."""


class Laid(Schema):
    """The two sheets laid on each other."""

    right: bool
    words: str
    """What came of it, in a sentence."""
    rows: list[LaidRow]
    first: int | None
    """The row at which the two part first."""
    verdict: str
    parting: Parting | None
    told: list[str]
    """What the machine would have done, and what else is to be said."""


class PracticeShown(Schema):
    """A task after some actions: what the learner sees, and how it ended, once it has."""

    shown: dict[str, Any]
    ended: Laid | None
