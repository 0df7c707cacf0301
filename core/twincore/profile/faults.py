"""Collect the faults of a document while its meaning is checked, so that one look shows them all."""

from collections.abc import Iterable

from twincore.errors import DocumentError, Fault
from twincore.profile.document import MOST_FAULTS


class FaultList:
    """Faults found so far; `done` raises them together."""

    def __init__(self) -> None:
        self.faults: list[Fault] = []

    def add(self, place: str, expected: str) -> None:
        """Note that something else was expected at a place."""
        self.faults.append(Fault(place, expected))

    def unique(self, names: list[str], place: str, what: str) -> None:
        """Note each name that stands more than once; `place` has {} for its index."""
        seen: set[str] = set()
        for index, name in enumerate(names):
            if name in seen:
                self.add(place.format(index), f'expected a {what} that is not there yet, found "{name}" again')
            seen.add(name)

    def done(self) -> None:
        """Raise DocumentError if anything was found."""
        if self.faults:
            raise DocumentError(self.faults[:MOST_FAULTS])


def known(names: Iterable[object]) -> str:
    """The names that would have been right, short enough for a message."""
    listed = [str(name) for name in names]
    return ", ".join(listed[:12]) + (" …" if len(listed) > 12 else "") or "none"
