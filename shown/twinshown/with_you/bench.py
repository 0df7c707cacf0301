"""The pair on the bench, as the browser plays it: text in, text out."""

import json
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, TypeVar

from twincore.profile import Board, Family, parse_board, parse_family
from twinshown.comparison.pair import side_by_side
from twinshown.comparison.playing import play
from twinshown.comparison.scenarios import checked_scenario
from twinshown.comparison.schemas import PlayGiven, PlayShown
from twinshown.with_you.answering import told

Found = TypeVar("Found")
MOST_KEPT = 50


@dataclass(frozen=True, slots=True)
class Pair:
    """Two boards of a family at hand; how they stand is carried over once, and then only played."""

    family: Family
    original: Board
    replacement: Board
    kept: dict[str, Any] = field(default_factory=dict)

    def keep(self, key: str, work: Callable[[], Found]) -> Found:
        """What was worked out for a setting of the two."""
        if key not in self.kept:
            if len(self.kept) >= MOST_KEPT:
                self.kept.clear()
            self.kept[key] = work()
        found: Found = self.kept[key]
        return found

    def played(self, given: PlayGiven) -> PlayShown:
        """A scenario on both boards."""
        pair = side_by_side(self.family, self.original, self.replacement, given.pair, keep=self.keep)
        return play(pair, checked_scenario(given.scenario, self.family))


_there: dict[str, Pair] = {}
"""The one pair that stands on the bench, by its name."""


def put_in_pair(name: str, family: str, original: str, replacement: str) -> None:
    """Have two boards of a family at hand, by their documents. Raises DocumentError."""
    pair = Pair(parse_family(family.encode()), parse_board(original.encode()), parse_board(replacement.encode()))
    _there.clear()
    _there[name] = pair


def play_pair(name: str, given: str) -> list[Any]:
    """The status and the body that the depot's server answers to `PlayGiven`. Raises KeyError."""
    pair = _there[name]
    said = told(lambda: pair.played(PlayGiven.model_validate(json.loads(given))))
    return [said.status, said.body]
