"""What the API shows of making safe, recording and carrying over."""

from datetime import datetime
from typing import Any

from ninja import Field, Schema

from bench.schemas import Scalar
from twincore.wiring.plan import Order


class HoldShown(Schema):
    """One hold point: what to do, what to say, and what was said. `left_s` is what remains of its wait."""

    id: str
    kind: str
    title: str
    say: list[str]
    asks: list[str]
    limit: float | None
    unit: str
    wait_s: float
    left_s: float
    energy_j: float | None
    held: dict[str, Any] | None


class MakeSafeShown(Schema):
    """The hold points in order; `now` is the server's clock, by which waits run."""

    power: str
    now: datetime
    locked_off_at: datetime | None
    points: list[HoldShown]
    unread: list[str]
    """What only the board with power can tell and nobody has read yet, in words."""


class PinShown(Schema):
    """A pin of a plug, with the wires on it."""

    pin: str
    mark: str
    title: str
    carries: str | None
    volts_class: str | None
    contact: str | None
    wires: list[str]


class PlugShown(Schema):
    """A plug of the original; `way` is "whole" or "one by one" where its wires move without a record.

    `one_by_one` says whether each of its wires has its place on the board chosen.
    """

    id: str
    style: str | None
    keyed: bool
    way: str | None
    one_by_one: bool
    pins: list[PinShown]


class FindingShown(Schema):
    """A difference between the wiring diagram and what was found, and how it was settled.

    `missing` where the diagram has a wire and nobody recorded one: not yet, or because none was there.
    """

    place: str
    missing: bool
    words: str
    settled: str
    note: str


class RememberedShown(Schema):
    """What the board knows and a new one will not; `enter` says how it is entered again, empty for history."""

    id: str
    what: str
    unit: str
    read: str
    enter: str
    value: str | None


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


class PortValue(Schema):
    """A value that the port gave, and what stands there already."""

    target: str
    title: str
    value: str | int | float
    there: str | int | float | None
    differs: bool


class PortShown(Schema):
    """What the port said; `fault` says what is wrong with it and what to do."""

    identity: str
    values: list[PortValue]
    unreadable: list[str]
    fault: str


class WireShown(Schema):
    """One wire of the plan."""

    id: str
    tag: str
    colour: str
    goes_to: str
    carries: str
    from_place: str
    from_mark: str
    to_place: str | None
    to_mark: str
    treatment: str
    adapter: str
    marks: list[str]
    recorded: bool


class FreePinShown(Schema):
    """A pin of the replacement without a wire."""

    place: str
    title: str
    treatment: str
    detail: str


class TrapShown(Schema):
    """The same housing with other pinning."""

    plug: str
    socket: str
    style: str
    pins: list[str]


class StepLine(Schema):
    """One thing to do with one hand; `key` is the name under which it is ticked."""

    number: int
    key: str
    kind: str
    words: str
    wires: list[str]
    done: bool
    minded: list[str]


class TablePin(Schema):
    """A row of a pin table."""

    place: str
    mark: str
    title: str


class WiringShown(Schema):
    """The wiring plan: every wire and every pin once."""

    wires: list[WireShown]
    free: list[FreePinShown]
    traps: list[TrapShown]
    steps: list[StepLine]
    findings: list[FindingShown]
    adapters: list[str]
    order: Order
    orders: list[Order]
    wire_sums: dict[str, int]
    pin_sums: dict[str, int]
    original_pins: list[TablePin]
    replacement_pins: list[TablePin]


class PressLine(Schema):
    """Press a key so often; `shows` is what must then be seen. `action` is what the key does there."""

    key: str
    action: str
    times: int
    hold_s: float
    shows: str


class PanelShown(Schema):
    """One panel's presses in order."""

    title: str
    sets: list[str]
    presses: list[PressLine]
    count: int


class PressesShown(Schema):
    """The programming plan from the factory's state."""

    panels: list[PanelShown]
    by_hand: list[str]
    count: int
    why_not: str


class Corner(Schema):
    """A corner as shares of the picture's width and height."""

    x: float = Field(ge=0, le=1)
    y: float = Field(ge=0, le=1)


class BankGiven(Schema):
    """The corners of a bank in a picture, clockwise from its upper left as it is read, and the bank."""

    element: str = Field(max_length=80)
    corners: list[Corner] = Field(min_length=4, max_length=4)
    sliders: str = Field("light", pattern="^(light|dark)$")


class SliderShown(Schema):
    """One slider as it was seen."""

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
