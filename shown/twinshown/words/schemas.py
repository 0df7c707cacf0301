"""What the API shows in more than one step of a job."""

from typing import Any

from pydantic import Field

from twincore.job.shared.borrowing import What
from twinshown.shapes import Schema


class QuestionAsked(Schema):
    """A fact to find out on the machine, and what it would have to be."""

    fact: str
    words: str
    wanted: Any
    unit: str


class HoleShown(Schema):
    """A hole to drill, measured from two edges of the original's seat."""

    from_left_mm: float
    from_bottom_mm: float
    diameter_mm: float


class CostLine(Schema):
    """One amount of a sum."""

    id: str
    amount: float
    words: str


class CostsShown(Schema):
    """Own repair against calling a service."""

    own: list[CostLine]
    service: list[CostLine]
    own_total: float
    service_total: float
    saved: float
    assumptions: dict[str, float]
    changed: list[str]
    price_from: str


class PinShown(Schema):
    """A pin of a plug, with the wires on it."""

    pin: str
    mark: str
    title: str
    carries: str | None
    volts_class: str | None
    contact: str | None
    wires: list[str]


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
    rows: bool
    """Whether it is a list: a line an item, with its value."""
    items: list[str]
    """Of a list: the items that the board has a value for, such as its buttons."""
    value: str | None


class PressLine(Schema):
    """Press a key so often; `shows` is what must then be seen. `action` is what the key does there.

    In a dialogue `asks` is the question that is answered, and `do` something to do until the sign in `shows` comes.
    """

    key: str
    action: str
    times: int
    hold_s: float
    shows: str
    asks: str
    do: str


class DoesShown(Schema):
    """One thing that a test does, with this board's own points and pins; `missing` where this board has none such."""

    what: What
    words: str
    wait_s: float
    missing: bool


class UnprovedShown(Schema):
    """A part that stays unproved on the machine, and why."""

    what: str
    why: str


class EntryWords(Schema):
    """An entry in words: of what, from which value to which."""

    about: str
    before: str
    after: str


class ChangeGiven(Schema):
    """What was said at a target."""

    target: str = Field(max_length=100)
    before: Any = None
    after: Any = None


class ChangesGiven(Schema):
    """Entries that somebody wants in words."""

    changes: list[ChangeGiven] = Field(max_length=100)
