"""What the API shows and takes of jobs."""

from datetime import datetime
from typing import Any
from uuid import UUID

from ninja import Field, Schema

from bench.schemas import Positions, ProofShown
from config.paging import Paging


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
    by: str
    at: datetime | None


class BoardRef(Schema):
    """A board in the revision that the job keeps."""

    part_number: str
    title: str
    maker: str
    revision: int


class JobShown(JobLine):
    """A job's sheet."""

    opened_at: datetime
    opened_by: str
    closed_at: datetime | None
    family: str | None
    original_board: BoardRef | None
    replacement_board: BoardRef | None
    found: Positions
    how: dict[str, str]
    overrides: Positions
    reasons: dict[str, str]
    left: Positions | None
    verdict: str | None
    steps: list[StepState]
    entry_count: int


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
    before: str | int | float | dict[str, str] | None = None
    after: str | int | float | dict[str, str] | None = None
    reason: str = Field("", max_length=2000)
    read_how: str = Field("", max_length=40)


class JobSearch(Paging):
    """Which jobs to list."""

    show: str = Field("open", pattern="^(open|closed|all)$")
    search: str = Field("", max_length=80)


class PinShown(Schema):
    """A pin of the same plug with something else on it."""

    connector: str
    pin: str
    original: str
    replacement: str


class CandidateShown(Schema):
    """A board that may replace the original, with what speaks for and against it."""

    part_number: str
    title: str
    maker: str
    revision: int
    verdict: str
    misses: list[str]
    safety_misses: int
    moved: int | None
    proof: ProofShown | None
    pins: list[PinShown]


class CandidatesShown(Schema):
    """The boards of the family that are still made, best first; judged on the record, or on factory settings."""

    judged_on: str
    candidates: list[CandidateShown]
