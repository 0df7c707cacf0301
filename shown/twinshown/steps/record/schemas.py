"""Record: what the API shows and takes."""

from typing import Any

from pydantic import Field

from twincore.job.targets.record import Assumption, Removal
from twinshown.comparison.schemas import Positions, Scalar
from twinshown.shapes import Schema
from twinshown.words.schemas import FindingShown, PinShown, RememberedShown


class PlugShown(Schema):
    """A plug of the original; `way` is "whole" or "one by one" where its wires move without a record.

    `complete` says whether it may move with all its wires in it, as far as the new board is known; `one_by_one` whether each of
    its wires has its place on the board chosen.
    """

    id: str
    style: str | None
    keyed: bool
    way: str | None
    complete: bool
    one_by_one: bool
    offered: str | None
    """The socket of the new board with the same pins, where nobody knows what they carry: it goes there if somebody says so."""
    pins: list[PinShown]


class MovingShown(Schema):
    """A part that moves to the new board."""

    id: str
    what: str
    caution: str
    value: str | None


class DifferingShown(Schema):
    """Two readings of one element that do not agree."""

    element: str
    first: Scalar
    second: Scalar
    by: str


class TraceEventShown(Schema):
    """One event of a trace against the replacement as planned."""

    output: str
    on: bool
    seen_at: float | None
    at: float | None
    verdict: str


class TraceShown(Schema):
    """A trace, and whether the replacement would make it; `fault` where that cannot be said."""

    id: str
    title: str
    agrees: bool | None
    fault: str
    events: list[TraceEventShown]


class SignalChoice(Schema):
    """A signal of the family that a wire may be found to carry."""

    id: str
    title: str


class RecordShown(Schema):
    """Everything of the record that the board's profile asks for."""

    port: bool
    remembered: list[RememberedShown]
    plugs: list[PlugShown]
    signals: list[SignalChoice]
    findings: list[FindingShown]
    differing: list[DifferingShown]
    moving: list[MovingShown]
    temporary: list[SignalChoice]
    acting: list[str]
    missing: list[str]
    outputs: list[SignalChoice]
    inputs: list[SignalChoice]
    at_rest: list[str]
    behaviour_known: bool
    removed_left: int


class AssumableShown(Schema):
    """Where positions that cannot be read may be taken from, in words, and how the elements stand there."""

    source: Assumption
    of: str
    words: str
    positions: Positions


class PieceShown(Schema):
    """Something that came off on the way in."""

    what: str
    kind: Removal
    count: int
    place: str


class RouteShown(Schema):
    """The way in as an earlier job took it, without what is off here already."""

    of: str
    pieces: list[PieceShown]


class Corner(Schema):
    """A corner as shares of the picture's width and height."""

    x: float = Field(ge=0, le=1)
    y: float = Field(ge=0, le=1)


class BankGiven(Schema):
    """The corners of a bank or a row of thumbwheels in a picture, clockwise from its upper left as it is read, and which.

    `sliders`: whether sliders are lighter or darker than their slots, digits than their ground.
    """

    element: str = Field(max_length=80)
    corners: list[Corner] = Field(min_length=4, max_length=4)
    sliders: str = Field("light", pattern="^(light|dark)$")


class SliderShown(Schema):
    """One slider or digit as it was seen."""

    mark: str
    confidence: float


class BankShown(Schema):
    """What was seen: proposed, to be confirmed by a person. `picture` is the rectified bank as a data address."""

    written: str
    sliders: list[SliderShown]
    picture: str


class PictureShown(Schema):
    """A picture that is kept."""

    id: str
    width: int
    height: int


class DraftShown(Schema):
    """A behaviour drafted from traces, as a board's file has it, and which traces it makes."""

    behaviour: dict[str, Any]
    made: dict[str, bool]


class DraftGiven(Schema):
    """A behaviour as somebody edited it."""

    behaviour: dict[str, Any]


class DraftLoaded(Schema):
    """The board's new revision."""

    part_number: str
    revision: int
