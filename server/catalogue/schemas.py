"""The catalogue: what the API shows and takes."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from pydantic import Field, WithJsonSchema

from twincore.profile import KINDS
from twincore.profile.hanging import Axis, Way
from twincore.workshop import Role
from twinshown.shapes import Schema


class BoardLine(Schema):
    """A board in a list."""

    part_number: str
    maker: str
    title: str
    family: str
    status: str
    revision: int
    standing: str
    """What its settings are worth, in words; empty where nobody said."""
    withdrawn: str
    """Why it is not to be used any more, in words; empty where it is."""


class BoardCard(BoardLine):
    """A board among others to choose from: drawn small from `sketch`, as its profile has it."""

    family_title: str
    sketch: dict[str, Any]


class MakerLine(Schema):
    """A maker, and how many boards are theirs."""

    maker: str
    boards: int


class EditShown(Schema):
    """One difference between what was read and what is printed."""

    kind: str
    read: str
    printed: str


class ReadingShown(Schema):
    """How one marking that was read agrees with one that is printed."""

    read: str
    printed: str
    how: str
    edits: list[EditShown]
    alias: bool
    revision: str
    words: str


class MarkedBoard(BoardLine):
    """A board that markings may belong to, and why it is a hit."""

    readings: list[ReadingShown]


class RevisionLine(Schema):
    """One revision in a list."""

    number: int
    loaded_at: datetime
    loaded_by: str


class RangeShown(Schema):
    """The numbers that a parameter can be set to: from the lowest to the highest in equal steps."""

    low: int | float
    high: int | float
    step: int | float


class HangingShown(Schema):
    """How a bank hangs: along which way its places run as seen, whether place 1 comes last, and where on points."""

    axis: Axis
    backwards: bool
    on: Way
    known: bool
    """Whether its layout says so; else it is drawn the usual way."""


class ElementShown(Schema):
    """An element of a board: its points in order, what each may be, and how it leaves the maker.

    A parameter has a `range`, for it may have very many numbers; anything else lists its `values`. A row of thumbwheels
    has `contacts`: for each of its values the weights of the contacts that are closed.
    """

    id: str
    kind: Annotated[str, WithJsonSchema({"type": "string", "enum": list(KINDS)})]
    title: str
    unit: str
    points: list[str]
    values: list[str | int | float]
    range: RangeShown | None
    factory: str | int | float | None
    """None where nobody knows how it leaves the maker."""
    locked: list[str]
    contacts: list[list[int]]
    hanging: HangingShown


class ChartColumn(Schema):
    """A column of a chart."""

    heading: str = Field(max_length=200)
    role: Role
    name: str = Field("", max_length=80)


class ChartShown(Schema):
    """A chart as its leaflet prints it."""

    id: str
    title: str
    columns: list[ChartColumn]
    rows: list[list[str]]


class BoardShown(BoardLine):
    """A board in full; `document` is its file, for the drawing and the state diagram."""

    elements: list[ElementShown]
    charts: list[ChartShown]
    document: dict[str, Any]
    family_title: str
    behaviour_known: bool
    doubts: list[str]
    under: UUID | None
    """The picture that this depot laid under its drawing."""


class FamilyShown(Schema):
    """A family in full."""

    id: str
    title: str
    revision: int
    boards: int
    document: dict[str, Any]


class FamilyLine(Schema):
    """A family in a list."""

    id: str
    title: str
    boards: int


class FaultShown(Schema):
    """A place in a document and what was expected there."""

    place: str
    expected: str


class LoadedShown(Schema):
    """What loading a document did."""

    kind: str
    name: str
    revision: int
    new: bool
    warnings: list[FaultShown]
