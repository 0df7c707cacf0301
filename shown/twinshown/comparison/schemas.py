"""What the API shows of a pair of boards."""

from typing import Literal

from pydantic import Field

from twincore.settings import School
from twinshown.shapes import Schema

Scalar = str | bool | int | float
Positions = dict[str, str | int | float]


class PointShown(Schema):
    """A point and how it stands (or must stand)."""

    point: str
    value: str


class RowShown(Schema):
    """One function on both boards: as it was found, as it is wanted, and as the new board gives it.

    `verdict` and `difference` hold what is given against what was found, and against nothing else; `met` and `missed` hold it
    against what is wanted.
    """

    id: str
    title: str
    importance: str
    found: str
    wanted: str
    wanted_by: str
    """Who or what wants something else than was found; empty where it is wanted as it was found."""
    on_original: bool
    on_replacement: bool
    got: str
    verdict: str
    met: bool
    missed: bool
    assumed: bool
    """Whether what was found is told only by positions that somebody assumed."""
    difference: str
    tolerance: str
    original_points: list[PointShown]
    replacement_points: list[PointShown]


class ExtraShown(Schema):
    """A function that only the replacement has."""

    title: str
    value: str
    points: list[PointShown]


class OffsetShown(Schema):
    """A number that differs within tolerance."""

    title: str
    original: str
    replacement: str


class StepShown(Schema):
    """Input changes at one instant (seconds): on or off, or where a level goes."""

    at: float = Field(ge=0, le=10_000_000)
    set: dict[str, bool | float]


class CounterCaseShown(Schema):
    """A scenario at whose end the two boards differ, and the outputs in which they do."""

    changes: int
    fewest: bool
    steps: list[StepShown]
    at: float
    differing: list[str]


class EndlessShown(Schema):
    """A board that goes round without end, and how it gets there: in words, and as a scenario at whose end it does."""

    board: str
    told: list[str]
    steps: list[StepShown]
    at: float


class ProofShown(Schema):
    """A twin verdict with what it rests on."""

    verdict: str
    words: str
    offsets: list[OffsetShown]
    told: list[str]
    endless: list[EndlessShown]
    explored: int
    why: list[str]
    """What each board did as they part, by which conditions and settings, and which single setting would bring them together;
    of boards in register what that rests on.
    """
    counter_case: CounterCaseShown | None = None


class UnreadableShown(Schema):
    """A point that could not be read, the functions that hang on it, and how many its reading decides on average."""

    point: str
    functions: list[str]
    decides: float


class SchoolRow(Schema):
    """What one function would be after a school, and how that differs from what is wanted."""

    id: str
    value: str
    difference: str
    missed: bool


class SchoolShown(Schema):
    """One school: its positions, what it rests on, and what the machine would do. `counts` where it may be followed."""

    id: School
    counts: bool
    positions: Positions | None
    says: list[str]
    functions: list[SchoolRow]
    proof: ProofShown | None


class SchoolSays(Schema):
    """What a school would make of one function, and how that differs from what is wanted."""

    school: School
    value: str
    difference: str


class DisagreementShown(Schema):
    """A function that schools set differently, and whom a person follows."""

    id: str
    title: str
    found: str
    says: list[SchoolSays]
    decided: School | Literal[""]


class OffTableShown(Schema):
    """A point at which the original itself stood otherwise than its own table says."""

    point: str
    found: str
    table: str


class ActShown(Schema):
    """A position that only acts for a while and is not carried over."""

    point: str
    what: str
    ends: str


class BetweenShown(Schema):
    """A function read between two marks of a trimmer, with the range that the reading allows."""

    id: str
    title: str
    value: str
    low: str
    high: str


class CodeToRead(Schema):
    """A code of the new board that stands on the machine's plate and was not read; `plate` is what was read and does not fit."""

    element: str
    title: str
    fact: str
    places: int
    plate: str | None


class ComparisonShown(Schema):
    """Two boards side by side."""

    original: str
    replacement: str
    found: Positions
    plan: Positions | None
    best: Positions | None
    why: list[str]
    rows: list[RowShown]
    extras: list[ExtraShown]
    moved: int
    proved: bool
    """Whether no other setting is better than `best`; otherwise it is the best that was found in time."""
    safety_misses: int
    other_misses: int
    """In how many functions the two boards differ, whoever wants it so, but for what the owner wished."""
    unreadable: list[UnreadableShown]
    meanings_known: bool
    """Of the replacement."""
    read_known: bool
    """Whether the functions of the original are written down: else what cannot be read of it may matter or not."""
    same_layout: bool
    proof: ProofShown | None
    schools: list[SchoolShown]
    disagreements: list[DisagreementShown]
    proposed: str
    off_own_table: list[OffTableShown]
    acting: list[ActShown]
    between: list[BetweenShown]
    alternatives: list[Positions]
    codes_to_read: list[CodeToRead]
    """Of a job: what of its new board still has to be read from the plate."""


class ShownAt(Schema):
    """What stands at an instant (seconds): the outputs that are on, and the states of the machines by their titles."""

    at: float
    on: list[str]
    states: list[str]


class ThresholdShown(Schema):
    """A value of a level at which boards switch, and which of them do."""

    level: str
    at: float
    original: bool
    replacement: bool


class RoundShown(Schema):
    """A board that goes round without end from an instant (seconds) on, and through which states."""

    side: Literal["original", "replacement"]
    at: float
    states: list[str]


class PlayShown(Schema):
    """A scenario played on both boards, and where they read its levels; of one that goes round without end what it showed before."""

    original: list[ShownAt]
    replacement: list[ShownAt]
    thresholds: list[ThresholdShown]
    rounds: list[RoundShown]
    until: float


class ScenarioGiven(Schema):
    """A scenario to play."""

    steps: list[StepShown] = Field(max_length=500)
    until: float = Field(ge=0, le=10_000_000)


class PairGiven(Schema):
    """Two boards of the catalogue; without `plan` the replacement is set by carry-over."""

    original: str = Field(max_length=80)
    found: Positions | None = None
    replacement: str = Field(max_length=80)
    plan: Positions | None = None


class PlayGiven(Schema):
    """A pair and a scenario to play on it."""

    pair: PairGiven
    scenario: ScenarioGiven
