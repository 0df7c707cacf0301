"""What the API of practice takes and shows besides a task that is played."""

from datetime import datetime
from typing import Any
from uuid import UUID

from pydantic import Field

from catalogue.schemas import BoardShown
from twincore.practice import Level
from twinshown.practice.schemas import Laid, TaskNamed, TaskPlayed
from twinshown.shapes import Schema


class TaskWanted(Schema):
    """Which task to make; of boards that the seed draws where none is named."""

    level: Level
    seed: int = Field(ge=0, le=2_000_000_000)
    original: str = Field("", max_length=80)
    replacement: str = Field("", max_length=80)


class TaskDocuments(Schema):
    """The files that a task is made of, as text: with them it is made and played without the depot's server."""

    family: str
    original: str
    replacement: str
    rule_out: str
    others: list[str]


class TaskShown(Schema):
    """A task to be done: what makes it, and its boards as they are drawn."""

    task: TaskNamed
    kind: str
    inputs: list[dict[str, Any]]
    outputs: list[dict[str, Any]]
    rest: dict[str, bool | float]
    original: BoardShown
    replacement: BoardShown
    others: list[BoardShown]
    documents: TaskDocuments


class SkillShown(Schema):
    """What somebody can do, as far as it was seen."""

    skill: str
    known: float
    due: datetime | None


class LevelShown(Schema):
    """A level, what it asks for, and how often it was done."""

    level: Level
    skills: list[SkillShown]
    done: int


class PracticeHome(Schema):
    """How somebody stands, and what to practise next."""

    levels: list[LevelShown]
    next: Level
    because: str


class AttemptGiven(TaskPlayed):
    """A task that was ended: what was done in it, how long it took, and when."""

    id: UUID
    seconds: float = Field(ge=0, le=86_400)
    made: datetime | None = None


class AttemptShown(Schema):
    """A task that somebody ended."""

    id: UUID
    level: Level
    title: str
    right: bool
    rows: int
    wrong_rows: int
    seconds: float
    at: datetime


class AttemptKept(Schema):
    """What came of it, and how somebody stands now."""

    laid: Laid
    home: PracticeHome


class GroupGiven(Schema):
    """A group of learners."""

    id: UUID
    name: str = Field(min_length=1, max_length=80)
    members: list[str] = Field(max_length=200)


class GroupLine(Schema):
    """A group in a list."""

    id: UUID
    name: str
    people: int
    tasks: int


class GroupTask(Schema):
    """A task of a group."""

    level: Level
    seed: int
    original: str
    replacement: str


class LearnerShown(Schema):
    """How somebody in a group stands: skills by name, and for each task whether it was ended rightly."""

    username: str
    name: str
    skills: dict[str, float]
    due: int
    done: list[bool | None]
    last_at: datetime | None


class GroupShown(GroupLine):
    """A group with its tasks; how its members stand is shown to who looks after it, else one's own."""

    skills: list[str]
    set: list[GroupTask]
    learners: list[LearnerShown]


class TasksWanted(Schema):
    """Tasks to set for a group, drawn by a seed: one of each of these levels."""

    levels: list[Level] = Field(min_length=1, max_length=60)
    seed: int = Field(ge=0, le=1_000_000_000)
