"""Lockstep: a cheap proof that two boards never part, whatever their timers.

Kept for a pair of configurations is only which clocks have the same age and which counters the same value; all ages,
values and inputs are forgotten between instants, and anything may happen at the next one. Where even then no output can
differ, the boards are identical. Where one could, nothing is concluded.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import reduce
from operator import or_
from typing import NamedTuple

from twincore.behaviour.effort import Effort, Spent
from twincore.behaviour.machine import DEAD, EXPIRED, MOST_TRANSITIONS, NOW, Arrow
from twincore.behaviour.pair import Pair

States = tuple[int, ...]
Tally = tuple[int, int]
"""A counter: (class of equal counters, how much was added at this instant); class CONSTANT for a known value."""
CONSTANT = -1


@dataclass(frozen=True, slots=True)
class Config:
    """What is kept of a pair of configurations between instants."""

    states: tuple[States, States]
    clocks: tuple[int, ...]
    """For each clock of both boards its class of equal ages, or EXPIRED or DEAD."""
    counters: tuple[int, ...]
    powered: bool


@dataclass(slots=True)
class _Draft:
    states: list[States]
    clocks: list[list[int]]
    counters: list[list[Tally]]
    known: int
    inputs: int
    ages: dict[int, tuple[int, int]]
    values: dict[int, tuple[int, int]]
    side: int = 0
    taken: int = 0

    def copy(self) -> "_Draft":
        return _Draft(
            list(self.states), [list(c) for c in self.clocks], [list(c) for c in self.counters], self.known,
            self.inputs, dict(self.ages), dict(self.values), self.side, self.taken,
        )  # fmt: skip


class _Outputs(NamedTuple):
    """What a board's states drive together: what is on anyway, what hangs on inputs, and how."""

    steady: int
    hanging: int
    conditional: tuple[tuple[int, int, int], ...]


class _Apart(Exception):
    """The boards might part here: lockstep concludes nothing."""


MOST_LOOKED_AT = 600
"""Pairs of configurations, and drafts of them while settling, after which the exact search is the better use of time."""
MOST_DRAFTS, DRAFT = 40_000, 30
"""How many drafts there are at most, and units of work for each."""


def in_lockstep(pair: Pair, effort: Effort | None = None) -> tuple[bool, int]:
    """Whether the boards are shown to be identical, and how many pairs of configurations were looked at."""
    search = _Lockstep(pair, MOST_LOOKED_AT, effort or Effort(MOST_DRAFTS * DRAFT))
    return search.run(), len(search.seen)


def everywhere(pair: Pair, most: int) -> set[Config] | None:
    """Everywhere that two boards can be which are shown to be identical; None where that is not shown."""
    search = _Lockstep(pair, most, Effort(MOST_DRAFTS * DRAFT))
    return search.seen if search.run() else None


