"""Fit: the kit, positions read back, looks and wires ticked, the supply back on, what needs it."""

from typing import Annotated, Any, Literal, NotRequired

from pydantic import Field, StrictBool
from typing_extensions import TypedDict

from twincore.job.target import SIGNED, EntryMade, Keep, Signed, Step, Target
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


KEEP_READBACK = Keep(
    lambda value, entry, before, state: {**value, "how": entry.read_how or "by eye", **entry.signed()}, ("how", "by", "at")
)  # fmt: skip
KEEP_ENERGISED = Keep(
    lambda value, entry, before, state: {**value, "held": state["holds"], **entry.signed()}, ("held", "by", "at")
)


def _after_energised(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    if value is not None:
        state["power"], state["holds"] = "on", {}


def _after_ticked(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    if value is None:
        # what was moved back is not looked at a second time any more
        state["energised"] = None


TARGETS = (
    Target("kit", "fit", Count, "kit", "replacement", supply="any", takes_back=REOPENS, waits_for=("carry_over",)),
    Target(
        "in_hand", "fit", InHandSaid, "in_hand", "replacement", supply="any", named=False,
        takes_back=REOPENS, waits_for=("carry_over",), keep=SIGNED,
    ),
    Target(
        "kit_step", "fit", KitStepSaid, "kit_steps", "replacement", supply="off",
        takes_back=REOPENS, waits_for=("carry_over", "make_safe"), keep=SIGNED,
    ),
    Target(
        "readback", "fit", ReadbackSaid, "readbacks", "replacement", supply="any",
        takes_back=REOPENS, waits_for=("carry_over",), keep=KEEP_READBACK,
    ),
    Target(
        "look", "fit", Literal[True], "looks", "replacement", supply="off", live_names=WITH_POWER,
        takes_back=REOPENS, waits_for=("carry_over", "make_safe"),
    ),
    Target(
        "ticked", "fit", Literal[True], "ticked", "replacement", supply="off", live_names=WITH_POWER,
        takes_back=REOPENS, waits_for=("carry_over", "make_safe"), follows=_after_ticked,
    ),
    Target(
        "energised", "fit", EnergisedSaid, "energised", "replacement", supply="says on", named=False, shared=True, when_full=True,
        takes_back=("make_safe", *REOPENS), waits_for=("carry_over", "make_safe", "cause"), keep=KEEP_ENERGISED,
        follows=_after_energised,
    ),
    Target(
        "learned", "fit", LearnedSaid, "learned", "replacement", supply="on", named=False,
        takes_back=REOPENS, waits_for=("carry_over", "energised"), keep=SIGNED,
    ),
    Target(
        "reentered", "fit", Text, "reentered", "replacement", supply="on",
        takes_back=REOPENS, waits_for=("carry_over", "energised"),
    ),
)  # fmt: skip
