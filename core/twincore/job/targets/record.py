"""Record: the old board as found, its wires, what came off with it."""

from typing import Annotated, Any, Literal, NotRequired

from pydantic import Field, StrictBool, StringConstraints
from typing_extensions import TypedDict

from twincore.job.target import NUMBERED, SIGNED, EntryMade, Keep, Need, Numbered, Signed, Step, Target
from twincore.job.targets.recognise import BoardName
from twincore.job.touching import put, reopen
from twincore.job.values import InputStands, Line, Number, Position, Text, Within, Word, YesNo, closed
from twincore.profile.record import UNREADABLE

QuickWay = Literal["whole", "one by one"]
Settlement = Literal["was wired wrong", "machine was modified", "no wire was there"]
PartState = Literal["to move", "moved", "stays", "not there"]
Removal = Literal["panel", "screw", "bracket", "routing", "tool", "plug", "part"]
ReadHow = Literal["by eye", "by eye, twice", "from a picture", "told by somebody", "read over the port", "by angle"]
Caption = Annotated[str, StringConstraints(strict=True, strip_whitespace=True, max_length=120)]
MOST_TRACED = 400
"""Events of one trace or run."""


Assumption = Literal["earlier job", "sister machine", "leaflet", "factory"]
"""Where a position that nobody can read is taken from."""
NOTHING_READ = "nothing could be read"
"""How the positions were read of a board of which somebody said that nothing can be."""


@closed
class UnreadSaid(TypedDict):
    """That nothing on the board can be read any more, and why."""

    why: Annotated[Line, Field(min_length=1)]


class UnreadKept(UnreadSaid, Signed):
    """That nothing can be read, by whom and when."""


@closed
class AssumedSaid(TypedDict):
    """How an element that cannot be read is taken to stand: from where, and from which job, machine or leaflet."""

    value: Position
    source: Assumption
    of: NotRequired[Line]


class AssumedKept(AssumedSaid, Signed):
    """An assumption, by whom and when."""


@closed
class AngleSaid(TypedDict):
    """A trimmer by the angle of its slot: degrees from the top, clockwise, and how well it can be read."""

    degrees: Annotated[float, Within(-360, 360)]
    within: Annotated[float, Within(0, 90)]


class AngleKept(AngleSaid):
    """An angle with the mark that it is nearest to."""

    nearest: Position


@closed
class StepSaid(TypedDict):
    """Inputs that changed at a time (seconds): on or off, or where a level went."""

    at: Number
    set: dict[Line, InputStands]


@closed
class SeenSaid(TypedDict):
    """An output seen to change at a time, and how well it was timed (seconds)."""

    at: Number
    output: Line
    on: StrictBool
    within_s: NotRequired[Number]


@closed
class TraceSaid(TypedDict):
    """What a live board was seen to do."""

    title: NotRequired[Line]
    steps: NotRequired[Annotated[list[StepSaid], Field(max_length=MOST_TRACED)]]
    seen: NotRequired[Annotated[list[SeenSaid], Field(max_length=MOST_TRACED)]]
    until: NotRequired[Number]
    timed: NotRequired[Line]


class TraceKept(TraceSaid, Signed):
    """A trace as it is kept."""


@closed
class MarkSaid(TypedDict):
    """A mark on a picture, from its left and its top, as parts of its width and height."""

    x: Annotated[float, Within(0, 1)]
    y: Annotated[float, Within(0, 1)]
    text: NotRequired[Caption]


@closed
class PictureSaid(TypedDict, total=False):
    """What is said of a picture."""

    caption: Line
    of: Line
    marks: Annotated[list[MarkSaid], Field(max_length=60)]


class MarkKept(TypedDict):
    """A mark as it is kept."""

    x: float
    y: float
    text: str


class PictureKept(TypedDict):
    """What is kept of a picture, beside the picture itself."""

    caption: str
    of: str
    marks: list[MarkKept]


@closed
class WireSaid(TypedDict, total=False):
    """A wire on a pin of the old board."""

    tag: Line
    colour: Line
    end: Line
    goes_to: Line
    signal: Line
    connector: Line
    pin: Line
    carry_by: Line
    mm2: Annotated[float, Within(0.01, 1000)] | None
    awg: Annotated[int, Within(0, 40, whole=True)] | None
    """The gauge number, where the wire is marked by that."""
    length_m: Annotated[float, Within(0.01, 1000)] | None


class WireKept(WireSaid, Numbered):
    """A wire in the order of the record."""


_Settled = TypedDict("_Settled", {"as": Settlement, "note": NotRequired[Text]})


@closed
class SettledSaid(_Settled):
    """What is said of a difference between wires and diagram."""


_SettledKept = TypedDict("_SettledKept", {"as": Settlement, "note": str})


class SettledKept(_SettledKept, Signed):
    """A difference as it was settled."""


