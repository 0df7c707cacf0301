"""What the API shows and takes of jobs."""

from datetime import datetime
from typing import Any
from uuid import UUID

from ninja import Field, Schema

from bench.schemas import Positions
from config.paging import Paging

Scalar = str | bool | int | float
EntryValue = Any
"""What stands at a target; each target's own rule says what that may be."""


class JobLine(Schema):
    """A job in a list: what is open, and the step in hand."""

    id: UUID
    code: str
    machine: str
    complaint: str
    step: str
    original: str | None
    replacement: str | None
    changed_at: datetime
    closed: bool


class StepState(Schema):
    """One of the nine steps: done, open or waiting, with its one line of result."""

    id: str
    name: str
    state: str
    result: str
    waits_for: list[str]
    note: str | None
    end: str | None
    by: str
    at: datetime | None


class BoardRef(Schema):
    """A board in the revision that the job keeps."""

    part_number: str
    title: str
    maker: str
    revision: int


class FactShown(Schema):
    """A fact of the machine and where it is known from."""

    value: str | bool | int | float
    source: str


class Alternative(Schema):
    """A candidate as it stood when the choice was made."""

    part_number: str
    verdict: str
    closeness: str
    minutes: float
    price: float | None
    days: float | None
    cells: dict[str, str]


class ChoiceShown(Schema):
    """The choice with its reason and the alternatives as they stood then."""

    reason: str
    by: str
    at: datetime
    verdict: str
    alternatives: list[Alternative]


class SkippedShown(Schema):
    """A hold point that was skipped, with its reason: shown on every later page."""

    id: str
    title: str
    reason: str
    by: str
    at: datetime


class ChangedStanding(Schema):
    """A candidate that stands otherwise since the record is complete."""

    board: str
    what: str
    was: str
    now: str


class RejudgedShown(Schema):
    """Why the choice is open again."""

    at: datetime
    changes: list[ChangedStanding]


class JobShown(JobLine):
    """A job's sheet."""

    opened_at: datetime
    opened_by: str
    closed_at: datetime | None
    family: str | None
    original_board: BoardRef | None
    replacement_board: BoardRef | None
    facts: dict[str, FactShown]
    serial: str | None
    symptoms: dict[str, str]
    report: dict[str, str]
    tests: dict[str, dict[str, Scalar | None]]
    causes: dict[str, dict[str, Scalar | None]]
    plates: dict[str, dict[str, str]]
    entered: dict[str, FactShown]
    revisions: dict[str, str]
    features: dict[str, str]
    wishes: dict[str, str | bool | int | float]
    costs: dict[str, float]
    choice: ChoiceShown | None
    uncleared: list[str]
    found: Positions
    how: dict[str, str]
    overrides: Positions
    reasons: dict[str, str]
    left: Positions | None
    verdict: str | None
    steps: list[StepState]
    entry_count: int
    power: str
    answers: str | None
    school: str | None
    order: str | None
    powered: list[str]
    remembered: list[str]
    holds: dict[str, dict[str, Any]]
    skipped: list[SkippedShown]
    angles: dict[str, dict[str, Any]]
    blind: dict[str, dict[str, Any]]
    kept: dict[str, str]
    traces: dict[str, dict[str, Any]]
    pictures: dict[str, dict[str, Any]]
    wires: dict[str, dict[str, Any]]
    plugs: dict[str, str]
    settled: dict[str, dict[str, Any]]
    removed: dict[str, dict[str, Any]]
    moving: dict[str, str]
    temporary: dict[str, dict[str, Any]]
    decisions: dict[str, str]
    ticked: dict[str, bool]
    rejudged: RejudgedShown | None
    kit: dict[str, int]
    readbacks: dict[str, dict[str, Any]]
    looks: dict[str, bool]
    reentered: dict[str, str]
    energised: dict[str, Any] | None
    learned: dict[str, Any] | None
    run_count: int
    readings: dict[str, dict[str, Any]]
    forced: dict[str, dict[str, Any]]
    defects: dict[str, dict[str, Any]]
    numbered: dict[str, dict[str, Any]]
    spent: dict[str, float]
    old_board: dict[str, Any] | None
    signed: dict[str, Any] | None
    corrections: dict[str, dict[str, Any]]
    feedback: dict[str, dict[str, Any]]
    origin: dict[str, Any] | None


class EntryShown(Schema):
    """One entry of a job's history."""

    id: UUID
    number: int
    at: datetime
    by: str
    target: str
    before: Any
    after: Any
    reason: str
    read_how: str


class NewJob(Schema):
    """A job to open."""

    id: UUID
    machine: str = Field(min_length=1, max_length=200)
    complaint: str = Field("", max_length=2000)


class EntryGiven(Schema):
    """An entry to add; `before` is what the client saw at the target."""

    id: UUID
    target: str = Field(max_length=100)
    before: EntryValue = None
    after: EntryValue = None
    reason: str = Field("", max_length=2000)
    read_how: str = Field("", max_length=40)


class JobSearch(Paging):
    """Which jobs to list."""

    show: str = Field("open", pattern="^(open|closed|all)$")
    search: str = Field("", max_length=80)
