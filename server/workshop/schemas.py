"""What the workshop takes and shows."""

from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID, uuid4

from pydantic import Field

from catalogue.schemas import ChartColumn, ChartShown, ElementShown
from twinshown.comparison.schemas import StepShown
from twinshown.paging import Paging
from twinshown.shapes import Schema

Cell = Annotated[str, Field(max_length=2000)]
Part = Annotated[str, Field(max_length=80)]
Finite = Annotated[float, Field(ge=-1e9, le=1e9, allow_inf_nan=False)]
Weight = Literal["fault", "note"]
FactKind = Literal["number", "flag", "choice", "text"]
How = Literal["new", "gone", "same", "changed"]
State = Literal["open", "proposed", "published", "given_up"]


class DraftLine(Schema):
    """A draft in a list."""

    id: UUID
    part_number: str
    title: str
    maker: str
    family: str
    family_title: str
    state: State
    version: int
    note: str
    started_by: str
    touched_by: str
    touched_at: datetime


class DraftSearch(Paging):
    """Which drafts to list."""

    live: bool = True


class GridCell(Schema):
    """A row of a grid: where the points stand, and its cell."""

    at: list[str]
    text: str
    wrong: str


class DraftFunction(Schema):
    """A function of the kind of machine, and what this board's positions mean by it."""

    id: str
    title: str
    type: str
    unit: str
    choices: list[str]
    importance: str
    said: bool
    points: list[str]
    cells: list[GridCell]
    reads: str
    scale: float
    offset: float
    too_large: bool
    notes: list[str]


class DraftPoint(Schema):
    """A point of the board, and where it may stand."""

    id: str
    positions: int
    first: str


class DraftPin(Schema):
    """A pin of a plug."""

    pin: str
    mark: str
    signal: str


class DraftPlug(Schema):
    """A plug with its pins."""

    id: str
    style: str
    keyed: bool | None
    pins: list[DraftPin]


class DraftName(Schema):
    """Something of the kind of machine that cells may name."""

    id: str
    title: str


class DraftFact(DraftName):
    """A fact that somebody can say of a machine of this kind."""

    kind: FactKind
    unit: str
    choices: list[str]


class ArrowCells(Schema):
    """An arrow out of a state as cells."""

    to: str = Field(max_length=80)
    inputs: str = Field("", max_length=2000)
    after: str = Field("", max_length=200)
    settings: str = Field("", max_length=2000)
    does: str = Field("", max_length=2000)


class DraftState(Schema):
    """A state as cells; `place` is where its findings stand."""

    name: str
    title: str
    on: str
    arrows: list[ArrowCells]
    place: str
    survives: bool


class DraftMachine(Schema):
    """One machine of the board's behaviour."""

    id: str
    start: str
    states: list[DraftState]


class DraftFinding(Schema):
    """What is wrong at a place, or looks so."""

    place: str
    where: str
    """Its place in the words of the tables."""
    says: str
    weight: Weight
    steps: list[StepShown] | None
    """A scenario at whose end (`at`, seconds) it shows, where there is one."""
    at: float


class DraftEdit(Schema):
    """Something that somebody changed."""

    number: int
    by: str
    mine: bool
    at: datetime
    what: str
    undone: bool


class DraftSource(Schema):
    """Where a part is from."""

    part: str
    worth: str
    what: str
    page: str
    who: str
    on: str


class DraftInFull(DraftLine):
    """A draft in full, as tables of cells and as documents."""

    document: dict[str, Any]
    elements: list[ElementShown]
    points: list[DraftPoint]
    functions: list[DraftFunction]
    charts: list[ChartShown]
    plugs: list[DraftPlug]
    machines: list[DraftMachine]
    clocks: list[str]
    counters: list[str]
    signals: list[DraftName]
    facts: list[DraftFact]
    inputs: list[DraftName]
    outputs: list[DraftName]
    sources: list[DraftSource]
    findings: list[DraftFinding]
    edits: list[DraftEdit]
    base: int
    current: int
    may_publish: bool
    can_undo: bool


class TaughtShown(Schema):
    """What jobs teach about a board: a point that could not be read, or a function whose positions mean nothing."""

    of: str
    title: str
    what: Literal["unread", "means nothing"]
    jobs: int


