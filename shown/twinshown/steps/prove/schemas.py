"""Prove: what the API shows and takes."""

from datetime import datetime
from typing import Any

from twincore.job.values import Beyond
from twinshown.comparison.schemas import ShownAt
from twinshown.shapes import Schema
from twinshown.words.schemas import DoesShown, UnprovedShown


class MadeShown(Schema):
    """One input change of a run, and how it is made here."""

    at: float
    input: str
    title: str
    value: bool | float
    change: str
    """What it does, in words."""
    way: str
    how: str
    undo: str
    risk: str


class KeptShown(Schema):
    """What a hand does before a run so that an input stays away all through it, and how that is undone."""

    title: str
    how: str
    undo: str


class DueShown(Schema):
    """An event that is due, with the band that tolerances allow (seconds)."""

    output: str
    title: str
    on: bool
    at: float
    low: float
    high: float


class PlannedShown(Schema):
    """A run to make on the machine."""

    id: str
    title: str
    why: str
    kind: str
    until: float
    steps: list[MadeShown]
    kept: list[KeptShown]
    watch: list[str]
    hands_off: list[str]
    cannot: list[str]
    due: list[DueShown]
    basis: str
    original: list[ShownAt]
    replacement: list[ShownAt]
    last: str | None
    made: int


class OverrideShown(Schema):
    """Something that may be switched on for a test."""

    id: str
    what: str
    how: str
    time_out_s: float | None
    undo: str
    point: str
    """Of a switch of the board itself: where it is; its element must be read back as off. Empty for anything else."""
    does: list[DoesShown]


class ReadingTaken(Schema):
    """A reading to take, and what it says."""

    id: str
    title: str
    unit: str
    low: float | None
    high: float | None
    uncertainty: float
    how: list[str]
    risk: str
    source: str
    value: float | None
    beyond: Beyond | None
    read: str
    """What was read, in words; empty where nothing was."""
    verdict: str | None
    margin: float | None


class CheckShown(Schema):
    """A line of the check list, and what was said of it."""

    id: str
    words: str
    own: bool
    ok: bool | None
    """None where it was not looked at."""
    absent: bool
    """Whether this machine has no such thing."""
    note: str
    by: str


class ProvingShown(Schema):
    """The proving plan, and where it stands."""

    checks: list[CheckShown]

    runs: list[PlannedShown]
    unproved: list[UnprovedShown]
    readings: list[ReadingTaken]
    overrides: list[OverrideShown]
    forced: list[str]
    doubts: list[str]
    port: bool


class EventJudged(Schema):
    """One event of a measured run."""

    output: str
    title: str
    on: bool
    seen_at: float | None
    due_at: float | None
    low: float | None
    high: float | None
    uncertainty: float
    verdict: str
    margin: float | None
    reasons: list[str]


class MeasuredShown(Schema):
    """A run that was measured, with every event judged."""

    id: str
    title: str
    plan: str
    board: str
    by: str
    at: datetime
    timed: str
    note: str
    verdict: str
    basis: str
    until: float
    steps: list[dict[str, Any]]
    events: list[EventJudged]
    original: list[ShownAt]
    replacement: list[ShownAt]
    measured: list[ShownAt]
