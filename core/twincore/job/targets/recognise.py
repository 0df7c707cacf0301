"""Recognise: what the plate, the display and the board say."""

from typing import Annotated, Any, Literal, NotRequired, get_args

from pydantic import Field
from typing_extensions import TypedDict

from twincore.job.target import SIGNED, EntryMade, Signed, Step, Subject, Target
from twincore.job.touching import reopen
from twincore.job.values import Line, RevisionTaken, Scalar, Text, Word, closed

Plate = Literal["plate", "display"]
Revision = Literal["hardware", "firmware"]
FactSource = Literal["plate", "display", "measured", "seen", "told"]


@closed
class PlateSaid(TypedDict):
    """A number as it stands on the plate or the display, and the scheme it is read by."""

    text: Word
    scheme: Word


@closed
class FactSaid(TypedDict):
    """A fact of the machine and where it is known from."""

    value: Scalar
    source: FactSource


@closed
class Asked(TypedDict):
    """What the job asks of the depot, or what the depot answers."""

    what: Text


class AskedKept(Asked, Signed):
    """What was asked or answered, by whom and when."""


@closed
class BoardSaid(TypedDict):
    """One of several boards that a job is about: what it is called, and why it is changed along."""

    title: Annotated[Word, Field(min_length=1)]
    why: NotRequired[Line]


BoardName = Literal["1", "2", "3", "4", "5", "6"]
"""The boards of a job, in the order in which they come to it."""


REOPENS: tuple[Step, ...] = ("carry_over", "fit", "prove")
OF_THE_KIND = ("symptoms", "tests", "causes")
"""What was said of another kind of machine does not speak of this one."""
BROUGHT_ALONG = ("powered", "remembered", "confirmed")
"""What hangs on what a board's profile says of it."""


def _after_original(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    """What the board tells only while it lives, and hold points that it brings along."""
    adds = entry.adds
    if (family := adds.get("family")) and family != state["family"]:
        state["family"] = family
        for key in OF_THE_KIND:
            state[key] = {}
    state["powered"], state["remembered"] = adds.get("powered", []), adds.get("remembered", [])
    if "make_safe" in state["confirmed"] and any(point not in state["holds"] for point in adds.get("holds", ())):
        reopen(state, "make_safe")


def _after_profile(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    """What its next revision tells of it; entries of earlier versions brought nothing along."""
    if "powered" in entry.adds:
        _after_original(state, name, value, entry)


def _if_of_another_kind(state: dict[str, Any], entry: EntryMade) -> Subject | None:
    """The same board under its own number: what was found on it stays, and what went in for another kind goes."""
    family = entry.adds.get("family")
    return "replacement" if family and family != state["family"] else None


def _after_joined(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    state["original"], state["original_profile"] = value, None
    _after_original(state, name, value, entry)


def _after_asked(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    """What is asked anew is not answered yet."""
    state["answered"] = None


def _after_serial(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    """Where the new board is told the number, another number is another plan."""
    if entry.adds.get("planned"):
        reopen(state, *REOPENS)


TARGETS = (
    Target(
        "board", "recognise", BoardSaid, "board_names", "machine", supply="any", names=get_args(BoardName), waits_for=(),
        opens_sheet=True,
    ),
    Target(
        "boards_order", "recognise", list[BoardName], "boards_order", "machine", supply="any", named=False, waits_for=()
    ),
    Target(
        "plate", "recognise", PlateSaid, "plates", "machine", supply="any", names=get_args(Plate), takes_back=REOPENS
    ),
    Target(
        "serial", "recognise", Word, "serial", "machine", supply="any", named=False, follows=_after_serial, captures=True,
        captures_always=True,
    ),
    Target(
        "original", "recognise", Word, "original", "original", supply="any", named=False, forgets="original",
        follows=_after_original, captures=True, untold=("family", *OF_THE_KIND, *BROUGHT_ALONG), chooses=True, ends_step=True,
    ),
    Target(
        "original_profile", "recognise", RevisionTaken, "original_profile", "original", supply="any", named=False,
        takes_back=REOPENS, follows=_after_profile, captures=True, untold=BROUGHT_ALONG, chooses=True, offline=False,
    ),
    Target(
        "original_joined", "recognise", Word, "original_joined", "original", supply="any", named=False, takes_back=REOPENS,
        forgets=_if_of_another_kind, follows=_after_joined, captures=True,
        untold=("original", "original_profile", "family", *OF_THE_KIND, *BROUGHT_ALONG), chooses=True, offline=False,
    ),
    Target("fact", "recognise", FactSaid, "facts", "machine", supply="any", takes_back=REOPENS),
    Target(
        "asked", "recognise", Asked, "asked", "machine", supply="any", named=False, waits_for=(), keep=SIGNED,
        follows=_after_asked,
    ),
    Target("answered", "recognise", Asked, "answered", "machine", supply="any", named=False, waits_for=(), keep=SIGNED),
    Target("revision", "recognise", Word, "revisions", "kind", supply="any", names=get_args(Revision)),
    Target("feature", "recognise", Line, "features", "kind", supply="any"),
)  # fmt: skip
