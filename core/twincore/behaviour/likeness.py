"""What two states of two boards that run alike have in common: which arrows, and for which inputs they show something else."""

from collections.abc import Iterator
from typing import NamedTuple

from twincore.behaviour.input_sets import InputSets
from twincore.behaviour.machine import Arrow, Place, rule

EVER = 1 << 60
"""No upper bound of an age."""


class Common(NamedTuple):
    """Two states laid over each other."""

    unlike: bool
    """Whether nothing can be said of them: other arrows, or other signals that machines of the board may read."""
    shown_apart: int
    """The inputs for which they show something different."""
    arrows: list[tuple[Arrow, Arrow, bool, bool]]
    """Each arrow of both, whether its rule is the same on both, and whether only its time is not."""
    stay: int
    """How long the boards stay there at most."""


def in_common(one: Place, other: Place, own_clock: int, compared: int, sets: InputSets) -> Common:
    """Lay two states over each other; `compared` are the outputs that must be the same."""
    unlike = len(one.arrows) != len(other.arrows) or _inside(one, compared) != _inside(other, compared)
    apart = 0
    for bit in _bits((one.steady | other.steady | _hanging(one) | _hanging(other)) & compared):
        apart |= shows(one, bit, sets) ^ shows(other, bit, sets)
    arrows = []
    stay = EVER
    for a, b in zip(one.arrows, other.arrows, strict=False):
        alike = rule(a) == rule(b)
        arrows.append((a, b, alike and a.after == b.after, alike and a.clock >= 0))
        if a.clock == own_clock and not a.mask and not a.signal_mask and a.counter < 0 and alike:
            stay = min(stay, max(a.after, b.after))
    return Common(unlike, apart, arrows, stay)


def shows(place: Place, bit: int, sets: InputSets, inputs: int = 0, alone: int = 0) -> int:
    """The inputs for which a state shows a signal, beside those that are told one by one."""
    if place.steady & bit:
        return sets.everything
    found = 0
    for output, mask, value in place.conditional:
        if output == bit:
            found |= sets.beside(inputs, alone, mask, value)
    return found


def _hanging(place: Place) -> int:
    found = 0
    for bit, _, _ in place.conditional:
        found |= bit
    return found


def _inside(place: Place, compared: int) -> tuple[int, frozenset[tuple[int, int, int]]]:
    """What a state shows of signals that are not compared: other machines may read them."""
    return place.steady & ~compared, frozenset(each for each in place.conditional if not each[0] & compared)


def _bits(mask: int) -> Iterator[int]:
    while mask:
        bit = mask & -mask
        mask ^= bit
        yield bit
