"""The quick twin checks of one original against many boards: found where they are kept, run where they are not."""

from collections.abc import Iterable, Mapping
from typing import Any

from bench.kept import keep_all, known
from bench.pairs import compared
from twincore.carry_over import Comparison, twin_key, work_out
from twincore.certificate import accepted
from twincore.choose import TwinChecked


class Twins:
    """What is kept is found by its key alone, with one question for all: boards are read only for what is not.

    What was run is kept when `keep` is called, in one statement.
    """

    def __init__(
        self, family: int, original: int, found: dict[str, Any], revisions: Mapping[str, int], wishes: dict[str, Any]
    ) -> None:
        self._pair = family, original, found
        self._revisions, self._wishes = revisions, wishes
        self._kept: dict[str, Any] = {}
        self._fresh: dict[str, Any] = {}

    def _key(self, name: str) -> str:
        family, original, found = self._pair
        return twin_key((family, original, self._revisions[name]), found, self._wishes)

    def fetch(self, names: Iterable[str]) -> None:
        """Look for what is kept of these boards."""
        keys = [self._key(name) for name in names]
        self._kept |= known([*keys, *map(_again, keys)])

    def has(self, name: str) -> bool:
        """Whether nothing needs to be run for a board."""
        return self._key(name) in self._kept

    def of(self, name: str) -> TwinChecked:
        """The twin check of a board."""
        key = self._key(name)
        if key not in self._kept:
            self._kept[key] = self._fresh[key] = self._compared(name).quick_twin()
        found: TwinChecked = self._kept[key]
        return found

    def _compared(self, name: str) -> Comparison:
        family, original, found = self._pair
        return compared(family, original, found, self._revisions[name], wishes=self._wishes, keep=work_out)

    def again(self, name: str, checked: TwinChecked) -> bool:
        """Whether a second program agrees that a board, so carried over to, never does anything else than the original."""
        key, record = _again(self._key(name)), checked.carried.record if checked.carried else None
        if key not in self._kept:
            twin = None if record is None else self._compared(name).twin(record)
            self._kept[key] = self._fresh[key] = twin is not None and bool(accepted(twin))
        return bool(self._kept[key])

    def keep(self) -> None:
        """Keep what was run."""
        keep_all(self._fresh)
        self._fresh = {}


def _again(key: str) -> str:
    """Under what it is kept whether a second program agrees with what is kept under a key."""
    return f"again-{key}"
