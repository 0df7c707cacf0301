"""Make safe: hold points, and the supply coming back."""

from typing import Annotated, Any, Literal

from pydantic import Field, StrictBool, StringConstraints
from typing_extensions import TypedDict

from twincore.job.target import EntryMade, Keep, Signed, Target
from twincore.job.touching import reopen
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


# waits are counted from here: to the millisecond, for a cut-off second would end one too early
KEEP_HOLD = Keep(lambda value, entry, before, state: {**value, **entry.signed("milliseconds")}, ("by", "at"))


def supply_is_back(state: dict[str, Any]) -> None:
    """Every hold point starts anew."""
    state["power"], state["holds"] = "on", {}
    reopen(state, "make_safe")


def _after_power(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    supply_is_back(state)


def _after_hold(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    if value is not None and state["energised"] is not None:
        # somebody goes back to dead work: what was found in order before is looked at again
        state["energised"] = None
        reopen(state, "make_safe", "fit", "prove")
    if entry.adds.get("isolates"):
        if value is None:
            supply_is_back(state)
        state["power"] = "on" if value is None or value.get("skipped") else "off"


TARGETS = (
    Target(
        "power", "make_safe", Literal["on"], "power", "machine", supply="says", named=False, waits_for=(), follows=_after_power
    ),
    Target(
        "hold", "make_safe", HoldSaid, "holds", "machine", supply="says", takes_back=("make_safe",), waits_for=(), keep=KEEP_HOLD,
        follows=_after_hold, captures=True, captures_always=True, untold=("power", "holds", "confirmed", "energised"),
        when_full=True,
    ),
)  # fmt: skip
