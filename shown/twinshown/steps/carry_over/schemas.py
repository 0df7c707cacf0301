"""Carry over: what the API shows and takes."""

from typing import Literal

from twincore.wiring.planned import Order
from twinshown.comparison.schemas import Positions
from twinshown.shapes import Schema
from twinshown.words.schemas import FindingShown, PressLine, QuestionAsked


class LeafletRow(Schema):
    """A row that holds: what it sets, the parts that it says go with it, and what it notes besides."""

    chart: str
    page: str
    """Of the data sheet; empty where nobody wrote it down."""
    row: int
    positions: Positions
    use: list[str]
    notes: list[str]


class LeafletShown(Schema):
    """What the leaflet says for this machine. `whole` where its row can be taken as it is; `asks` are the facts that would
    decide between rows, those that decide soonest first; `clash` the places at which rows contradict each other.
    """

    rows: list[LeafletRow]
    sets: Positions | None
    whole: bool
    clash: list[str]
    asks: list[QuestionAsked]
    possible: int
    tables: bool
    """Whether the board has any setting table."""
    against: list[str]
    """Where no row holds or could: the facts of this machine that its rows ask about, in words."""


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
    name: str
    """By which entries call it: its old place where it is the only wire there, else its id."""
    also: list[str]
    """Further places that a link leads to."""


class SizeShown(Schema):
    """A wire of known load: whether it is thick enough, in words."""

    place: str
    verdict: str
    words: str


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


class PlugOffered(Schema):
    """A plug that could go complete onto a socket, if somebody says so: nobody knows what their pins carry."""

    plug: str
    socket: str


class PutByHand(Schema):
    """A wire or a plug that somebody put by hand, by the kind and the name of its target."""

    kind: Literal["placed", "plug_put"]
    name: str
    words: str
    why: str
    by: str
    at: str


class WiringShown(Schema):
    """The wiring plan: every wire and every pin once."""

    wires: list[WireShown]
    free: list[FreePinShown]
    traps: list[TrapShown]
    steps: list[StepLine]
    findings: list[FindingShown]
    adapters: list[str]
    sizes: list[SizeShown]
    order: Order
    orders: list[Order]
    wire_sums: dict[str, int]
    pin_sums: dict[str, int]
    original_pins: list[TablePin]
    replacement_pins: list[TablePin]
    offered: list[PlugOffered]
    by_hand: list[PutByHand]
    leads: list[str]
    """Leads that the row of the setting table says are used with it."""


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
    unasked: list[str]
    """Elements that a dialogue would set and, answered so, never asks for."""
    count: int
    why_not: str
