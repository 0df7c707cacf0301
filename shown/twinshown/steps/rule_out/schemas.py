"""Rule out: what the API shows and takes."""

from twinshown.shapes import Schema
from twinshown.words.schemas import DoesShown


class SuspectShown(Schema):
    """A suspect and how much weighs against it, before anything was tested and now."""

    id: str
    title: str
    before: float
    weight: float
    words: str
    source: str


class ResultShown(Schema):
    """A result that a test can have."""

    id: str
    title: str


class CurvePoint(Schema):
    """A point along a sensor's curve, with the band around it."""

    at_c: float
    value: float
    low: float
    high: float


class ReadingWanted(Schema):
    """What is read: its unit, the band to expect, or the curve at a temperature."""

    quantity: str
    unit: str
    uncertainty: float
    low: float | None
    high: float | None
    curve: str | None
    points: list[CurvePoint]


class EventShown(Schema):
    """An event of a timed run."""

    at_s: float
    what: str
    within_s: float


class TestShown(Schema):
    """A test: what it costs and risks, how it is done, what is expected, what it would tell."""

    id: str
    title: str
    minutes: float
    risk: str
    how: list[str]
    expected: str
    does: list[DoesShown]
    undo: str
    as_found: str
    reading: ReadingWanted | None
    results: list[ResultShown]
    events: list[EventShown]
    bits: float
    source: str


class LinkShown(Schema):
    """One link of the chain of reasoning."""

    kind: str
    id: str
    title: str
    result: str
    counted: bool
    words: str
    verdict: str | None
    side: str
    margin: float | None
    read: str
    """The reading in words."""
    value: float | None
    """The reading as a number; None where it is none, or beyond what the meter reads."""
    low: float | None
    high: float | None
    at_c: float | None
    unit: str
    leading: str
    weight: float


class SymptomShown(Schema):
    """Something the machine may do or not do."""

    id: str
    title: str


class CauseShown(Schema):
    """Why a board may have died."""

    id: str
    title: str
    blocks_power: bool
    clear: str


class CodeShown(Schema):
    """A code that the board shows."""

    shown: str
    meaning: str
    look_at: str
    clears: str


class BorrowedShown(Schema):
    """A test that moved or pulled something which is not said to be back."""

    id: str
    title: str
    undo: str


class RuleOutShown(Schema):
    """Where the suspicion stands, and what to do next."""

    family: str
    school: str
    symptoms: list[SymptomShown]
    code: CodeShown | None
    suspects: list[SuspectShown]
    chain: list[LinkShown]
    tests: list[TestShown]
    """Every test of the family."""
    next: list[str]
    dead: bool
    """Whether every hold point holds, so that tests on the dead machine are open."""
    conclusion: str
    contradictory: bool
    causes: list[CauseShown]
    to_restore: list[BorrowedShown]
