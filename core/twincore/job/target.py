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


Keeping = Callable[[Any, EntryMade, Any, dict[str, Any]], Any]
"""From a value, its entry, what stood there and the state before: the value as it is kept."""


def as_said(value: Any, entry: EntryMade, before: Any, state: dict[str, Any]) -> Any:
    """Kept as it was said."""
    return value


def signed(value: Any, entry: EntryMade, before: Any, state: dict[str, Any]) -> Any:
    """With who and when."""
    return {**value, **entry.signed()}


def numbered(value: Any, entry: EntryMade, before: Any, state: dict[str, Any]) -> Any:
    """With the turn in which it was first said."""
    return {**value, "n": (before or {}).get("n", entry.number)}


@dataclass(frozen=True, slots=True)
class Target:
    """The declaration of one target."""

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
    takes_back: tuple[Step, ...] = ()
    """The confirmations that a change makes untrue."""
    waits_for: tuple[Need, ...] | None = None
    """What must be done before; None: what its step waits for."""
    keep: Keeping = as_said
    later: bool = False
    """Whether it is said of a job that is closed, and only then."""

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


@cache
def adapter_of(declared: Any) -> TypeAdapter[Any]:
    """What checks values of a declared type and gives their JSON Schema."""
    return TypeAdapter(declared)