class _Lockstep:
    def __init__(self, pair: Pair, most: int, effort: Effort) -> None:
        self.pair, self.most, self.effort = pair, most, effort
        self.seen: set[Config] = set()
        self._outputs: tuple[dict[States, _Outputs], dict[States, _Outputs]] = ({}, {})

    def run(self) -> bool:
        try:
            waiting = list(self._first())
            while waiting:
                config = waiting.pop()
                if config in self.seen:
                    continue
                self.seen.add(config)
                if len(self.seen) > self.most:
                    return False
                waiting.extend(self._successors(config))
        except (_Apart, Spent):
            return False
        return True

    def _first(self) -> Iterator[Config]:
        """Where the boards stand at rest, which a family may have without power."""
        start = self._start()
        if self.pair.powered(self.pair.rest):
            return self._settled(start)
        start.clocks = [
            side.clocks_without_power(clocks) for side, clocks in zip(self.pair.sides, start.clocks, strict=True)
        ]
        return iter([self._forget(start, None)])

    def _start(self) -> _Draft:
        every_input = (1 << self.pair.sides[0].changes.count) - 1
        counters: list[list[Tally]] = [[(CONSTANT, 0)] * len(side.counters) for side in self.pair.sides]
        clocks = [side.clocks_at_power_on() for side in self.pair.sides]
        return _Draft([side.starts for side in self.pair.sides], clocks, counters, every_input, self.pair.rest, {}, {})

    def _successors(self, config: Config) -> Iterator[Config]:
        draft = self._draft(config)
        if config.powered:
            yield from self._settled(draft)
            if self.pair.power:
                yield self._without_power(self._draft(config))
        else:
            draft.clocks = [
                side.clocks_at_power_on(clocks) for side, clocks in zip(self.pair.sides, draft.clocks, strict=True)
            ]
            yield from self._settled(draft)

    def _draft(self, config: Config) -> _Draft:
        cut = len(self.pair.sides[0].machines) + len(self.pair.sides[0].named_clocks)
        split = len(self.pair.sides[0].counters)
        counters: list[Tally] = [(each, 0) for each in config.counters]
        return _Draft(
            list(config.states), [list(config.clocks[:cut]), list(config.clocks[cut:])],
            [counters[:split], counters[split:]], self.pair.power, self.pair.power, {}, {},
        )  # fmt: skip

    def _without_power(self, draft: _Draft) -> Config:
        for i, side in enumerate(self.pair.sides):
            draft.states[i], _ = side.without_power(draft.states[i], (0,) * len(side.counters))
            draft.counters[i] = [
                kept if survives else (CONSTANT, 0)
                for kept, survives in zip(draft.counters[i], side.counters, strict=True)
            ]
            draft.clocks[i] = side.clocks_without_power(draft.clocks[i])
        return self._forget(draft, None)

    # settling with every undecided question answered both ways ------------------------------------------------------

    def _settled(self, draft: _Draft) -> Iterator[Config]:
        waiting = [draft]
        while waiting:
            draft = waiting.pop()
            self.effort.spend(DRAFT)
            while draft.side < 2 and not self._impossible(draft):
                arrow = self._next_arrow(draft, waiting)
                if arrow is None:
                    draft.side, draft.taken = draft.side + 1, 0
                else:
                    self._take(draft, *arrow)
            if not self._impossible(draft):
                self._compare(draft, waiting)
                running = [
                    {slot for slot, bit in side.watches if self._signal(draft, i, bit, waiting)}
                    for i, side in enumerate(self.pair.sides)
                ]
                yield self._forget(draft, running)

    def _impossible(self, draft: _Draft) -> bool:
        known, inputs = draft.known, draft.inputs
        return any(inputs & mask == value and known & mask == mask for mask, value in self.pair.forbidden)

    def _next_arrow(self, draft: _Draft, waiting: list[_Draft]) -> tuple[int, Arrow] | None:
        i = draft.side
        side = self.pair.sides[i]
        for machine, state in enumerate(draft.states[i]):
            for arrow in side.machines[machine][state].arrows:
                # most are ruled out by what is decided already
                ruled_out = (draft.inputs ^ arrow.value) & arrow.mask & draft.known
                if not ruled_out and self._holds(draft, i, arrow, waiting):
                    return machine, arrow
        return None

    def _holds(self, draft: _Draft, i: int, arrow: Arrow, waiting: list[_Draft]) -> bool:
        if not self._inputs_hold(draft, arrow.mask, arrow.value, waiting):
            return False
        bits = arrow.signal_mask
        while bits:
            bit = bits & -bits
            bits ^= bit
            if self._signal(draft, i, bit, waiting) != bool(arrow.signal_value & bit):
                return False
        if arrow.counter >= 0:
            group, added = draft.counters[i][arrow.counter]
            reached = (
                added >= arrow.threshold
                if group == CONSTANT
                else self._at_least(draft, "values", group, arrow.threshold - added, waiting)
            )
            if reached != arrow.reached:
                return False
        if arrow.clock < 0:
            return True
        clock = draft.clocks[i][arrow.clock]
        if clock in (NOW, EXPIRED):
            return clock == EXPIRED
        return self._at_least(draft, "ages", clock, arrow.after, waiting)

    def _inputs_hold(self, draft: _Draft, mask: int, value: int, waiting: list[_Draft]) -> bool:
        """Whether inputs stand so; an input not decided yet is taken as wanted here and as not wanted in a copy."""
        if (draft.inputs ^ value) & mask & draft.known:
            return False
        unknown = mask & ~draft.known
        while unknown:
            bit = unknown & -unknown
            unknown ^= bit
            other = draft.copy()
            other.known |= bit
            other.inputs = other.inputs & ~bit | (~value & bit)
            waiting.append(other)
            draft.known |= bit
            draft.inputs = draft.inputs & ~bit | (value & bit)
        return True

    def _driven(self, i: int, states: States) -> _Outputs:
        known = self._outputs[i].get(states)
        if known is None:
            places = [machine[state] for machine, state in zip(self.pair.sides[i].machines, states, strict=True)]
            steady = reduce(or_, (place.steady for place in places), 0)
            conditional = tuple(each for place in places for each in place.conditional if not each[0] & steady)
            hanging = reduce(or_, (bit for bit, _, _ in conditional), 0)
            known = self._outputs[i][states] = _Outputs(steady, hanging, conditional)
        return known

    def _signal(self, draft: _Draft, i: int, bit: int, waiting: list[_Draft]) -> bool:
        driven = self._driven(i, draft.states[i])
        if not driven.hanging & bit:
            return bool(driven.steady & bit)
        return any(
            self._inputs_hold(draft, mask, value, waiting)
            for output, mask, value in driven.conditional
            if output == bit
        )

    def _at_least(self, draft: _Draft, what: str, group: int, threshold: int, waiting: list[_Draft]) -> bool:
        """Whether an age or counter has reached a threshold; where open, yes here and no in a copy."""
        bounds: dict[int, tuple[int, int]] = getattr(draft, what)
        low, high = bounds.get(group, (0, 1 << 60))
        if threshold <= low:
            return True
        if threshold >= high:
            return False
        other = draft.copy()
        getattr(other, what)[group] = (low, threshold)
        waiting.append(other)
        bounds[group] = (threshold, high)
        return True

    def _take(self, draft: _Draft, machine: int, arrow: Arrow) -> None:
        if draft.taken >= MOST_TRANSITIONS:
            raise _Apart
        i = draft.side
        states = draft.states[i]
        draft.states[i] = (*states[:machine], arrow.target, *states[machine + 1 :])
        for slot in (machine, *arrow.resets):
            draft.clocks[i][slot] = NOW
        for index in arrow.clears:
            draft.counters[i][index] = (CONSTANT, 0)
        for index in arrow.adds:
            group, added = draft.counters[i][index]
            draft.counters[i][index] = (group, added + 1)
        draft.taken += 1

    def _compare(self, draft: _Draft, waiting: list[_Draft]) -> None:
        one, other = (self._driven(i, draft.states[i]) for i in (0, 1))
        compared = self.pair.sides[0].compared
        hanging = (one.hanging | other.hanging) & compared
        if (one.steady ^ other.steady) & compared & ~hanging:
            raise _Apart
        while hanging:
            bit = hanging & -hanging
            hanging ^= bit
            if self._signal(draft, 0, bit, waiting) != self._signal(draft, 1, bit, waiting):
                raise _Apart

    # what is kept between instants ----------------------------------------------------------------------------------

    def _forget(self, draft: _Draft, running: list[set[int]] | None) -> Config:
        """What is kept; `running` are each side's stopwatches that go on. None: there is no power, and none does."""
        clocks: list[int] = []
        counters: list[int] = []
        ages: dict[tuple[int, bool], int] = {}
        tallies: dict[Tally, int] = {}
        for i in (0, 1):
            outlook = self.pair.outlooks[i]
            stopwatches = {slot for slot, _ in self.pair.sides[i].watches}
            still = stopwatches if running is None else stopwatches - running[i]
            limits = outlook.clock_limits(draft.states[i])
            for slot, (clock, limit) in enumerate(zip(draft.clocks[i], limits, strict=True)):
                dead = limit < 0 or clock == DEAD
                # clocks of one age stay so where they run or stand together
                age = (clock, slot in still)
                clocks.append(DEAD if dead else EXPIRED if clock == EXPIRED else ages.setdefault(age, len(ages)))
            for tally, limit in zip(draft.counters[i], outlook.counter_limits(draft.states[i]), strict=True):
                counters.append(DEAD if limit < 0 else tallies.setdefault(tally, len(tallies)))
        return Config((draft.states[0], draft.states[1]), tuple(clocks), tuple(counters), running is not None)
