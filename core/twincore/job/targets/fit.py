"""Fit: the kit, positions read back, looks and wires ticked, the supply back on, what needs it."""

from typing import Annotated, Any, Literal, NotRequired

from pydantic import Field, StrictBool
from typing_extensions import TypedDict

from twincore.job.target import EntryMade, Signed, Step, Target, signed
from twincore.job.targets.make_safe import HoldKept
from twincore.job.values import Line, Number, Position, Text, Within, Word, closed

Count = Annotated[int, Within(0, 1000, whole=True)]
REOPENS: tuple[Step, ...] = ("fit", "prove")
WITH_POWER = "on "
"""How the names of looks begin that are taken with the supply on."""


@closed
class ReadbackSaid(TypedDict):
    """A position of the new board, read back."""

    value: Position


class ReadbackKept(ReadbackSaid, Signed):
    """A position read back, and how."""

    how: str


@closed
class EnergisedSaid(TypedDict):
    """The supply put back on purpose: the hold points in the order in which they were released."""

    released: list[Line]
    left: NotRequired[list[str]]
    reason: NotRequired[Text]


class EnergisedKept(EnergisedSaid, Signed):
    """The supply back on, with what held before."""

    held: dict[str, HoldKept]


@closed
class LearnedSaid(TypedDict):
    """A learning run: how many cycles, and what the display showed."""

    cycles: Count
    shown: Annotated[Line, Field(min_length=1)]


class LearnedKept(LearnedSaid, Signed):
    """A learning run as it is kept."""


@closed
class InHandSaid(TypedDict):
    """What stands on the board that goes in, read before it is mounted."""

    number: Annotated[Line, Field(min_length=1)]
    revision: NotRequired[Word]
    serial: NotRequired[Word]


class InHandKept(InHandSaid, Signed):
    """The board in the hand, by whom it was read and when."""


@closed
class KitStepSaid(TypedDict):
    """A step of fitting a kit: done, with its measure; or left out."""

    done: StrictBool
    measured_mm: NotRequired[Number]


class KitStepKept(KitStepSaid, Signed):
    """A step of the kit as it is kept."""


def _keep_readback(value: Any, entry: EntryMade, before: Any, state: dict[str, Any]) -> Any:
    return {**value, "how": entry.read_how or "by eye", **entry.signed()}


def _keep_energised(value: Any, entry: EntryMade, before: Any, state: dict[str, Any]) -> Any:
    return {**value, "held": state["holds"], **entry.signed()}


TARGETS = (
    Target("kit", "fit", Count, "kit", "replacement", takes_back=REOPENS, waits_for=("carry_over",)),
    Target(
        "in_hand", "fit", InHandSaid, "in_hand", "replacement", named=False,
        takes_back=REOPENS, waits_for=("carry_over",), keep=signed,
    ),
    Target(
        "kit_step", "fit", KitStepSaid, "kit_steps", "replacement",
        takes_back=REOPENS, waits_for=("carry_over", "make_safe"), keep=signed,
    ),
    Target(
        "readback", "fit", ReadbackSaid, "readbacks", "replacement",
        takes_back=REOPENS, waits_for=("carry_over",), keep=_keep_readback,
    ),
    Target("look", "fit", Literal[True], "looks", "replacement", takes_back=REOPENS, waits_for=("carry_over", "make_safe")),
    Target(
        "ticked", "fit", Literal[True], "ticked", "replacement", takes_back=REOPENS, waits_for=("carry_over", "make_safe")
    ),
    Target(
        "energised", "fit", EnergisedSaid, "energised", "replacement", named=False,
        takes_back=("make_safe", *REOPENS), waits_for=("carry_over", "make_safe", "cause"), keep=_keep_energised,
    ),
    Target(
        "learned", "fit", LearnedSaid, "learned", "replacement", named=False,
        takes_back=REOPENS, waits_for=("carry_over", "energised"), keep=signed,
    ),
    Target(
        "reentered", "fit", Text, "reentered", "replacement", takes_back=REOPENS, waits_for=("carry_over", "energised")
    ),
)  # fmt: skip
