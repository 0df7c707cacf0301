"""Hand over: what the API shows and takes."""

from datetime import datetime
from uuid import UUID

from twinshown.shapes import Schema
from twinshown.words.schemas import CostLine, UnprovedShown


class CodeLine(Schema):
    """A code of the new board, and how it clears."""

    shown: str
    meaning: str
    look_at: str
    clears: str


class SpentShown(Schema):
    """What the job took against what the alternative would have: sums, and what they assume."""

    own: list[CostLine]
    service: list[CostLine]
    own_total: float
    service_total: float
    saved: float
    assumptions: dict[str, float]
    entered: list[str]
    currency: str
    """ISO 4217; empty where the depot said none."""
    not_entered: list[str]
    """What the sums are made from and nobody entered: they are an estimate then, and papers print none."""


class RefusedShown(Schema):
    """A signature that was refused."""

    note: str
    by: str
    at: datetime


class HandOverShown(Schema):
    """The end of the job: what is known, what is missing, who signs."""

    decisions: list[str]
    findings: list[str]
    codes: list[CodeLine]
    changed: list[str]
    unproved: list[UnprovedShown]
    temporary: list[str]
    spent: SpentShown
    second_person: bool
    handed_by: str
    may_sign: bool
    refused: list[RefusedShown]
    seal: str
    notes: list[str]


class CallShown(Schema):
    """A closed job about which somebody should ask how the new board does."""

    id: UUID
    code: str
    machine: str
    original: str
    replacement: str
    closed_at: datetime
    said: str


class WireLine(Schema):
    """Where a wire was and where it is now, by the marks that are printed at the pins, and how it got there."""

    was: str
    now: str
    tag: str
    colour: str
    carries: str
    how: str
    minded: list[str]
    whole: bool
    """Whether it went across with its plug."""
    done: bool


class RowLine(Schema):
    """A row of a setting table that was followed: the parts that go with it, and what it notes."""

    table: str
    page: str
    row: int
    use: list[str]
    notes: list[str]


class WorkShown(Schema):
    """What was done to the machine besides the settings."""

    plugs: list[str]
    wires: list[WireLine]
    tied_back: list[str]
    links: list[str]
    adapters: list[str]
    holes: list[str]
    parts: list[str]
    rows: list[RowLine]
