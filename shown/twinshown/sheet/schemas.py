"""What the sheet of a job shows, and the entries that it takes."""

from datetime import datetime
from typing import Annotated, Any, get_type_hints
from uuid import UUID

from pydantic import AwareDatetime, Field, SkipValidation, create_model

from twincore.job import Need, Standing, Step
from twincore.job.rules.state import State
from twinshown.boards.schemas import BoardsOfJob
from twinshown.shapes import Schema
from twinshown.words.schemas import EntryWords

LONGEST_OFF_MS = 20 * 366 * 24 * 3600 * 1000
"""Twenty years: how far a device's clock may be off."""
MOST_TOGETHER = 50
"""Entries of one request: some tenths of a second of work."""
EntryValue = Any
"""What stands at a target: `EntryValues` says, target by target, what that may be."""


class JobLine(Schema):
    """A job in a list: what is open, and the step in hand."""

    id: str
    """Of another board's sheet with its number after a dot."""
    code: str
    machine: str
    complaint: str
    step: str
    original: str | None
    replacement: str | None
    more_boards: int
    """How many further boards the job is about."""
    changed_at: datetime
    closed: bool


class StepState(Schema):
    """One of the nine steps: done, open or waiting, with its one line of result."""

    id: Step
    name: str
    state: Standing
    result: str
    waits_for: list[Need]
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
    newer: int | None
    """The revision that the catalogue has now, where that is another one."""
    joined: str | None
    """The number of the board that this sketch turned out to be."""


class FactShown(Schema):
    """A fact of the machine and where it is known from."""

    value: str | bool | int | float
    source: str


class ChosenShown(Schema):
    """The choice in a line: how the board was judged then, who chose it, and why."""

    verdict: str
    by: str
    reason: str


class SkippedShown(Schema):
    """A hold point that was skipped, with its reason: shown on every later page."""

    id: str
    title: str
    reason: str
    by: str
    at: datetime


class VoidShown(Schema):
    """An entry that says nothing that can stand, to be taken back."""

    number: int
    target: str
    expected: str
    here: bool
    """Whether it is taken back on this sheet, and not on that of another board."""


class JobSheet(JobLine):
    """A job's sheet: what follows from its entries; JobShown adds what they add up to, part by part."""

    opened_at: datetime
    opened_by: str
    closed_at: datetime | None
    original_board: BoardRef | None
    replacement_board: BoardRef | None
    known_facts: dict[str, FactShown]
    chosen: ChosenShown | None
    uncleared: list[str]
    steps: list[StepState]
    entry_count: int
    run_count: int
    skipped: list[SkippedShown]
    void: list[VoidShown]
    """Entries that say nothing that can stand: nothing else is taken until they are taken back."""
    together: BoardsOfJob | None
    """The boards of the job, where there are several."""
    origin: dict[str, Any] | None


KEPT_BACK = ("version", "boards", "board", "runs", "refused", "confirmed", "closed_as", "choice", *JobLine.model_fields)
"""Parts of the state that the sheet shows otherwise, or in a part of its own."""
PARTS: dict[str, Any] = {
    name: (Annotated[part, SkipValidation], ...)  # it was checked when it was entered
    for name, part in get_type_hints(State, include_extras=True).items()
    if name not in KEPT_BACK
}
JobShown: type[JobSheet] = create_model(
    "JobShown", __base__=JobSheet, __doc__="A job's sheet, each part of its state as the core declares it.", **PARTS
)


class EntryShown(Schema):
    """One entry of a job's history."""

    id: UUID
    number: int
    at: datetime
    by: str
    board: str
    """What the board is called of which it speaks; empty where the job has one, or it speaks of the machine."""
    target: str
    before: Any
    after: Any
    words: EntryWords
    reason: str
    read_how: str


class EntryGiven(Schema):
    """An entry to add; `before` is what the client saw at the target."""

    id: UUID
    target: str = Field(max_length=100)
    before: EntryValue = None
    after: EntryValue = None
    reason: str = Field("", max_length=2000)
    read_how: str = Field("", max_length=40)
    upon: UUID | None = Field(None, description="The maker's own entry at this target that this one follows.")
    maker: str = Field("", max_length=150, description="The username of who made it; nobody else may send it.")
    made_at: AwareDatetime | None = Field(None, description="When it was made, by the clock of the device.")
    clock_ahead_ms: int = Field(0, ge=-LONGEST_OFF_MS, le=LONGEST_OFF_MS)
    """By how much that clock is ahead of the depot's, as far as the device knows."""
    seen: int | None = Field(None, ge=0, le=10**9, description="How many entries the device had from the depot then.")
    device: str = Field("", max_length=36, description="Tells the devices of a person apart.")


class EntriesGiven(Schema):
    """Entries of one sheet that waited on a device, in the order in which they were made."""

    entries: list[EntryGiven] = Field(min_length=1, max_length=MOST_TOGETHER)


class SheetAfter(Schema):
    """How many of them, from the first, the job has now; the next one is sent alone, to hear what is wrong with it."""

    taken: int
    sheet: Any


EntriesTaken: type[SheetAfter] = create_model(
    "EntriesTaken", __base__=SheetAfter, __doc__=SheetAfter.__doc__, sheet=(JobShown, ...)
)
