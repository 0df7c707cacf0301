"""Prove: runs measured on the machine, readings, overrides that must be off in the end."""

from typing import Annotated, Any, NotRequired

from pydantic import StrictBool
from typing_extensions import TypedDict

from twincore.job.target import SIGNED, EntryMade, Keep, Numbered, Signed, Target
from twincore.job.targets.record import TraceSaid
from twincore.job.values import Beyond, Line, Number, Position, Text, Within, Word, closed


@closed
class RunSaid(TraceSaid):
    """A run that was measured on the machine, and the planned run that it is."""

    plan: NotRequired[Word]
    note: NotRequired[Text]


class RunKept(RunSaid, Numbered, Signed):
    """A run with the board that it was made with."""

    board: str


@closed
class ReadingSaid(TypedDict):
    """A reading on the running machine."""

    value: NotRequired[Number]
    beyond: NotRequired[Beyond]
    uncertainty: NotRequired[Annotated[float, Within(0, 1e9)]]


class ReadingKept(ReadingSaid, Signed):
    """A reading as it is kept."""


@closed
class ForcedSaid(TypedDict):
    """An override switched on for a test, or off again; how long it lasts by itself (seconds)."""

    what: Line
    off: StrictBool
    time_out_s: NotRequired[Annotated[float, Within(0.001, 1_000_000)] | None]
    of: NotRequired[Word | None]
    read: NotRequired[Position]
    """Of a switch of the board itself: how its element reads once it is off."""


class ForcedKept(Signed):
    """An override, and when it was switched on."""

    what: str
    off: bool
    time_out_s: NotRequired[float]
    of: NotRequired[str]
    read: NotRequired[Position]
    began: str


@closed
class CheckSaid(TypedDict):
    """Whether a thing on the check list is as it should be; `absent` where this machine has no such thing, so that nothing was
    seen of it; `what` names a line of one's own.
    """

    ok: StrictBool
    absent: NotRequired[StrictBool]
    what: NotRequired[Line]
    note: NotRequired[Line]


class CheckKept(CheckSaid, Signed):
    """A line of the check list as it is kept."""


KEEP_RUN = Keep(
    lambda value, entry, before, state: {
        **value, "board": state["replacement"], "n": entry.number, **entry.signed()
    }, ("board", "n", "by", "at"),
)  # fmt: skip


def _keep_forced(value: Any, entry: EntryMade, before: Any, state: dict[str, Any]) -> Any:
    who = entry.signed()
    return {**value, "began": (before or {}).get("began", who["at"]), **who}


TARGETS = (
    Target("run", "prove", RunSaid, "runs", "original", supply="on", ids=True, takes_back=("prove",), keep=KEEP_RUN),
    Target("check", "prove", CheckSaid, "checks", "replacement", supply="on", takes_back=("prove",), keep=SIGNED),
    Target("reading", "prove", ReadingSaid, "readings", "original", supply="on", takes_back=("prove",), keep=SIGNED),
    # that an override is off can always be said
    Target(
        "forced", "prove", ForcedSaid, "forced", "original", supply="any", takes_back=("prove",), waits_for=(),
        keep=Keep(_keep_forced, ("began", "by", "at")),
    ),
)  # fmt: skip
