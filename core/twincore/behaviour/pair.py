"""Two boards under comparison, and which input changes are allowed: shared by every search."""

from dataclasses import dataclass, field

from twincore.behaviour.input_sets import InputSets
from twincore.behaviour.machine import Side
from twincore.behaviour.outlook import Outlook, look_ahead
from twincore.profile import Family

MOST_TOGETHER = 13
"""Inputs that are followed together; further ones are told one by one."""


@dataclass(slots=True)
class Pair:
    """Both compiled boards in one time unit, with the inputs that can matter and the combinations that cannot occur."""

    sides: tuple[Side, Side]
    outlooks: tuple[Outlook, Outlook]
    rest: int
    power: int
    forbidden: tuple[tuple[int, int], ...]
    tied: dict[int, int]
    """For each input bit, all bits that `never_together` ties to it, itself included."""
    sets: InputSets
    """Sets of combinations of the inputs that are followed together."""
    alone: int
    """The inputs that are told one by one: the power, what nothing reads, and what would be too many for a set."""
    symbols: int
    """How many single changes can matter to either board: inputs, and thresholds that a level passes."""
    all_together: bool
    """Whether every input that matters is followed together with the others, but for the power."""
    every_change: bool = False
    """Whether every change of an input is followed, not only those that matter where the boards stand."""
    _branches: dict[tuple[tuple[int, ...], tuple[int, ...]], list[int]] = field(default_factory=dict)

    @property
    def watched(self) -> bool:
        """Whether a board has a clock that runs only while a signal is on."""
        return any(side.watches for side in self.sides)

    def allowed(self, inputs: int) -> bool:
        """Whether a combination of inputs can occur."""
        return all(inputs & mask != value for mask, value in self.forbidden)

    def powered(self, inputs: int) -> bool:
        """Whether the boards have power; a family without such an input is always powered."""
        return not self.power or bool(inputs & self.power)

    def branches(self, states: tuple[tuple[int, ...], tuple[int, ...]]) -> list[int]:
        """The input bits whose change can matter from a pair of states on."""
        found = self._branches.get(states)
        if found is None and self.every_change:
            found = self._branches[states] = [*self.sets.bits, *([self.power] if self.power else [])]
        if found is None:
            # the power can always matter, and so can what stands in the way of its change
            read = self.power | self.outlooks[0].inputs_read(states[0]) | self.outlooks[1].inputs_read(states[1])
            wanted = 0
            for bit, group in self.tied.items():
                if read & bit:
                    wanted |= group
            found = self._branches[states] = [bit for bit in self.tied if wanted & bit]
        return found


def build_pair(original: Side, replacement: Side, family: Family, rest: int) -> Pair:
    """Prepare two compiled boards for the searches."""
    changes = original.changes
    forbidden = changes.forbidden()
    for combination in family.never_together:
        mask = sum(changes.flag(name) for name in combination)
        forbidden.append((mask, sum(changes.flag(name) for name, value in combination.items() if value)))
    tied = {1 << place: 1 << place for place in range(changes.count)}
    for mask, _ in forbidden:
        group = mask
        for bit in tied:
            if mask & bit:
                group |= tied[bit]
        for bit in tied:
            if group & bit:
                tied[bit] = group
    sides = (original, replacement)
    read = changes.power | _read(sides)
    matter = [bit for bit, group in tied.items() if group & read and bit != changes.power]
    together = matter[:MOST_TOGETHER]
    return Pair(
        sides=sides,
        outlooks=(look_ahead(original), look_ahead(replacement)),
        rest=rest,
        power=changes.power,
        forbidden=tuple(forbidden),
        tied=tied,
        sets=InputSets(together, forbidden),
        alone=((1 << changes.count) - 1) & ~sum(together),
        symbols=len(matter) + bool(changes.power),
        all_together=together == matter,
    )


def _read(sides: tuple[Side, Side]) -> int:
    """The inputs on which any guard or output of either board hangs, as bits."""
    mask = 0
    for side in sides:
        for machine in side.machines:
            for place in machine:
                for arrow in place.arrows:
                    mask |= arrow.mask
                for _, hangs_on, _ in place.conditional:
                    mask |= hangs_on
    return mask
