"""Sets of combinations of inputs, each as one whole number with a bit for every combination.

Of n inputs there are 2ⁿ combinations; the bit of one is the number that its inputs make as bits. Whether a condition holds is then
one `and` for all of them, and turning an input two shifts.
"""

from collections.abc import Sequence


def set_work(sets: "InputSets") -> int:
    """What it costs to lay two sets over each other, in units of work: they are numbers of 2ⁿ bits."""
    return 1 + (1 << len(sets.bits)) // 8_000


class InputSets:
    """Sets over these inputs (each a bit of the searches' inputs), of which some combinations cannot occur."""

    def __init__(self, bits: Sequence[int], forbidden: Sequence[tuple[int, int]] = ()) -> None:
        self.bits = tuple(bits)
        size = 1 << len(self.bits)
        self.everything = (1 << size) - 1
        self._off = [self.everything // ((1 << (1 << place)) + 1) for place in range(len(self.bits))]
        self._met: dict[tuple[int, int], int] = {}
        self._places: dict[int, int] = {}
        read = sum(self.bits)
        self.allowed = self.everything
        for mask, value in forbidden:
            if not mask & ~read:
                self.allowed &= ~self.where(mask, value)

    def where(self, mask: int, value: int) -> int:
        """The combinations in which the inputs of a mask stand so; inputs that are none of these may stand as they like."""
        found = self._met.get((mask, value))
        if found is None:
            found = self.everything
            for place, bit in enumerate(self.bits):
                if mask & bit:
                    found &= self._off[place] << (1 << place) if value & bit else self._off[place]
            self._met[mask, value] = found
        return found

    def beside(self, inputs: int, alone: int, mask: int, value: int) -> int:
        """As `where`, beside inputs that are told one by one and stand so; `alone` are those."""
        return 0 if (inputs ^ value) & mask & alone else self.where(mask & ~alone, value)

    def turned(self, some: int, place: int) -> int:
        """The combinations that are in a set once the input at this place is turned."""
        off = self._off[place]
        return (some & off) << (1 << place) | some >> (1 << place) & off

    def turned_bit(self, some: int, bit: int) -> int:
        """The same, by the input's bit."""
        return self.turned(some, self.bits.index(bit))

    def first(self, some: int) -> int:
        """How the inputs stand in one combination of a set that is not empty."""
        place = (some & -some).bit_length() - 1
        return sum(bit for number, bit in enumerate(self.bits) if place >> number & 1)

    def place(self, inputs: int) -> int:
        """The place in a set of the combination in which the inputs stand so."""
        found = self._places.get(inputs)
        if found is None:
            found = self._places[inputs] = sum(1 << place for place, bit in enumerate(self.bits) if inputs & bit)
        return found
