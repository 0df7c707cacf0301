"""What can change, as bits: one for each input that is true or false, and for a level one for each threshold it may pass.

A threshold's bit says that the level stands at it or above. Of one level a higher bit is never on without the lower ones, and going
into a neighbouring cell turns one bit: to the searches a level is a few inputs of which most combinations cannot occur.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from fractions import Fraction
from itertools import chain, pairwise

from twincore.profile import Family, Number, Value
from twincore.profile.behaviour import Behaviour
from twincore.profile.levels import Band, Condition, Level
from twincore.profile.values import stands, tidy


@dataclass(frozen=True, slots=True)
class Threshold:
    """That a level stands at a value or above."""

    level: str
    at: Number


Conditions = tuple[int, int]
"""The bits that a guard reads, and how they must stand."""


@dataclass(frozen=True, slots=True)
class Changes:
    """The inputs of two boards that are compared, or of one that is run; the bit of each is its place."""

    flags: tuple[str, ...]
    thresholds: tuple[Threshold, ...]
    """Level by level, each from the lowest."""
    levels: Mapping[str, Level]

    @property
    def count(self) -> int:
        """How many bits there are."""
        return len(self.flags) + len(self.thresholds)

    @property
    def power(self) -> int:
        """The bit of the supply; 0 where it is always on."""
        return 1 << self.flags.index("power") if "power" in self.flags else 0

    def flag(self, name: str) -> int:
        """The bit of an input that is true or false."""
        return 1 << self.flags.index(name)

    def of_level(self, name: str) -> list[tuple[int, Threshold]]:
        """The bits of a level with their thresholds, from the lowest."""
        first = len(self.flags)
        return [(1 << place, each) for place, each in enumerate(self.thresholds, first) if each.level == name]

    def at_rest(self, rest: Mapping[str, bool | Number]) -> int:
        """The bits that are on at rest."""
        on = sum(self.flag(name) for name in self.flags if rest[name])
        return on + sum(bit for name in self.levels for bit, each in self.of_level(name) if rest[name] >= each.at)

    def read(self, conditions: Iterable[Condition], values: Mapping[str, Value]) -> Conditions | None:
        """What a guard reads of inputs, and how that must stand; None where it never can. Signals are left to others."""
        on = off = 0
        for name, wanted in conditions:
            if isinstance(wanted, Band):
                bits = self._of_band(name, wanted, values)
                if bits is None:
                    return None
                on, off = on | bits[0], off | bits[1]
            elif name in self.flags:
                on, off = (on | self.flag(name), off) if wanted else (on, off | self.flag(name))
        return None if on & off else (on | off, on)

    def _of_band(self, name: str, band: Band, values: Mapping[str, Value]) -> tuple[int, int] | None:
        """The bits that must be on and off for a level to lie in a band; None where it cannot."""
        level, bits = self.levels[name], {each.at: bit for bit, each in self.of_level(name)}
        low = level.low if band.low is None else band.low.at(values)
        high = None if band.high is None else band.high.at(values)
        if low > level.high or (high is not None and (high <= level.low or high <= low)):
            return None
        return bits[low] if low > level.low else 0, bits[high] if high is not None and high <= level.high else 0

    def forbidden(self) -> list[Conditions]:
        """Combinations that cannot occur: a level above a threshold and below a lower one."""
        found = []
        for name in self.levels:
            for (lower, _), (higher, _) in pairwise(self.of_level(name)):
                found.append((lower | higher, higher))
        return found

    def passed(self, name: str, value: Number, inputs: int) -> list[tuple[int, bool]]:
        """The bits that change, in their order, as a level goes to a value."""
        bits = self.of_level(name)
        up = [(bit, True) for bit, each in bits if each.at <= value and not inputs & bit]
        return up or [(bit, False) for bit, each in reversed(bits) if each.at > value and inputs & bit]

    def said(self, bit: int, inputs: int) -> tuple[str, bool | Number]:
        """The change of one bit as a scenario writes it; `inputs` is how all stand afterwards."""
        place = bit.bit_length() - 1
        if place < len(self.flags):
            return self.flags[place], bool(inputs & bit)
        name = self.thresholds[place - len(self.flags)].level
        return name, self._inside(name, inputs)

    def between(self, inputs: int) -> tuple[tuple[str, Number, Number], ...]:
        """The cell where each level stands: from a threshold up to the next, or to the end of what can be."""
        return tuple((name, *self._cell(name, inputs)) for name in self.levels)

    def _cell(self, name: str, inputs: int) -> tuple[Number, Number]:
        level, bits = self.levels[name], self.of_level(name)
        low = max((each.at for bit, each in bits if inputs & bit), default=level.low)
        return low, min((each.at for bit, each in bits if not inputs & bit), default=level.high)

    def _inside(self, name: str, inputs: int) -> Number:
        """A value in the cell where a level stands: its middle, or the only one that it has."""
        return tidy(Fraction(sum(self._cell(name, inputs))) / 2)

    def named(self, inputs: int) -> dict[str, str]:
        """How the inputs stand, by name and in words."""
        flags = {name: stands(bool(inputs & self.flag(name))) for name in self.flags}
        return flags | {name: stands(self._inside(name, inputs)) for name in self.levels}


def changes_of(family: Family, boards: Iterable[tuple[Behaviour, Mapping[str, Value]]]) -> Changes:
    """What can change for these boards, whose functions have these values."""
    met: dict[str, set[Number]] = {level.id: set() for level in family.levels}
    for behaviour, values in boards:
        for name, band in _bands(behaviour):
            level = family.inputs[name]
            assert level is not None  # checked when the board was fitted into its family
            met[name].update(at for limit in band.limits.values() if level.low < (at := limit.at(values)) <= level.high)
    thresholds = tuple(Threshold(level.id, at) for level in family.levels for at in sorted(met[level.id]))
    return Changes(family.flags, thresholds, {level.id: level for level in family.levels})


def thresholds_of(family: Family, behaviour: Behaviour, values: Mapping[str, Value]) -> tuple[Threshold, ...]:
    """The thresholds that one board reads, level by level, each from the lowest."""
    return changes_of(family, [(behaviour, values)]).thresholds


def _bands(behaviour: Behaviour) -> Iterable[tuple[str, Band]]:
    for machine in behaviour.machines:
        for state in machine.states.values():
            read = [each.conditions for each in state.on] + [each.conditions for each in state.go]
            for name, wanted in chain.from_iterable(read):
                if isinstance(wanted, Band):
                    yield name, wanted
