"""Carry over: whose school is followed, positions set by hand, reasons, the order of the wires."""

from typing import Annotated, Literal, NotRequired

from pydantic import Field
from typing_extensions import TypedDict

from twincore.job.target import SIGNED, Keep, Signed, Step, Target
from twincore.job.values import Position, Scalar, Text, Word, closed
from twincore.settings.schools import School
from twincore.wiring.planned import Order

REOPENS: tuple[Step, ...] = ("carry_over", "fit", "prove")


@closed
class MeaningSaid(TypedDict):
    """What places of a board decide, by somebody's word: a value for each way in which they may stand together."""

    of: Word
    """The number of the board that it is said of."""
    title: Word
    type: Literal["duration", "number", "count", "flag", "choice"]
    unit: NotRequired[Word]
    points: Annotated[list[Word], Field(max_length=3)]
    values: Annotated[list[Scalar | None], Field(max_length=64)]
    """In the order of their positions, the last place changing fastest; None where nobody knows."""


class MeaningKept(MeaningSaid, Signed):
    """What was said, by whom and when."""


@closed
class PlacedSaid(TypedDict):
    """Where somebody puts a wire of the old board: onto places of the new one, the first for the wire and a link to the others; onto
    the place of another wire; or, with neither, insulated and tied back.
    """

    to: Annotated[list[Word], Field(max_length=4)]
    joined: NotRequired[Word]
    lead: NotRequired[Word]


class PlacedKept(PlacedSaid, Signed):
    """A wire put by hand, by whom and why."""

    because: str


@closed
class PlugPutSaid(TypedDict):
    """A plug that goes complete onto a socket of the new board, pin by pin."""

    to: Word


class PlugPutKept(PlugPutSaid, Signed):
    """A plug put by hand, by whom and why."""

    because: str


KEEP_WHY = Keep(
    lambda value, entry, before, state: {**value, "because": entry.reason, **entry.signed()}, ("because", "by", "at")
)
"""With who, when and why."""

TARGETS = (
    Target("school", "carry_over", School, "school", "replacement", supply="any", named=False, takes_back=REOPENS),
    Target("order", "carry_over", Order, "order", "original", supply="any", named=False, takes_back=REOPENS),
    Target(
        "override",
        "carry_over",
        Position,
        "overrides",
        "replacement",
        supply="any",
        by_place="replacement",
        takes_back=REOPENS,
    ),
    Target("decision", "carry_over", School, "decisions", "replacement", supply="any", takes_back=REOPENS),
    Target("meaning", "carry_over", MeaningSaid, "meanings", "original", supply="any", takes_back=REOPENS, keep=SIGNED),
    Target(
        "placed",
        "carry_over",
        PlacedSaid,
        "placed",
        "replacement",
        supply="any",
        takes_back=REOPENS,
        late=True,
        keep=KEEP_WHY,
    ),
    Target(
        "plug_put",
        "carry_over",
        PlugPutSaid,
        "plugs_put",
        "replacement",
        supply="any",
        takes_back=REOPENS,
        late=True,
        waits_for=(),  # while plugs are recorded it decides whether their wires need a record
        keep=KEEP_WHY,
    ),
    Target("reason", "carry_over", Text, "reasons", "replacement", supply="any", takes_back=("carry_over",)),
)
