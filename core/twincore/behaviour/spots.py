"""Spots: where two boards stand that run alike, in one machine, and what leads from there to where.

A spot is a state of each board, the counters, and bounds for the age of one named clock, on entry or at any time of the stay. What is
left out may be anything; so whatever the boards can do between the spots is here, and something besides.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import NamedTuple

from twincore.behaviour.effort import Effort
from twincore.behaviour.input_sets import InputSets, set_work
from twincore.behaviour.likeness import EVER, Common, in_common
from twincore.behaviour.machine import Arrow, Place
from twincore.behaviour.outlook import NEVER
from twincore.behaviour.pair import Pair

ENTERED, STAYING, OFF = range(3)
"""Whether the bounds of a spot are those of its entry, or of any time of the stay; or there is no power."""
MOST_BITS = 1 << 25
"""Spots times combinations of inputs beyond which there is no table."""
ANYWHERE = (0, EVER)


class Spot(NamedTuple):
    """Where both boards stand, in one machine."""

    states: tuple[int, int]
    counters: tuple[int, ...]
    low: int
    high: int
    kind: int


Edge = tuple[int, int]
"""The combinations of inputs for which it may be gone, and the spot that it leads to."""


@dataclass(slots=True)
class Ways:
    """What leads on from a spot, and for which inputs the boards part there: just come, just turned, or waiting."""

    parts: list[int] = field(default_factory=lambda: [0, 0, 0])
    edges: tuple[list[Edge], list[Edge], list[Edge]] = field(default_factory=lambda: ([], [], []))
    settled: int = 0
    """The inputs for which nothing is surely taken at once."""
    switched: int = -1
    """The spot after power is lost, or is there again; -1 where losing it parts them."""


COME, TURNED, WAITED = range(3)


class _Reached(NamedTuple):
    """Whether the clock of an arrow may have reached its time, surely has, and the bounds of the watched age then."""

    possible: bool
    certain: bool
    low: int
    high: int


class Spots:
    """All spots of a machine that can be met, seen with one named clock (its slot) or with none."""

    def __init__(self, pair: Pair, sets: InputSets, machine: int, clock: int | None, effort: Effort) -> None:
        self.pair, self.sets, self.machine, self.clock, self.effort = pair, sets, machine, clock, effort
        self.power = sets.where(pair.power, pair.power) if pair.power else sets.everything
        self.powered = self.power & sets.allowed
        self.marks = sorted(
            {
                arrow.after
                for places in self._both()
                for place in places
                for arrow in place.arrows
                if arrow.clock == clock
            }
            if clock is not None
            else ()
        )
        touched, reset = _touched_elsewhere(pair, machine)
        self.tracked = [number for number in range(len(pair.sides[0].counters)) if number not in touched]
        self.useful = clock is None or (clock not in reset and bool(self.marks))
        self.spots: list[Spot] = []
        self.ways: list[Ways] = []
        self._number: dict[Spot, int] = {}
        self._common: dict[tuple[int, int], Common] = {}
        if self.useful:
            self._explore()

    def _both(self) -> Iterator[tuple[Place, ...]]:
        for side in self.pair.sides:
            yield side.machines[self.machine]

    def _explore(self) -> None:
        one, other = self.pair.sides
        states = (one.starts[self.machine], other.starts[self.machine])
        self._at(states, [0] * len(one.counters), *self._at_power_on(None), ENTERED)
        if self.pair.power:
            self._at(states, [0] * len(one.counters), *ANYWHERE, OFF)
        most = MOST_BITS >> len(self.sets.bits)
        for spot in self.spots:
            if len(self.spots) > most:
                self.useful = False
                return
            self.effort.spend(20 + 20 * self._arrows(spot) * set_work(self.sets))
            self.effort.fill(60)
            self.ways.append(self._ways_off(spot) if spot.kind == OFF else self._ways(spot))
            if spot.kind == ENTERED and self._limit(spot.states) != NEVER:
                for low in (spot.low, *(mark for mark in self.marks if mark > spot.low)):
                    self._at(spot.states, list(spot.counters), low, EVER, STAYING)

    def _arrows(self, spot: Spot) -> int:
        return len(self.pair.sides[0].machines[self.machine][spot.states[0]].arrows)

    def _at(self, states: tuple[int, int], counters: list[int], low: int, high: int, kind: int) -> int:
        """The number of a spot; what cannot matter any more is not told apart."""
        spot = self._plain(states, counters, low, high, kind)
        found = self._number.get(spot)
        if found is None:
            found = self._number[spot] = len(self.spots)
            self.spots.append(spot)
        return found

    def _plain(self, states: tuple[int, int], counters: list[int], low: int, high: int, kind: int) -> Spot:
        limit = self._limit(states)
        if limit == NEVER:
            low, high = ANYWHERE
        elif low >= limit:
            low, high = limit, EVER
        else:
            low = max((mark for mark in self.marks if mark <= low), default=0)
            high = min((mark for mark in self.marks if high <= mark <= limit), default=EVER) if high else 0
        kept = [0] * len(counters)
        for number in self.tracked:
            most = max(self.pair.outlooks[i].counters[self.machine][states[i]][number] for i in (0, 1))
            kept[number] = min(counters[number], most) if most != NEVER else 0
        return Spot(states, tuple(kept), low, high, kind)

    def _limit(self, states: tuple[int, int]) -> int:
        """The largest time that the watched clock can still meet from here on, on either board."""
        if self.clock is None:
            return NEVER
        return max(self.pair.outlooks[i].clocks[self.machine][states[i]][self.clock] for i in (0, 1))

    # power ---------------------------------------------------------------------------------------------------------

    def _at_power_on(self, before: int | None) -> tuple[int, int]:
        """Bounds of the watched age as power comes on; `before` is what it was at least when power was lost."""
        if self.clock is None:
            return ANYWHERE
        expired, _ = self.pair.sides[0].named_clocks[self.clock - len(self.pair.sides[0].machines)]
        if self._keeps_running and before is not None:
            return before, EVER
        return (self.marks[-1], EVER) if expired else (0, 0)

    @property
    def _keeps_running(self) -> bool:
        """Whether the watched clock runs without power."""
        if self.clock is None:
            return False
        return self.pair.sides[0].named_clocks[self.clock - len(self.pair.sides[0].machines)][1]

    def _ways_off(self, spot: Spot) -> Ways:
        on = self._at(spot.states, list(spot.counters), *self._at_power_on(spot.low), ENTERED)
        return Ways(settled=self.sets.allowed & ~self.power, switched=on)

    def _after_loss(self, spot: Spot) -> int:
        sides = self.pair.sides
        survives = [spot.states[i] in sides[i].survives[self.machine] for i in (0, 1)]
        if survives[0] != survives[1]:
            return -1
        start = (sides[0].starts[self.machine], sides[1].starts[self.machine])
        counters = [n if kept else 0 for n, kept in zip(spot.counters, sides[0].counters, strict=True)]
        low = spot.low if self._keeps_running else 0
        return self._at(spot.states if survives[0] else start, counters, low, EVER, OFF)

    # arrows --------------------------------------------------------------------------------------------------------

    def _ways(self, spot: Spot) -> Ways:
        common = self._common_of(spot.states)
        ways = Ways(settled=self.powered)
        if self.pair.power:
            ways.switched = self._after_loss(spot)
        if common.unlike:
            ways.parts = [self.powered] * 3
            return ways
        for now in (COME, TURNED):
            left = self.powered
            for one, other, same, only_time in common.arrows:
                left = self._go(spot, ways, now, left, one, other, same, only_time)
            ways.settled = left
        ways.parts[WAITED] |= ways.settled & common.shown_apart
        for number in range(len(common.arrows)):
            self._wait(spot, ways, number)
        return ways

    def _go(
        self, spot: Spot, ways: Ways, now: int, left: int, one: Arrow, other: Arrow, same: bool, only_time: bool
    ) -> int:
        """Add an arrow that may be taken at this instant; the inputs that are left for those listed after it."""
        where = self.sets.where(one.mask, one.value)
        if not (same or only_time):
            ways.parts[now] |= left & (where | self.sets.where(other.mask, other.value))
            return left
        first = self._reached(spot, one, min(one.after, other.after), now)
        last = first if same else self._reached(spot, one, max(one.after, other.after), now)
        if not same and first.possible and not last.certain:
            ways.parts[now] |= left & where
        if last.possible and left & where:
            ways.edges[now].append((left & where, self._onward(spot, one, other, last.low, last.high)))
        return left & ~where if last.certain else left

    def _reached(self, spot: Spot, arrow: Arrow, after: int, now: int) -> _Reached:
        high = spot.high if now == COME else spot.high + self._common[spot.states].stay
        holds, known = self._counted(spot, arrow)
        if not holds:
            return _Reached(False, False, 0, 0)
        sure = known and not arrow.signal_mask
        if arrow.clock < 0:
            return _Reached(True, sure, spot.low, high)
        if arrow.clock == self.machine:
            return _Reached(now != COME, False, spot.low + after if spot.kind == ENTERED else spot.low, high)
        if arrow.clock == self.clock:
            return _Reached(high >= after, sure and spot.low >= after, max(spot.low, after), high)
        return _Reached(True, False, spot.low, high)

    def _counted(self, spot: Spot, arrow: Arrow) -> tuple[bool, bool]:
        """Whether what an arrow asks of a counter may hold, and whether that is known."""
        if arrow.counter < 0:
            return True, True
        if arrow.counter not in self.tracked:
            return True, False
        return (spot.counters[arrow.counter] >= arrow.threshold) == arrow.reached, True

    def _onward(self, spot: Spot, one: Arrow, other: Arrow, low: int, high: int) -> int:
        counters = list(self.pair.sides[0].count(spot.counters, one))
        if self.clock in one.resets:
            low = high = 0
        return self._at((one.target, other.target), counters, low, high, ENTERED)

    # waiting -------------------------------------------------------------------------------------------------------

    def _wait(self, spot: Spot, ways: Ways, number: int) -> None:
        """Add an arrow that may be taken because time passes, or because another machine shows something else."""
        one, other, same, only_time = self._common[spot.states].arrows[number]
        where = ways.settled & self.sets.where(one.mask, one.value)
        if not (same or only_time):
            ways.parts[WAITED] |= ways.settled & (
                self.sets.where(one.mask, one.value) | self.sets.where(other.mask, other.value)
            )
            return
        holds, known = self._counted(spot, one)
        exact = known and not one.signal_mask
        if not holds or (exact and one.clock < 0):
            return
        soonest = min(one.after, other.after)
        where &= ~self._taken_before(spot, number, soonest)
        if not where or not self._reached(spot, one, soonest, TURNED).possible:
            return
        if not same:
            ways.parts[WAITED] |= where
            if exact:
                return
        after = max(one.after, other.after)
        found = self._reached(spot, one, after, TURNED)
        low, high = found.low, found.high
        if exact and one.clock == self.clock:
            low = high = after
        elif exact and one.clock == self.machine and spot.kind == ENTERED:
            high = spot.high + after
        if found.possible:
            ways.edges[WAITED].append((where, self._onward(spot, one, other, low, high)))

    def _taken_before(self, spot: Spot, number: int, after: int) -> int:
        """The inputs for which another arrow is surely taken before the clock of this one has reached `after`."""
        arrows = self._common[spot.states].arrows
        late, found = arrows[number][0], 0
        for place, (one, other, same, only_time) in enumerate(arrows):
            holds, known = self._counted(spot, one)
            if place == number or one.clock < 0 or one.signal_mask or not (holds and known and (same or only_time)):
                continue
            before = max(one.after, other.after)
            # what is due at the same instant is taken in the order of the list
            gap = 0 if place < number else 1
            if one.clock == late.clock:
                sooner = before + gap <= after
            elif spot.kind == ENTERED and (one.clock, late.clock) == (self.machine, self.clock):
                sooner = before + gap <= after - spot.high
            elif spot.kind == ENTERED and (one.clock, late.clock) == (self.clock, self.machine):
                sooner = before + gap <= after + spot.low
            else:
                sooner = False
            if sooner:
                found |= self.sets.where(one.mask, one.value)
        return found

    def _common_of(self, states: tuple[int, int]) -> Common:
        found = self._common.get(states)
        if found is None:
            one, other = (places[state] for places, state in zip(self._both(), states, strict=True))
            found = self._common[states] = in_common(one, other, self.machine, self.pair.sides[0].compared, self.sets)
        return found


def _touched_elsewhere(pair: Pair, machine: int) -> tuple[set[int], set[int]]:
    """The counters that other machines than this one change, and the clock slots that they reset."""
    counters: set[int] = set()
    resets: set[int] = set()
    for side in pair.sides:
        for index, places in enumerate(side.machines):
            for place in places if index != machine else ():
                for arrow in place.arrows:
                    counters.update(arrow.adds, arrow.clears)
                    resets.update(arrow.resets)
    return counters, resets