class SaidShown(Schema):
    """What somebody said in a job that positions mean, where the profile does not say it."""

    title: str
    words: str
    by: str
    job: str


class UsesShown(Schema):
    """How many of the depot's jobs had this board, and what they teach."""

    jobs: int
    taught: list[TaughtShown]
    said: list[SaidShown]


class BoardGiven(Schema):
    """The board whose draft is opened."""

    part_number: str = Field(max_length=80)


class ActGiven(Schema):
    """Something that somebody does to a draft; the id is made by the client, so that sending twice does it once."""

    id: UUID = Field(default_factory=uuid4)


class Seen(ActGiven):
    """An edit, and the version of the draft that was looked at."""

    seen: int = Field(ge=0)


class GridGiven(Seen):
    """A function's meaning as a grid: the points that matter and every cell in order; or the point that is read."""

    function: Part
    points: list[Part] = Field(default_factory=list, max_length=12)
    cells: list[Cell] = Field(default_factory=list, max_length=256)
    reads: str = Field("", max_length=80)
    scale: Finite = 1
    offset: Finite = 0
    fill: tuple[Finite, Finite] | None = None
    """Start and step, to fill the grid by a rule."""


class ChartGiven(Seen):
    """A chart's columns and cells; it is added where there is none of this index."""

    index: int = Field(ge=0, le=500)
    title: str = Field("", max_length=200)
    columns: list[ChartColumn] = Field(max_length=60)
    rows: list[Annotated[list[Cell], Field(max_length=60)]] = Field(max_length=500)


class HeadingsGiven(Schema):
    """Headings of a table that was pasted or loaded, and its rows."""

    headings: list[Cell] = Field(max_length=60)
    rows: list[Annotated[list[Cell], Field(max_length=60)]] = Field(default_factory=list, max_length=500)


class PinsGiven(Seen):
    """A plug's pins as cells: number, what is printed, and the signal by its name or title."""

    index: int = Field(ge=0, le=500)
    rows: list[Annotated[list[Cell], Field(min_length=3, max_length=3)]] = Field(max_length=200)


class StateGiven(Seen):
    """A state as cells. `was` is the name it had; empty for a new one."""

    machine: int = Field(0, ge=0, le=20)
    was: str = Field("", max_length=80)
    name: str = Field(max_length=80)
    title: str = Field("", max_length=200)
    on: str = Field("", max_length=2000)
    arrows: list[ArrowCells] = Field(default_factory=list, max_length=60)
    gone: bool = False


class PlaceGiven(Seen):
    """Anything else of a draft: a place in it and what shall stand there; null takes it away."""

    path: list[str | int] = Field(min_length=2, max_length=10)
    after: Any = None


class BorrowGiven(Seen):
    """What to take over from another board; `usual` takes the behaviour that most boards of the kind share."""

    part: Literal["functions", "connectors", "behaviour"]
    part_number: str = Field("", max_length=80)


class StepGiven(Schema):
    """What becomes of a draft: proposed, given back to be worked on, or put away; and what is said with it."""

    to: Literal["proposed", "open", "given_up"]
    note: str = Field("", max_length=2000)


class PublishGiven(Schema):
    """What was looked at, and why it is published."""

    seen: int = Field(ge=0)
    over: int = Field(ge=1)
    reason: str = Field(min_length=1, max_length=2000)


class MovedShown(Schema):
    """Positions at which a function's value changes."""

    at: str
    was: str
    becomes: str


class FunctionChangeShown(Schema):
    """A function before and after."""

    id: str
    title: str
    how: How
    moved: list[MovedShown]
    count: int


class ElementChangeShown(Schema):
    """Something that can be set, before and after."""

    id: str
    how: How


class DraftTraced(Schema):
    """What was timed in a job, against the draft."""

    job: str
    title: str
    agrees: bool | None
    before: bool | None


class ChangesShown(Schema):
    """What publishing a draft changes, held against the revision in use."""

    over: int
    version: int
    functions: list[FunctionChangeShown]
    elements: list[ElementChangeShown]
    parts: list[str]
    verdict: str
    counter_case: list[str]
    traces: list[DraftTraced]
    open_jobs: list[str]
    faults: int
    nothing: bool
