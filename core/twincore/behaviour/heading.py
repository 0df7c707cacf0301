"""Heading: how many input changes are needed at least before two boards that run alike can part.

While both boards stand in corresponding states, with clocks of equal age and equal counters, they stay so until a place
where their arrows or outputs differ. For every spot, the combinations of inputs from which such a place can be reached with no more
than k further changes are a least fixpoint backwards; k is then a lower bound for the exact search (A*: Hart, Nilsson and Raphael,
1968), and where no k will do, the boards cannot part any more. One table leaves all named clocks out; one for each named clock
watches its age. Of several machines each has tables of its own, and the least of them counts.
"""

from collections import deque
from collections.abc import Collection
from typing import NamedTuple

from twincore.behaviour.effort import Effort, effort_of
from twincore.behaviour.input_sets import InputSets, set_work
from twincore.behaviour.likeness import EVER
from twincore.behaviour.machine import EXPIRED, rule
from twincore.behaviour.nodes import Node
from twincore.behaviour.pair import Pair
from twincore.behaviour.spots import COME, ENTERED, OFF, TURNED, WAITED, Spots

MOST_ARRIVALS = 40_000
"""What tables may cost where nobody says otherwise, in arrivals."""
History = list[tuple[int, int]]
"""(changes, inputs from which so many may be enough), each holding the one before."""


class Ages(NamedTuple):
    """Bounds of a clock's age now, and of what it was as the machine's state was entered."""

    low: int
    high: int
    entered_low: int
    entered_high: int


class Heading:
    """Lower bounds for a pair of boards; `useful` is false where none better than zero can be given.

    Of the named clocks those in `clocks` are watched (by their slots).
    """

    def __init__(self, pair: Pair, clocks: Collection[int] = (), effort: Effort | None = None) -> None:
        effort = effort or effort_of(MOST_ARRIVALS)
        self.pair = pair
        self.useful = pair.all_together and _comparable(pair)
        self.tables: list[list[_Table]] = []
        """For each machine its tables: without a clock, and with each that is watched."""
        self._limits: dict[object, bool] = {}
        self._within: dict[object, list[tuple[int, int]]] = {}
        if self.useful:
            sets = InputSets((*pair.sets.bits, pair.power) if pair.power else pair.sets.bits, pair.forbidden)
            for machine in range(len(pair.sides[0].machines)):
                spots = [Spots(pair, sets, machine, clock, effort) for clock in (None, *clocks)]
                self.tables.append([_Table(pair, sets, each, effort) for each in spots if each.useful])
            self.useful = all(self.tables)

    def ahead(self, node: Node) -> tuple[int, int]:
        """The fewest changes that are still needed at least from a node to a difference, and the combinations of its inputs
        from which there is one at all.
        """
        if node.refs[0] != node.refs[1] or node.counters[0] != node.counters[1] or not self._same_limits(node):
            return 0, node.some
        within = self._from(node)
        fewest = next((changes for changes, where in within if where & node.some), 0)
        return fewest, within[-1][1] & node.some

    def _from(self, node: Node) -> list[tuple[int, int]]:
        """For a node's place, whatever the inputs: (changes, combinations from which so many may be enough), growing."""
        off = not self.pair.powered(node.inputs)
        ages = tuple(tuple(table.ages(node) for table in tables) for tables in self.tables)
        key = (node.states, node.counters[0], off, ages)
        found = self._within.get(key)
        if found is None:
            machines = [
                [history for table, age in zip(tables, each, strict=True) for history in table.covering(node, off, age)]
                for tables, each in zip(self.tables, ages, strict=True)
            ]
            ranks = sorted({0, *(changes for histories in machines for history in histories for changes, _ in history)})
            found = self._within[key] = [(changes, self._reaching(machines, changes)) for changes in ranks]
        return found

    def _reaching(self, machines: list[list[History]], changes: int) -> int:
        """The combinations from which some machine may part with so many changes, by all its tables."""
        found = 0
        for histories in machines:
            each = self.pair.sets.everything
            for history in histories:
                each &= next((where for needed, where in reversed(history) if needed <= changes), 0)
            found |= each
        return found

    def _same_limits(self, node: Node) -> bool:
        """Whether both boards still tell apart the same values of counters."""
        found = self._limits.get(node.states)
        if found is None:
            one, other = (
                outlook.counter_limits(states) for outlook, states in zip(self.pair.outlooks, node.states, strict=True)
            )
            found = self._limits[node.states] = one == other
        return found


def clocks_that_differ(pair: Pair) -> list[int]:
    """The named clocks that an arrow reads which is not the same on both boards."""
    found = set()
    machines = len(pair.sides[0].machines)
    for one, other in zip(pair.sides[0].machines, pair.sides[1].machines, strict=False):
        for mine, theirs in zip(one, other, strict=False):
            for a, b in zip(mine.arrows, theirs.arrows, strict=False):
                if rule(a) != rule(b) or a.after != b.after:
                    found.update({a.clock, b.clock, *a.resets, *b.resets})
    return sorted(slot for slot in found if slot >= machines)


def _comparable(pair: Pair) -> bool:
    one, other = pair.sides
    return (
        len(one.machines) == len(other.machines)
        and one.named_clocks == other.named_clocks
        and one.counters == other.counters
        and one.internal == other.internal
    )


