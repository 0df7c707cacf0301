"""The one small tree of exceptions that the core raises."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True, slots=True)
class Fault:
    """One thing wrong in a document: where it is and what was expected there."""

    place: str
    expected: str

    def __str__(self) -> str:
        return f"{self.place}: {self.expected}" if self.place else self.expected


class TwinError(Exception):
    """Anything that the core refuses or cannot answer."""


class DocumentError(TwinError):
    """A document breaks a rule of its format; `faults` has every fault that was found, with its place."""

    def __init__(self, faults: Sequence[Fault]) -> None:
        self.faults = tuple(faults)
        super().__init__("; ".join(str(fault) for fault in self.faults))


class UndecidedError(TwinError):
    """A question needs a function whose positions are unreadable or reserved."""

    def __init__(self, functions: Sequence[str]) -> None:
        self.functions = tuple(functions)
        super().__init__(f"settings.positions: expected positions that decide {', '.join(functions)}")


class EndlessLoopError(TwinError):
    """A board never settles: more transitions in one settling than the format allows.

    Of a scenario that was played, `at` says when (seconds), and `shown` has what the board showed until then.
    """

    def __init__(self, part_number: str, states: Sequence[str], inputs: Mapping[str, str]) -> None:
        self.part_number, self.states = part_number, tuple(states)
        self.at: Any = 0
        self.shown: Sequence[Any] = ()
        shown = ", ".join(f"{name} {stands}" for name, stands in inputs.items())
        super().__init__(
            f"behaviour.states: expected a board that settles, but {part_number} goes round "
            f"{' > '.join(states)} without end while {shown}"
        )


class LimitError(TwinError):
    """A question is larger than the core takes on; says which limit was met."""


class Refusal(TwinError):
    """Something that a job does not allow now; `detail` says what, where and what to do, `extra` what it hangs on."""

    def __init__(self, detail: str, **extra: Any) -> None:
        self.detail, self.extra = detail, extra
        super().__init__(detail)


class WrongValue(TwinError):
    """A value that is none; `faults` has places and expectations."""

    def __init__(self, detail: str, faults: Sequence[Fault] = ()) -> None:
        self.detail, self.faults = detail, tuple(faults)
        super().__init__(detail)


class AbsentError(TwinError):
    """A question that is not worked out here, for what it needs is not installed."""

    def __init__(self, package: str) -> None:
        super().__init__(f"not worked out here: {package} is not installed")
