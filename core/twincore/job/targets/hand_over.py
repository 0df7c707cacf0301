"""Hand over: numbers, defects, the old board's way, time and money, signatures, and what is said afterwards."""

from typing import Annotated, Any, Literal, NotRequired, get_args

from pydantic import StrictBool, StringConstraints
from typing_extensions import TypedDict

from twincore.job.target import SIGNED, EntryMade, Signed, Target
from twincore.job.touching import reopen
from twincore.job.values import Text, Within, closed

OldBoardWay = Literal["scrap", "core return", "kept for parts", "repaired"]
Side = Literal["old", "new"]
Spent = Literal["minutes", "travel_minutes", "parts_trade", "parts_retail", "other"]
Moment = Literal["now", "later"]
Outcome = Literal["worked", "worked with a change", "did not"]
Part = Annotated[str, StringConstraints(strict=True, strip_whitespace=True, max_length=120)]
Some = Annotated[str, StringConstraints(strict=True, strip_whitespace=True, max_length=500)]
Amount = Annotated[float, Within(0, 1_000_000)]


@closed
class DefectSaid(TypedDict):
    """A defect that is left for later: what, until which date, who sees to it."""

    what: Some
    until: Annotated[str, StringConstraints(strict=True, strip_whitespace=True, max_length=10)]
    who: Part
    done: NotRequired[StrictBool]


class DefectKept(TypedDict):
    """A defect as it is kept."""

    what: str
    until: str
    who: str
    done: bool


@closed
class NumberedSaid(TypedDict):
    """A part with its numbers."""

    what: Part
    side: Side
    part_number: NotRequired[Part]
    serial: NotRequired[Part]


class NumberedKept(TypedDict):
    """A part's numbers as they are kept."""

    what: str
    side: Side
    part_number: str
    serial: str


@closed
class OldBoardSaid(TypedDict):
    """Where the old board goes."""

    way: OldBoardWay
    note: NotRequired[Some]


class OldBoardKept(TypedDict):
    """The old board's way as it is kept."""

    way: OldBoardWay
    note: str


@closed
class SignedSaid(TypedDict):
    """A second person's word: signed, or sent back with a reason."""

    ok: StrictBool
    note: NotRequired[Text]


class SignedKept(Signed):
    """A second person's word as it is kept."""

    ok: bool
    note: str


@closed
class CorrectionSaid(TypedDict):
    """Something that turned out to be wrong in a closed job, with the number of the entry that it is about."""

    what: Text
    entry: NotRequired[Annotated[int, Within(1, whole=True)] | None]


class CorrectionKept(Signed):
    """A correction as it is kept."""

    what: str
    entry: int | None


@closed
class FeedbackSaid(TypedDict):
    """How the replacement did."""

    result: Outcome
    note: NotRequired[Text]


class FeedbackKept(Signed):
    """How the replacement did, as it is kept."""

    result: Outcome
    note: str


def _after_signed(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    if value is not None and not value["ok"]:
        state["refused"] = [*state["refused"], value]
        state["signed"] = None
        reopen(state, "hand_over")


TARGETS = (
    Target("defect", "hand_over", DefectSaid, "defects", "machine", supply="any", ids=True, waits_for=()),
    Target("numbered", "hand_over", NumberedSaid, "numbered", "machine", supply="any", ids=True, waits_for=()),
    Target("spent", "hand_over", Amount, "spent", "machine", supply="any", names=get_args(Spent), waits_for=()),
    # where each board goes
    Target(
        "old_board", "hand_over", OldBoardSaid, "old_board", "machine", supply="any", named=False, shared=False, waits_for=()
    ),
    Target(
        "signed", "hand_over", SignedSaid, "signed", "original", supply="any", named=False, keep=SIGNED, follows=_after_signed,
        captures=True, ends_job=True, when_full=True,
    ),
    Target(
        "correction", "hand_over", CorrectionSaid, "corrections", "original", supply="any",
        ids=True, waits_for=(), keep=SIGNED, later=True, when_full=True,
    ),
    Target(
        "feedback", "hand_over", FeedbackSaid, "feedback", "original", supply="any",
        names=get_args(Moment), waits_for=(), keep=SIGNED, later=True, when_full=True,
    ),
)  # fmt: skip
