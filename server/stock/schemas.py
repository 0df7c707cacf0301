"""What the API of van stock takes and shows."""

from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from pydantic import Field

from twinshown.paging import Paging
from twinshown.shapes import Schema

GRADE = Literal["proved", "work", "listed"]
MOST = 1_000_000.0


class VanGiven(Schema):
    """A van: its name, whose it is, what may be in it, and how far it is from the others, in minutes by their ids."""

    id: UUID
    name: str = Field(min_length=1, max_length=80)
    driver: str | None = Field(None, max_length=150)
    budget: float | None = Field(None, ge=0, le=MOST)
    shelf: float | None = Field(None, ge=0, le=MOST)
    minutes: dict[str, int] = Field(default_factory=dict, max_length=200)


class VanShown(Schema):
    """A van in a list."""

    id: UUID
    name: str
    driver: str
    driver_name: str
    budget: float | None
    shelf: float | None
    pieces: int
    """How many boards are in it."""
    lacks: int
    """How many it should have besides, by the plan that was taken."""
    machines: int
    minutes: dict[str, int]


class PieceHeld(Schema):
    """A piece on a shelf: how many are there, how many should be, and how many of the van's machines it serves."""

    piece: str
    title: str
    count: int
    wanted: int | None
    machines: int


class Shelf(Schema):
    """A van with a page of what is in it."""

    van: VanShown
    items: list[PieceHeld]
    total: int
    page: int
    size: int


class ShelfMoved(Schema):
    """So many of a piece put in (above 0) or taken out (below)."""

    id: UUID
    piece: str = Field(min_length=1, max_length=700)
    change: int = Field(ge=-99, le=99)


class CountedPiece(Schema):
    """So many of a piece were counted."""

    piece: str = Field(min_length=1, max_length=700)
    count: int = Field(ge=0, le=99)


class ShelfCounted(Schema):
    """A count of a shelf, of all of it or of some pieces."""

    id: UUID
    pieces: list[CountedPiece] = Field(max_length=500)
    whole: bool = False


class DifferenceShown(Schema):
    """What a count found otherwise than it was written down."""

    piece: str
    was: int
    now: int


class MoveShown(Schema):
    """Something that came onto a shelf or off it."""

    id: UUID
    piece: str
    change: int
    left: int
    why: str
    job: UUID | None
    job_code: str
    at: datetime
    by: str


class PiecesAsked(Schema):
    """The pieces that somebody looks for."""

    piece: list[str] = Field(min_length=1, max_length=50)


class Whereabouts(Schema):
    """A piece that is in a van, and how far that van is from the one of whoever asks."""

    piece: str
    van: UUID
    name: str
    count: int
    mine: bool
    minutes: int | None


class ServedSearch(Paging):
    """Which machines served to list."""

    van: UUID | None = None
    board: str = Field("", max_length=80)


class ServedShown(Schema):
    """Machines of one kind that a van looks after."""

    van: UUID
    van_name: str
    board: str
    title: str
    known: bool
    machines: int
    failed: float
    years: float
    facts: dict[str, Any]
    proved: int
    """How many pieces serve them as proved twins."""
    work: int
    listed: int


class PiecePriced(Schema):
    """What a piece costs and takes, by the depot's own word."""

    piece: str
    title: str
    cost: float
    size: float
    most: int


class Loaded(Schema):
    """How many rows of a file were taken in."""

    rows: int


class MatrixKind(Schema):
    """Machines of one kind, over all vans, and how many they are."""

    board: str
    machines: int
    facts: dict[str, Any]


class MatrixPiece(Schema):
    """A piece that serves some of them, how many machines, and how many of it are in the vans."""

    piece: str
    machines: int
    held: int


class MatrixGrade(Schema):
    """That a piece serves a kind of machine, both by their places, and how well."""

    kind: int
    piece: int
    grade: GRADE


class MatrixShown(Schema):
    """Who serves whom: kinds of machine in their order, pieces in theirs, and a grade where one serves the other."""

    kinds: list[MatrixKind]
    pieces: list[MatrixPiece]
    grades: list[MatrixGrade]
    unjudged: int
    """Kinds of machine that nobody has judged yet: a plan judges them first."""
    judged_at: datetime | None


class PlanGiven(Schema):
    """A plan to work out."""

    id: UUID
    grade: GRADE = "work"
    days: float = Field(14.0, gt=0, le=366)
    lend: bool = False
    budget: float | None = Field(None, ge=0, le=MOST)


class PlanLine(Schema):
    """A plan in a list, and how far it is."""

    id: UUID
    state: str
    share: float
    fault: str
    asked: dict[str, Any]
    asked_at: datetime
    asked_by: str
    ended_at: datetime | None
    taken_at: datetime | None
    failures: float | None
    served: float | None
    gap: float | None
    cost: float | None


class VanPlanned(Schema):
    """What one van carries by a plan."""

    van: str
    name: str
    failures: float
    planned: float
    cost: float
    size: float
    pieces: list["PiecePlanned"]


class PiecePlanned(Schema):
    """So many of a piece by a plan, and so many are there."""

    piece: str
    count: int
    held: int


class Uncovered(Schema):
    """Machines that nothing carried serves."""

    van: str
    board: str
    machines: int
    failures: float
    known: bool
    served_by: int


class OneMore(Schema):
    """What one more of a piece would bring in a van."""

    van: str
    piece: str
    served: float
    cost: float


class ChangeShown(Schema):
    """So many of a piece go from a van to a van; from none they are bought, to none returned."""

    piece: str
    count: int
    source: str | None
    target: str | None


class MoneyPoint(Schema):
    """What the best plan of so much money puts right."""

    budget: float
    served: float
    at_most: float


class PlanFound(Schema):
    """What a plan says."""

    vans: list[VanPlanned]
    uncovered: list[Uncovered]
    next: list[OneMore]
    changes: list[ChangeShown]
    curve: list[MoneyPoint]
    left_out: list[str]
    failures: float
    served: float
    at_most: float
    gap: float
    seconds: float
    cost: float


class PlanShown(PlanLine):
    """A plan with all that it says."""

    found: PlanFound | None
    names: dict[str, str]
    """The vans by their ids."""