@closed
class RemovedSaid(TypedDict):
    """Something that came off on the way in."""

    what: Line
    kind: Removal
    count: NotRequired[Annotated[int, Within(1, 500, whole=True)] | None]
    place: NotRequired[Line]
    back: NotRequired[StrictBool]


class RemovedKept(TypedDict):
    """What came off, in the order in which it did."""

    what: str
    kind: Removal
    count: int
    place: str
    back: bool
    n: int


@closed
class TemporarySaid(TypedDict):
    """Something overridden, bridged or held, that is not carried over."""

    what: Line
    undone: NotRequired[StrictBool]


@closed
class EndSaid(TypedDict):
    """One end of wires between two boards: a plug (`C3`) or a pin (`C3.2`) of one of the job's boards."""

    board: BoardName
    place: Annotated[Word, Field(min_length=1)]


@closed
class BetweenSaid(TypedDict):
    """Wires from one board of the machine to another: a wire from pin to pin, or a whole lead."""

    one: EndSaid
    other: EndSaid
    what: NotRequired[Line]


class BetweenKept(BetweenSaid, Numbered):
    """Wires between two boards, in the order of the record."""


class BlindKept(Signed):
    """A second reading by somebody who did not see the first."""

    value: Position


class TemporaryKept(Signed):
    """Something temporary, as it is kept."""

    what: str
    undone: bool


def _keep_blind(value: Any, entry: EntryMade, before: Any, state: dict[str, Any]) -> Any:
    return {**(value if isinstance(value, dict) else {"value": value}), **entry.signed()}


REOPENS: tuple[Step, ...] = ("record", "carry_over", "fit", "prove")
LIVE: tuple[Need, ...] = ("recognise",)
"""What is done before the machine is dead, or does not need it to be, waits only for the board to be known."""


def _after_found(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    """Set anew by hand, it is what stands: an angle that was read before does not count any more."""
    put(state, "how", name, entry.read_how or None)
    put(state, "angles", name, None)
    if UNREADABLE not in str(value):
        # what was read needs no assumption
        put(state, "assumed", name, None)


def _after_unread(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    """All that nobody read stands as unreadable, and the board is not asked any more; taken back, it is to be read again."""
    state["answers"] = None if value is None else "no"
    if value is None:
        for element in [each for each, how in state["how"].items() if how == NOTHING_READ]:
            for key in ("found", "how", "assumed"):
                put(state, key, element, None)
        return
    for element, unreadable in entry.adds.get("found", {}).items():
        put(state, "found", element, unreadable)
        put(state, "how", element, NOTHING_READ)


def _after_angle(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    if value is not None:
        put(state, "found", name, value["nearest"])
        put(state, "how", name, "by angle")


def _after_blind(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    if value is not None and value["value"] != state["found"].get(name):
        reopen(state, *REOPENS)


TARGETS = (
    Target("answers", "record", YesNo, "answers", "original", supply="any", named=False, waits_for=LIVE),
    Target(
        "found", "record", Position, "found", "original", supply="off", live_reading=True, by_place="original",
        takes_back=REOPENS,        follows=_after_found,
    ),
    Target(
        "unread", "record", UnreadSaid, "unread", "original", supply="any", named=False, takes_back=REOPENS,
        waits_for=LIVE, keep=SIGNED, follows=_after_unread, captures=True,
    ),
    Target(
        "assumed", "record", AssumedSaid, "assumed", "original", supply="any", takes_back=REOPENS, waits_for=LIVE, keep=SIGNED
    ),
    Target("angle", "record", AngleSaid, "angles", "original", supply="off", takes_back=REOPENS, follows=_after_angle),
    Target(
        "blind", "record", Position, "blind", "original", supply="off", keep=Keep(_keep_blind, ("by", "at")),
        follows=_after_blind,
    ),
    Target("kept", "record", Text, "kept", "original", supply="on", waits_for=LIVE),
    Target("trace", "record", TraceSaid, "traces", "original", supply="on", ids=True, waits_for=LIVE, keep=SIGNED),
    Target(
        "picture", "record", PictureSaid, "pictures", "original", supply="any", ids=True, waits_for=LIVE, captures=True
    ),
    Target("wire", "record", WireSaid, "wires", "original", supply="off", takes_back=REOPENS, keep=NUMBERED),
    Target("plug", "record", QuickWay, "plugs", "original", supply="off", takes_back=REOPENS),
    Target("settled", "record", SettledSaid, "settled", "original", supply="any", takes_back=REOPENS, keep=SIGNED),
    # what came off on the way to each board
    Target(
        "removed", "record", RemovedSaid, "removed", "machine", supply="off", ids=True, shared=False, waits_for=(),
        keep=NUMBERED,
    ),
    Target("moving", "record", PartState, "moving", "original", supply="off"),
    Target("between", "record", BetweenSaid, "between", "machine", supply="any", ids=True, waits_for=LIVE, keep=NUMBERED),
    Target("temporary", "record", TemporarySaid, "temporary", "original", supply="any", keep=SIGNED),
)  # fmt: skip
