"""Choose: the board going in, what is wanted otherwise, what it costs."""

from typing import Annotated, Any, Literal, NotRequired

from typing_extensions import TypedDict

from twincore.job.target import EntryMade, Step, Target
from twincore.job.touching import reopen
from twincore.job.values import Line, RevisionTaken, Scalar, Within, Word, YesNo, closed

Cost = Annotated[float, Within(0, 1_000_000)]
Verdict = Literal["fits", "with work", "to check", "no"]


class ListedKept(TypedDict):
    """How a candidate was listed: the relation (empty where it is listed for other machines only), the sources, and the conditions:
    each the fact and what it must be. Whether they hold is told from what is known of the machine by then.
    """

    relation: str
    sources: list[str]
    conditions: list[tuple[str, Any]]


class AlternativeKept(TypedDict):
    """A candidate as it stood when the choice was made."""

    part_number: str
    verdict: Verdict
    closeness: str
    minutes: float
    price: float | None
    days: float | None
    cells: dict[str, str]
    listed: NotRequired[ListedKept | None]


class ChoiceKept(TypedDict):
    """The choice with its reason and the alternatives as they stood then."""

    reason: str
    by: str
    at: str
    verdict: Verdict
    alternatives: list[AlternativeKept]


class ChangedStanding(TypedDict):
    """A candidate that stands otherwise since the record is complete."""

    board: str
    what: str
    was: str
    now: str


class RejudgedKept(TypedDict):
    """Why the choice is open again."""

    at: str
    changes: list[ChangedStanding]


Same = Literal["new", "exchange", "repaired", "donor"]
"""Which board of the same number goes in: a new one, an exchange unit, this one repaired, one out of another machine."""


@closed
class SameBoard(TypedDict):
    """Which one of the same number it is, and what must be known of it."""

    which: Same
    revision: NotRequired[Word]
    """Of the hardware, as it stands on the board."""
    firmware: NotRequired[Word]
    of: NotRequired[Line]
    """What was repaired on it, who exchanged it, or what the donor was and why it was taken out of use."""
    worked: NotRequired[YesNo]
    """Whether somebody saw it work, in another machine or on a bench."""


REOPENS: tuple[Step, ...] = ("carry_over", "fit", "prove")


def _after_replacement(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    state["choice"] = entry.adds.get("choice")
    reopen(state, *REOPENS)


def _after_joined(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    state["replacement"], state["replacement_profile"] = value, None


TARGETS = (
    Target(
        "replacement", "choose", Line, "replacement", "replacement", supply="any", named=False, forgets="replacement",
        follows=_after_replacement, captures=True, untold=("choice",), chooses=True, ends_step=True,
    ),
    Target(
        "replacement_profile", "choose", RevisionTaken, "replacement_profile", "replacement", supply="any", named=False,
        takes_back=REOPENS, captures=True, chooses=True, offline=False,
    ),
    Target(
        "replacement_joined", "choose", Word, "replacement_joined", "replacement", supply="any", named=False,
        takes_back=REOPENS, follows=_after_joined, captures=True, chooses=True, offline=False,
    ),
    Target("same_board", "choose", SameBoard, "same_board", "replacement", supply="any", named=False),
    Target("wish", "choose", Scalar, "wishes", "original", supply="any", takes_back=REOPENS),
    Target("cost", "choose", Cost, "costs", "original", supply="any"),
)  # fmt: skip
