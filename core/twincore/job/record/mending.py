"""A job whose stored state is damaged: opened as its entries tell it, with what is wrong."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, cast

from twincore.job.record.reading import current, shape_faults
from twincore.job.record.replay import replay
from twincore.job.rules.state import State


@dataclass(frozen=True, slots=True)
class Void:
    """An entry that says nothing that can stand: its number, its target, whose board, and what was expected there."""

    number: int
    target: str
    board: str
    expected: str


@dataclass(frozen=True, slots=True)
class Mended:
    """A state that is one. `damaged` where what is stored is not; `void` are the entries to take back."""

    state: State
    damaged: bool = False
    void: tuple[Void, ...] = ()


def mended(stored: Any, entries: Callable[[], Sequence[Mapping[str, Any]]]) -> Mended:
    """A stored state, where it is one; else what the job's entries lead to, those passed over that say nothing that can stand.

    What entries of an earlier version do not tell stays as it is stored, as far as it has a shape.
    """
    kept = current(stored)
    if not shape_faults(stored):
        return Mended(kept)
    nodes = entries()
    found = replay(nodes, skipping=True)
    untold = {key: cast(dict[str, Any], kept)[key] for key in found.untold}
    closed = {"closed_as": kept["closed_as"]} if "closed_as" in kept else {}
    void = tuple(
        Void(number, str(nodes[number - 1]["target"]), str(nodes[number - 1].get("board", "1")), fault.expected)
        for number, fault in found.void.items()
    )
    return Mended(current({**found.state, **untold, **closed}), True, void)
