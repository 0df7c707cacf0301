"""Stepwise: the cheapest proof: two boards whose arrows correspond one to one never part.

Kept for a pair of configurations is which clocks have the same age and which counters the same value on both sides.
Where, machine by machine, both list the same conditions over equal clocks and counters in the same order, the same
arrow is taken on both, and the pairs of targets follow. This looks at no time and no input at all. It says nothing
where the lists differ, nor where a board might never settle, which only a closer search can tell.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from twincore.behaviour.effort import Effort
from twincore.behaviour.machine import DEAD, EXPIRED, NOW, Arrow, Place, Side, rule
from twincore.behaviour.pair import Pair

States = tuple[int, ...]
MOST_INPUTS = 12
MOST_CONFIGS, CONFIG = 100_000, 60
"""Pairs of configurations that are looked at where nobody says otherwise, and units of work for each."""


@dataclass(frozen=True, slots=True)
class _Config:
    states: tuple[States, States]
    clocks: tuple[States, States]
    counters: tuple[States, States]


def step_for_step(pair: Pair, effort: Effort | None = None) -> tuple[bool, int]:
    """Whether the boards are shown to be identical, and how many pairs of configurations were looked at."""
    one, other = pair.sides
    if len(one.machines) != len(other.machines) or any(may_go_round(side, pair.forbidden) for side in pair.sides):
        return False, 0
    read = one.compared
    for side in pair.sides:
        for _, bit in side.watches:
            read |= bit
        for machine in side.machines:
            for place in machine:
                for arrow in place.arrows:
                    read |= arrow.signal_mask
    if read >> len(one.outputs) and one.internal != other.internal:
        return False, 0
    looked_at = _arrow_for_arrow(pair, read)
    return (True, looked_at) if looked_at else _Stepwise(pair, read, effort or Effort(MOST_CONFIGS * CONFIG)).run()


def _arrow_for_arrow(pair: Pair, read: int) -> int:
    """How many pairs of states there are, machine by machine, where all of them list the same arrows over the same clocks and
    counters; 0 where some do not. All clocks then keep the same age, and all counters the same value.
    """
    one, other = pair.sides
    if (one.named_clocks, one.watches, one.counters) != (other.named_clocks, other.watches, other.counters):
        return 0
    looked_at = 0
    for index, (mine, theirs) in enumerate(zip(one.machines, other.machines, strict=True)):
        start = (one.starts[index], other.starts[index])
        seen, waiting = {start}, [start]
        while waiting:
            a, b = waiting.pop()
            survives = a in one.survives[index]
            if survives != (b in other.survives[index]) or not _listing_the_same(mine[a], theirs[b], read):
                return 0
            for arrow, like in zip(mine[a].arrows, theirs[b].arrows, strict=True):
                if (arrow.target, like.target) not in seen:
                    seen.add((arrow.target, like.target))
                    waiting.append((arrow.target, like.target))
        looked_at += len(seen)
    return looked_at


def _listing_the_same(one: Place, other: Place, read: int) -> bool:
    return (
        one.steady & read == other.steady & read
        and _conditional(one, read) == _conditional(other, read)
        and len(one.arrows) == len(other.arrows)
        and all(rule(a) == rule(b) and a.after == b.after for a, b in zip(one.arrows, other.arrows, strict=True))
    )


def _conditional(place: Place, read: int) -> set[tuple[int, int, int]]:
    return {each for each in place.conditional if each[0] & read}


class _Stepwise:
    def __init__(self, pair: Pair, read: int, effort: Effort) -> None:
        self.pair, self.read, self.effort = pair, read, effort

    def run(self) -> tuple[bool, int]:
        first = self._forget(
            [side.starts for side in self.pair.sides],
            [side.clocks_at_power_on() for side in self.pair.sides],
            [[(0, 0)] * len(side.counters) for side in self.pair.sides],
        )
        seen, waiting = {first}, [first]
        while waiting:
            config = waiting.pop()
            if self.effort.work < CONFIG or not self._alike(config):
                return False, len(seen)
            self.effort.spend(CONFIG)
            for successor in self._successors(config):
                if successor not in seen:
                    seen.add(successor)
                    waiting.append(successor)
        return True, len(seen)

    def _places(self, config: _Config, i: int) -> list[Place]:
        return [machine[s] for machine, s in zip(self.pair.sides[i].machines, config.states[i], strict=True)]

    def _alike(self, config: _Config) -> bool:
        for one, other in zip(self._places(config, 0), self._places(config, 1), strict=True):
            if one.steady & self.read != other.steady & self.read or len(one.arrows) != len(other.arrows):
                return False
            if _conditional(one, self.read) != _conditional(other, self.read):
                return False
            for mine, theirs in zip(one.arrows, other.arrows, strict=True):
                if self._guard(config, 0, mine) != self._guard(config, 1, theirs):
                    return False
        return True

    def _guard(self, config: _Config, i: int, arrow: Arrow) -> tuple[object, ...]:
        clock = None if arrow.clock < 0 else (config.clocks[i][arrow.clock], arrow.after)
        count = None if arrow.counter < 0 else (config.counters[i][arrow.counter], arrow.threshold, arrow.reached)
        return (arrow.mask, arrow.value, arrow.signal_mask, arrow.signal_value, clock, count)

    def _successors(self, config: _Config) -> Iterator[_Config]:
        for machine, (one, other) in enumerate(zip(self._places(config, 0), self._places(config, 1), strict=True)):
            for arrows in zip(one.arrows, other.arrows, strict=True):
                yield self._take(config, machine, arrows)
        if self.pair.power:
            yield self._power_cycle(config)

    def _take(self, config: _Config, machine: int, arrows: tuple[Arrow, Arrow]) -> _Config:
        states = list(config.states)
        clocks = [list(each) for each in config.clocks]
        counters = [[(group, 0) for group in each] for each in config.counters]
        for i, arrow in enumerate(arrows):
            states[i] = (*states[i][:machine], arrow.target, *states[i][machine + 1 :])
            for slot in (machine, *arrow.resets):
                clocks[i][slot] = NOW
            for index in arrow.clears:
                counters[i][index] = (NOW, 0)
            for index in arrow.adds:
                counters[i][index] = (counters[i][index][0], 1)
        return self._forget(states, clocks, counters)

    def _power_cycle(self, config: _Config) -> _Config:
        states, clocks, counters = [], [], []
        for i, side in enumerate(self.pair.sides):
            kept, _ = side.without_power(config.states[i], (0,) * len(side.counters))
            states.append(kept)
            clocks.append(side.clocks_at_power_on(config.clocks[i]))
            counters.append(
                [(group if keeps else NOW, 0) for group, keeps in zip(config.counters[i], side.counters, strict=True)]
            )
        return self._forget(states, clocks, counters)

    def _forget(self, states: list[States], clocks: list[list[int]], counters: list[list[tuple[int, int]]]) -> _Config:
        ages: dict[tuple[int, int], int] = {}
        tallies: dict[tuple[int, int], int] = {}
        kept_clocks, kept_counters = [], []
        for i in (0, 1):
            outlook = self.pair.outlooks[i]
            watches = dict(self.pair.sides[i].watches)
            kept_clocks.append(
                tuple(
                    DEAD if limit < 0 or clock == DEAD
                    else EXPIRED if clock == EXPIRED
                    # clocks of one age stay so where they run while the same is on, which is on both sides alike
                    else ages.setdefault((clock, watches.get(slot, 0)), len(ages))
                    for slot, (clock, limit) in enumerate(zip(clocks[i], outlook.clock_limits(states[i]), strict=True))
                )
            )  # fmt: skip
            kept_counters.append(
                tuple(
                    DEAD if limit < 0 else tallies.setdefault(tally, len(tallies))
                    for tally, limit in zip(counters[i], outlook.counter_limits(states[i]), strict=True)
                )
            )
        return _Config((states[0], states[1]), (kept_clocks[0], kept_clocks[1]), (kept_counters[0], kept_counters[1]))


def may_go_round(side: Side, forbidden: Sequence[tuple[int, int]] = ()) -> bool:
    """Whether some machine has a ring of arrows that one combination of inputs allows without any time passing.

    Combinations that cannot occur (masks and values of inputs) count for none. Where a single machine has such a ring, what
    the others show stands still while it goes round; where several have, what they show is taken for anything.
    """
    rings = [index for index, machine in enumerate(side.machines) if _ring(machine, index, forbidden, 0)]
    if len(rings) != 1:
        return bool(rings)
    own = 0
    for place in side.machines[rings[0]]:
        own |= place.steady
        for bit, _, _ in place.conditional:
            own |= bit
    return _ring(side.machines[rings[0]], rings[0], forbidden, ~own)


def _ring(places: tuple[Place, ...], own_clock: int, forbidden: Sequence[tuple[int, int]], still: int) -> bool:
    """Whether a machine may go round; `still` are the signals that stand while it does."""
    quick = [[arrow for arrow in place.arrows if arrow.clock != own_clock] for place in places]
    inner = _on_rings({(s, arrow.target) for s, arrows in enumerate(quick) for arrow in arrows})
    among = [(s, arrow) for s in inner for arrow in quick[s] if arrow.target in inner]
    if not among:
        return False
    inputs_read = signals_read = 0
    for _, arrow in among:
        inputs_read |= arrow.mask
        signals_read |= arrow.signal_mask & still
    if inputs_read.bit_count() + signals_read.bit_count() > MOST_INPUTS:
        return True
    return any(
        _on_rings(
            {
                (state, arrow.target)
                for state, arrow in among
                if inputs & arrow.mask == arrow.value
                and (signals ^ arrow.signal_value) & arrow.signal_mask & still == 0
            }
        )
        for inputs in _combinations(inputs_read)
        if not any(mask & ~inputs_read == 0 and inputs & mask == value for mask, value in forbidden)
        for signals in _combinations(signals_read)
    )


def _combinations(mask: int) -> Iterator[int]:
    """Every combination of the bits of a mask."""
    bits = mask
    while True:
        yield bits
        if bits == 0:
            return
        bits = (bits - 1) & mask


def _on_rings(edges: set[tuple[int, int]]) -> set[int]:
    """The states left when those without a way in or out are taken away, again and again."""
    while True:
        starts, ends = {a for a, _ in edges}, {b for _, b in edges}
        inner = starts & ends
        kept = {(a, b) for a, b in edges if a in inner and b in inner}
        if len(kept) == len(edges):
            return inner
        edges = kept
