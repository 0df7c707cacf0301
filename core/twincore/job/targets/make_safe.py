"""Make safe: hold points, and the supply coming back."""

from typing import Annotated, Any, Literal

from pydantic import Field, StrictBool, StringConstraints
from typing_extensions import TypedDict

from twincore.job.target import EntryMade, Signed, Target
from twincore.job.values import Number, Text, closed

Detail = Annotated[str, StringConstraints(strict=True, max_length=400)]


@closed
class HoldSaid(TypedDict, total=False):
    """What is said of a hold point: what its kind asks for, or that it is skipped."""

    where: Detail
    tag: Detail
    instrument: Detail
    reading: Number | Detail
    readings: Annotated[dict[Detail, Number | Detail], Field(max_length=40)]
    """Between two terminals of a supply, by their pair."""
    checked_before: StrictBool
    checked_after: StrictBool
    note: Detail
    skipped: StrictBool
    reason: Text


class HoldKept(HoldSaid, Signed):
    """A hold point as it is kept; the time to the millisecond, for a wait is counted from it."""


def _keep_hold(value: Any, entry: EntryMade, before: Any, state: dict[str, Any]) -> Any:
    # waits are counted from here: to the millisecond, for a cut-off second would end one too early
    return {**value, **entry.signed("milliseconds")}


TARGETS = (
    Target("power", "make_safe", Literal["on"], "power", "machine", named=False, waits_for=()),
    Target("hold", "make_safe", HoldSaid, "holds", "machine", takes_back=("make_safe",), waits_for=(), keep=_keep_hold),
)
