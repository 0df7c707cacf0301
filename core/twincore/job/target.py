"""What one target of a job is: its value, the step it belongs to, what it waits for, and what it makes untrue."""

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cache
from typing import Any, Literal

from pydantic import TypeAdapter, ValidationError
from typing_extensions import TypedDict

from twincore.errors import DocumentError
from twincore.job.values import faults_of

Step = Literal[
    "rule_out", "recognise", "choose", "make_safe", "record", "carry_over", "fit", "prove", "hand_over"
]  # fmt: skip
Need = Step | Literal["cause", "energised", "boards"]
"""What may be waited for: a step, the cause of the board's death cleared, the supply back on, or the machine's other boards."""
FIRST = "1"
"""The board that a job was opened for."""
Subject = Literal["machine", "kind", "original", "replacement"]
"""What an entry speaks of. Another replacement, original or kind of machine takes along what speaks of it and of what
comes after it in this list; what is said of the machine stays."""


class Signed(TypedDict):
    """Who said it and when, in UTC: added to a value where that matters."""

    by: str
    at: str


class Numbered(TypedDict):
    """The number of the entry that first said it: its turn."""

    n: int


@dataclass(frozen=True, slots=True)
class EntryMade:
    """One entry: its number, when and by whom, what shall stand at its target, and what it brings along from data that
    no entry holds (`adds`).
    """

    number: int
    at: Any
    """A datetime in UTC; None where the record does not say."""
    by: str
    target: str
    after: Any
    reason: str = ""
    read_how: str = ""
    adds: dict[str, Any] = field(default_factory=dict)
    board: str = FIRST
    """The board of the job that it speaks of; the first one where it speaks of the machine."""

    def signed(self, timespec: str = "seconds") -> dict[str, Any]:
        """Who and when, as it is kept beside a value."""
        return {"by": self.by, "at": self.at.isoformat(timespec=timespec) if self.at else ""}


@dataclass(frozen=True, slots=True)
class Keep:
    """How a value is kept: from what is said, its entry, what stood there and the state before; and under which names of its own
    something is kept beside what was said.
    """

    kept: Callable[[Any, EntryMade, Any, dict[str, Any]], Any]
    beside: tuple[str, ...] = ()


AS_SAID = Keep(lambda value, entry, before, state: value)
"""Kept as it was said."""
SIGNED = Keep(lambda value, entry, before, state: {**value, **entry.signed()}, ("by", "at"))
"""With who and when."""
NUMBERED = Keep(lambda value, entry, before, state: {**value, "n": (before or {}).get("n", entry.number)}, ("n",))
"""With the turn in which it was first said."""

Following = Callable[[dict[str, Any], str, Any, EntryMade], None]
"""What an entry changes in the state besides its own place: from that state, its name, the value kept, and the entry."""


def nothing_follows(state: dict[str, Any], name: str, value: Any, entry: EntryMade) -> None:
    """Nothing else changes."""


SupplyRule = Literal["any", "off", "on", "says", "says on", "says off"]
"""How the supply of the machine stands where something is said: `any` where that does not matter, `off` for what is done with the
hands in the machine, `on` for what is seen of a machine with power; `says` for what itself says how the supply stands."""


@dataclass(frozen=True, slots=True)
class Target:
    """The declaration of one target: all that is particular to it, but for the checks of its step."""

    kind: str
    """How entries call it: `found` in `found.S1`."""
    step: Step
    """The step in which it is worked on."""
    value: Any
    """The type of what is said."""
    key: str
    """Where it stands in the state."""
    of: Subject
    named: bool = True
    """Whether it takes a name after a dot; else it stands for itself."""
    names: tuple[str, ...] = ()
    """The names that there are; none where any name may stand, or the family's data decides."""
    ids: bool = False
    """Whether that name is an id that a client makes (a UUID)."""
    supply: SupplyRule = field(kw_only=True)
    """How the supply must stand for it to be true; no default, for a check of safety rests on it."""
    live_names: str = ""
    """How the names begin that are said with the supply on, whatever `supply` says; none where there are none such."""
    live_reading: bool = False
    """Whether it is said with the supply on where only a board with power shows it, or it is read over the port."""
    by_place: Literal["original", "replacement"] | None = None
    """The board of whose elements it says how their places stand: two people may set two places at once."""
    takes_back: tuple[Step, ...] = ()
    """The confirmations that a change makes untrue."""
    waits_for: tuple[Need, ...] | None = None
    """What must be done before; None: what its step waits for."""
    keep: Keep = AS_SAID
    follows: Following = nothing_follows
    """What else of the state it changes."""
    forgets: Subject | Callable[[dict[str, Any], EntryMade], Subject | None] | None = None
    """What turned out to be another: all that was said of it goes first."""
    captures: bool = False
    """Whether its entries bring along what they rest on from data that no entry holds."""
    untold: tuple[str, ...] = ()
    """The parts of the state that hang on what it captures: entries of an earlier version that brought nothing do not tell them."""
    captures_always: bool = False
    """Whether it captures where it is taken back, too."""
    shared: bool | None = None
    """Whether it is said once for all boards of a job; None: where it is said of the machine, or in handing over."""
    opens_sheet: bool = False
    """Whether it brings a board to the job, with a sheet of its own."""
    chooses: bool = False
    """Whether it chooses a profile that the sheet rests on."""
    late: bool = False
    """Whether records were written before it was thought of: its part stands in a record only where something is said in it, so that
    earlier records and their seals stay true.
    """
    offline: bool = True
    """Whether it can be said without a connection."""
    ends_step: bool = False
    """Whether its step ends with it, and not with a confirmation."""
    ends_job: bool = False
    """Whether a job may close with it."""
    when_full: bool = False
    """Whether a job that has no more room still takes it, so that it can be closed."""
    later: bool = False
    """Whether it is said of a job that is closed, and only then."""

    @property
    def of_all_boards(self) -> bool:
        """Whether it is said of the machine, or of the job as a whole, and not of one board."""
        return (self.of == "machine" or self.step == "hand_over") if self.shared is None else self.shared

    def checked(self, value: Any, place: str = "") -> Any:
        """A value in its declared form, texts trimmed; an empty text is none.

        Raises DocumentError with every fault, its place below `place` and what was expected.
        """
        found = checked(self.value, value, place)
        return None if found == "" else found


def checked(declared: Any, value: Any, place: str = "") -> Any:
    """A value of a declared type. Raises DocumentError with every fault and its place."""
    try:
        return adapter_of(declared).validate_python(value)
    except ValidationError as error:
        raise DocumentError(faults_of(error, place)) from error


@dataclass(frozen=True, slots=True)
class Confirmation:
    """The declaration of a step's confirmation."""

    step: Step
    supply: SupplyRule = field(kw_only=True)
    """How the supply must stand for it to be true."""
    takes_back: tuple[Step, ...] = ()
    """The confirmations that go with it where it is taken back."""
    settles: str = ""
    """The part of the state that it captures."""
    ends_job: bool = False
    """Whether a job may close with it."""


@cache
def adapter_of(declared: Any) -> TypeAdapter[Any]:
    """What checks values of a declared type and gives their JSON Schema."""
    return TypeAdapter(declared)
