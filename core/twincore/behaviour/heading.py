"""Heading: how many input changes are needed at least before two boards that run alike can part.

While both boards stand in corresponding states, with clocks of equal age and equal counters, they stay so until a place
where their arrows or outputs differ. The fewest changes to such a place, with time and counters left out, is a lower bound
for the exact search (A*: Hart, Nilsson and Raphael, 1968). Machines are looked at one by one; the least of them counts.
"""

from collections import deque
from collections.abc import Iterator

from twincore.behaviour.machine import Arrow, Place
from twincore.behaviour.pair import Pair
from twincore.behaviour.zones import Node

LARGEST_TABLE = 400_000
FAR = 1_000
Spot = tuple[int, int]
Condition = tuple[int, int]


class Heading:
    """Lower bounds for a pair of boards; `useful` is false where none better than zero can be given."""

    def __init__(self, pair: Pair) -> None:
        self.pair = pair
        one, other = pair.sides
        self.bits = [bit for bit in pair.tied if bit == pair.power or self._is_read(bit)]
        self.tables: list[dict[Spot, list[int]]] = []
        comparable = (
            len(one.machines) == len(other.machines)
            and one.named_clocks == other.named_clocks
            and one.counters == other.counters
            and one.internal == other.internal
        )
        self.useful = comparable and all(self._add_machine(index) for index in range(len(one.machines)))

    def changes_ahead(self, node: Node) -> int:
        """Input changes that are still needed at least from a node to a difference."""
        if node.refs[0] != node.refs[1] or node.counters[0] != node.counters[1]:
            return 0
        inputs = self._packed(node.inputs)
        least = FAR
        for table, one, other in zip(self.tables, node.states[0], node.states[1], strict=True):
            row = table.get((one, other))
            if row is None:
                return 0
            least = min(least, row[inputs])
        return least

    def _is_read(self, bit: int) -> bool:
        return any(
            arrow.mask & bit
            for side in self.pair.sides
            for machine in side.machines
            for p in machine
            for arrow in p.arrows
        ) or any(
            mask & bit
            for side in self.pair.sides
            for machine in side.machines
            for p in machine
            for _, mask, _ in p.conditional
        )

    def _packed(self, inputs: int) -> int:
        return sum(1 << index for index, bit in enumerate(self.bits) if inputs & bit)

    def _add_machine(self, index: int) -> bool:
        sides = self.pair.sides
        one, other = sides[0].machines[index], sides[1].machines[index]
        spots = [(sides[0].starts[index], sides[1].starts[index])]
        parting: set[Spot] = set()
        for spot in spots:
            mine, theirs = one[spot[0]], other[spot[1]]
            survives = [spot[i] in sides[i].survives[index] for i in (0, 1)]
            if survives[0] != survives[1] or not _same_place(mine, theirs):
                parting.add(spot)
                continue
            for a, b in zip(mine.arrows, theirs.arrows, strict=True):
                if (a.target, b.target) not in spots:
                    spots.append((a.target, b.target))
        if len(spots) << len(self.bits) > LARGEST_TABLE:
            return False
        self.tables.append(self._distances(index, spots, parting))
        return True

    def _distances(self, index: int, spots: list[Spot], parting: set[Spot]) -> dict[Spot, list[int]]:
        """Fewest changes from every spot and combination of inputs to a parting spot (backwards, 0-1 breadth first)."""
        size = 1 << len(self.bits)
        power = self._packed(self.pair.power)
        least = {spot: [FAR] * size for spot in spots}
        at_once = {spot: self._at_once(index, spot) for spot in spots}
        settled = {
            spot: [not _enabled([c for _, c in at_once[spot]], inputs) for inputs in range(size)] for spot in spots
        }
        into = self._arrows_into(index, spots, parting, at_once)
        losing = self._power_losses_into(index, spots)
        queue = deque((spot, inputs, 0) for spot in parting for inputs in range(size))
        for spot in parting:
            least[spot] = [0] * size
        while queue:
            spot, inputs, cost = queue.popleft()
            if cost > least[spot][inputs]:
                continue
            if not power or inputs & power:
                for source, mask, value, earlier in into.get(spot, ()):
                    if inputs & mask == value and cost < least[source][inputs] and not _enabled(earlier, inputs):
                        least[source][inputs] = cost
                        queue.appendleft((source, inputs, cost))
            for bit in range(len(self.bits)):
                before = inputs ^ (1 << bit)
                lost = power == 1 << bit and before & power
                for source in losing[spot] if lost else (spot,):
                    off = power and not before & power
                    if cost + 1 < least[source][before] and (off or settled[source][before]):
                        least[source][before] = cost + 1
                        queue.append((source, before, cost + 1))
        return least

    def _arrows_into(
        self, index: int, spots: list[Spot], parting: set[Spot], at_once: dict[Spot, list[tuple[int, Condition]]]
    ) -> dict[Spot, list[tuple[Spot, int, int, list[Condition]]]]:
        """For each spot the arrows that lead there, with the conditions under which an earlier arrow is taken at once."""
        into: dict[Spot, list[tuple[Spot, int, int, list[Condition]]]] = {}
        for spot in spots:
            if spot not in parting:
                for number, (a, b) in enumerate(self._arrows(index, spot)):
                    earlier = [condition for place, condition in at_once[spot] if place < number]
                    entry = (spot, self._packed(a.mask), self._packed(a.value), earlier)
                    into.setdefault((a.target, b.target), []).append(entry)
        return into

    def _at_once(self, index: int, spot: Spot) -> list[tuple[int, Condition]]:
        """Arrows that hang on inputs alone, by their place in the list: where one's inputs stand so, nobody waits there."""
        return [
            (number, (self._packed(arrow.mask), self._packed(arrow.value)))
            for number, arrow in enumerate(self.pair.sides[0].machines[index][spot[0]].arrows)
            if arrow.clock < 0 and arrow.counter < 0 and not arrow.signal_mask
        ]

    def _arrows(self, index: int, spot: Spot) -> Iterator[tuple[Arrow, Arrow]]:
        one, other = (self.pair.sides[i].machines[index][spot[i]].arrows for i in (0, 1))
        return zip(one, other, strict=True)

    def _power_losses_into(self, index: int, spots: list[Spot]) -> dict[Spot, list[Spot]]:
        """From which spots a power loss leads to each."""
        into: dict[Spot, list[Spot]] = {spot: [] for spot in spots}
        start = spots[0]
        for spot in spots:
            survives = spot[0] in self.pair.sides[0].survives[index]
            into[spot if survives else start].append(spot)
        return into


def _enabled(conditions: list[Condition], inputs: int) -> bool:
    return any(inputs & mask == value for mask, value in conditions)


def _same_place(one: Place, other: Place) -> bool:
    """Whether two states show the same and list the same arrows but for their targets."""
    if one.steady != other.steady or set(one.conditional) != set(other.conditional):
        return False
    return len(one.arrows) == len(other.arrows) and all(
        _rule(a) == _rule(b) for a, b in zip(one.arrows, other.arrows, strict=True)
    )


def _rule(arrow: Arrow) -> tuple[object, ...]:
    return (
        arrow.mask, arrow.value, arrow.signal_mask, arrow.signal_value, arrow.after, arrow.clock, arrow.counter,
        arrow.threshold, arrow.reached, arrow.resets, arrow.clears, arrow.adds,
    )  # fmt: skip