class _Table:
    """The bounds of every spot of a machine, for every combination of inputs."""

    def __init__(self, pair: Pair, sets: InputSets, spots: Spots, effort: Effort) -> None:
        self.pair, self.sets, self.spots, self.effort = pair, sets, spots, effort
        self.work = set_work(sets)
        self.history: list[History] = [[] for _ in spots.spots]
        self._here: dict[tuple[tuple[int, int], tuple[int, ...], bool], list[int]] = {}
        for number, spot in enumerate(spots.spots):
            key = (spot.states, spot.counters, spot.kind == OFF)
            self._here.setdefault(key, []).append(number)
        self._fill()
        self._halve()

    # filling -------------------------------------------------------------------------------------------------------

    def _fill(self) -> None:
        count = len(self.spots.spots)
        self.come, self.turned, self.waited = [0] * count, [0] * count, [0] * count
        """For each spot the inputs from which the boards can part: just come there, just after a turn there, waiting there."""
        into: list[dict[tuple[int, int], int]] = [{} for _ in range(count)]
        switching: list[list[int]] = [[] for _ in range(count)]
        """The spots from which switching the power leads to each."""
        for number, ways in enumerate(self.spots.ways):
            for now, edges in enumerate(ways.edges):
                for where, target in edges:
                    into[target][number, now] = into[target].get((number, now), 0) | where
            if ways.switched >= 0:
                switching[ways.switched].append(number)
        self.into = [[(*key, where) for key, where in each.items()] for each in into]
        more = [
            (number, now, some) for number, ways in enumerate(self.spots.ways) for now, some in enumerate(ways.parts)
        ]
        changes = 0
        while more:
            grown = self._close(more)
            for number in grown:
                if (waited := self.waited[number]) and (
                    not self.history[number] or self.history[number][-1][1] != waited
                ):
                    self.history[number].append((changes, waited))
            if not changes:  # where losing power parts them, it does so from anywhere
                grown.update(number for number, ways in enumerate(self.spots.ways) if ways.switched < 0)
            changes += 1
            beside = grown.union(*(switching[number] for number in grown))
            more = [(number, WAITED, self._one_turn_away(number)) for number in beside]
        del self.come, self.turned, self.waited, self.into

    def _halve(self) -> None:
        """Leave the power out of the sets, which is the last of their inputs: a spot has it, or has it not."""
        if self.pair.power:
            half = 1 << len(self.pair.sets.bits)
            for history, spot in zip(self.history, self.spots.spots, strict=True):
                history[:] = [
                    (changes, where & self.pair.sets.everything if spot.kind == OFF else where >> half)
                    for changes, where in history
                ]

    def _close(self, more: list[tuple[int, int, int]]) -> set[int]:
        """Go on backwards without a further change until nothing grows; the spots that did."""
        come, turned, waited, ways = self.come, self.turned, self.waited, self.spots.ways
        grown: set[int] = set()
        news: dict[int, int] = {}
        order: deque[int] = deque()
        waiting = more
        while True:
            for number, now, some in waiting:
                if now == WAITED:
                    some &= ~waited[number]
                    if not some:
                        continue
                    waited[number] |= some
                    grown.add(number)
                    some &= ways[number].settled
                if now != COME and some & ~turned[number]:
                    turned[number] |= some
                    grown.add(number)
                if now != TURNED and (new := some & ~come[number]):
                    come[number] |= new
                    grown.add(number)
                    if number in news:
                        news[number] |= new
                    else:
                        news[number] = new
                        order.append(number)
            if not order:
                return grown
            target = order.popleft()
            self.effort.spend(1 + len(self.into[target]) * self.work)
            new = news.pop(target)
            waiting = [(number, now, where & new) for number, now, where in self.into[target] if where & new]

    def _one_turn_away(self, number: int) -> int:
        """The inputs from which one input turned leads, from a spot, to where the boards can part."""
        sets, ways = self.sets, self.spots.ways[number]
        self.effort.spend(1 + len(sets.bits) * self.work)
        off = self.spots.spots[number].kind == OFF
        beside = self.waited[number] if off else self.turned[number]
        found = 0
        for place, bit in enumerate(sets.bits):
            if bit != self.pair.power:
                found |= sets.turned(beside, place)
            elif ways.switched < 0:
                found = sets.everything
            else:
                there = self.come if off else self.waited
                found |= sets.turned(there[ways.switched], place)
        return found & ways.settled

    # looking up ----------------------------------------------------------------------------------------------------

    def covering(self, node: Node, off: bool, ages: Ages) -> list[History]:
        """What is said of the spots that hold everything that a node may be, of these ages."""
        machine, tracked = self.spots.machine, self.spots.tracked
        states = (node.states[0][machine], node.states[1][machine])
        counters = tuple(n if number in tracked else 0 for number, n in enumerate(node.counters[0]))
        found = []
        for number in self._here.get((states, counters, off), ()):
            spot = self.spots.spots[number]
            low, high = (ages.entered_low, ages.entered_high) if spot.kind == ENTERED else (ages.low, ages.high)
            if spot.low <= low and high <= spot.high:
                found.append(self.history[number])
        return found

    def ages(self, node: Node) -> Ages:
        """The least and the greatest age of the watched clock at a node, and what it was as the state was entered."""
        slot = self.spots.clock
        if slot is None or (ref := node.refs[0][slot]) not in (EXPIRED, *range(1, node.size)):
            return Ages(0, 0, 0, 0)
        size = node.size
        own = node.refs[0][self.spots.machine]
        if ref == EXPIRED:
            limits = [o.clock_limits(states)[slot] for o, states in zip(self.pair.outlooks, node.states, strict=True)]
            low = max(0, min(limits))
            return Ages(low, EVER, max(0, low - _upper(node.zone[own * size])) if own > 0 else 0, EVER)
        low, high = -(node.zone[ref] >> 1), _upper(node.zone[ref * size])
        if own <= 0:
            return Ages(low, high, 0, high)
        return Ages(low, high, max(0, -(node.zone[own * size + ref] >> 1)), _upper(node.zone[ref * size + own]))


def _upper(bound: int) -> int:
    return EVER if bound >= EVER else bound >> 1
