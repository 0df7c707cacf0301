"""Outlook: what can still matter from a state on: clocks, counters, and inputs while it is being left.

A clock that no coming guard reads, or that is past every coming threshold, need not be told apart; an input need only
change where something may read it. Both keep the searches small and neither leaves anything out.
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from heapq import heapify, heappop, heappush

from twincore.behaviour.machine import Arrow, Place, Side

NEVER = -1


@dataclass(slots=True)
class Outlook:
    """Per machine and state: the largest coming threshold of each clock slot and counter (-1: never read), and inputs read."""

    clocks: tuple[tuple[tuple[int, ...], ...], ...]
    counters: tuple[tuple[tuple[int, ...], ...], ...]
    inputs: tuple[tuple[int, ...], ...]
    _clock_limits: dict[tuple[int, ...], tuple[int, ...]] = field(default_factory=dict)
    _counter_limits: dict[tuple[int, ...], tuple[int, ...]] = field(default_factory=dict)

    def clock_limits(self, states: tuple[int, ...]) -> tuple[int, ...]:
        """The largest threshold that each clock can still meet, over all machines."""
        found = self._clock_limits.get(states)
        if found is None:
            found = self._clock_limits[states] = _over_all(self.clocks, states)
        return found

    def counter_limits(self, states: tuple[int, ...]) -> tuple[int, ...]:
        """The largest threshold that each counter can still meet."""
        found = self._counter_limits.get(states)
        if found is None:
            found = self._counter_limits[states] = _over_all(self.counters, states)
        return found

    def inputs_read(self, states: tuple[int, ...]) -> int:
        """The inputs that some guard or output may read at the next instant at which something happens, as bits."""
        mask = 0
        for table, state in zip(self.inputs, states, strict=True):
            mask |= table[state]
        return mask


def _over_all(tables: tuple[tuple[tuple[int, ...], ...], ...], states: tuple[int, ...]) -> tuple[int, ...]:
    rows = [table[state] for table, state in zip(tables, states, strict=True)]
    return tuple(map(max, zip(*rows, strict=True))) if len(rows) > 1 else rows[0]


def look_ahead(side: Side) -> Outlook:
    """The outlook of every state of a compiled board."""
    signal_inputs = _inputs_behind_signals(side)
    clocks, counters, inputs = [], [], []
    for index, places in enumerate(side.machines):
        slots = len(side.machines) + len(side.named_clocks)
        limits = [_clock_ahead(side, index, slot) for slot in range(slots)]
        tallies = [_counter_ahead(side, index, number) for number in range(len(side.counters))]
        clocks.append(tuple(zip(*limits, strict=True)))
        counters.append(tuple(zip(*tallies, strict=True)) if tallies else ((),) * len(places))
        inputs.append(_inputs_while_leaving(index, places, signal_inputs))
    return Outlook(tuple(clocks), tuple(counters), tuple(inputs))


def _clock_ahead(side: Side, machine: int, slot: int) -> list[int]:
    places, named = side.machines[machine], slot - len(side.machines)
    if named < 0 and slot != machine:
        return [NEVER] * len(places)
    kept = _after_power_loss(side, machine) if named >= 0 and side.named_clocks[named][1] else None
    return _largest_ahead(
        places,
        lambda arrow: arrow.after if arrow.clock == slot else NEVER,
        lambda arrow: slot == machine or slot in arrow.resets,
        kept,
    )


def _counter_ahead(side: Side, machine: int, number: int) -> list[int]:
    return _largest_ahead(
        side.machines[machine],
        lambda arrow: arrow.threshold if arrow.counter == number else NEVER,
        lambda arrow: number in arrow.clears,
        _after_power_loss(side, machine) if side.counters[number] else None,
    )


def _after_power_loss(side: Side, machine: int) -> list[int]:
    survives, start = side.survives[machine], side.starts[machine]
    return [state if state in survives else start for state in range(len(side.machines[machine]))]


def _largest_ahead(
    places: tuple[Place, ...],
    read: Callable[[Arrow], int],
    forgets: Callable[[Arrow], bool],
    after_power_loss: list[int] | None,
) -> list[int]:
    """For each state the largest threshold read there or further on, before it is forgotten (largest first, each once)."""
    limit = [max((read(arrow) for arrow in place.arrows), default=NEVER) for place in places]
    before: list[set[int]] = [set() for _ in places]
    for state, place in enumerate(places):
        for arrow in place.arrows:
            if not forgets(arrow):
                before[arrow.target].add(state)
        if after_power_loss is not None:
            before[after_power_loss[state]].add(state)
    waiting = [(-largest, state) for state, largest in enumerate(limit) if largest > NEVER]
    heapify(waiting)
    while waiting:
        negative, state = heappop(waiting)
        for earlier in before[state] if limit[state] == -negative else ():
            if limit[earlier] < limit[state]:
                limit[earlier] = limit[state]
                heappush(waiting, (negative, earlier))
    return limit


def _inputs_behind_signals(side: Side) -> dict[int, int]:
    """For each signal bit, the inputs on which some state makes it hang."""
    found: dict[int, int] = {}
    for machine in side.machines:
        for place in machine:
            for bit, mask, _ in place.conditional:
                found[bit] = found.get(bit, 0) | mask
    return found


def _inputs_while_leaving(own_clock: int, places: tuple[Place, ...], signal_inputs: dict[int, int]) -> tuple[int, ...]:
    """Inputs read in a state, or in any state that can be passed at the instant at which it is left.

    The first arrow may be any; further ones at the same instant only those that wait for no time of the machine's own
    clock, which has just been reset (time on a named clock may already be up).
    """
    reads = [_inputs_read_in(place, signal_inputs) for place in places]
    onward = [[arrow.target for arrow in place.arrows if arrow.clock != own_clock] for place in places]
    result = []
    for state, place in enumerate(places):
        passed = {state, *(arrow.target for arrow in place.arrows)}
        waiting = list(passed)
        while waiting:
            new = [target for target in onward[waiting.pop()] if target not in passed]
            passed.update(new)
            waiting.extend(new)
        mask = 0
        for each in passed:
            mask |= reads[each]
        result.append(mask)
    return tuple(result)


def _inputs_read_in(place: Place, signal_inputs: dict[int, int]) -> int:
    mask = 0
    for _, needed, _ in place.conditional:
        mask |= needed
    for arrow in place.arrows:
        mask |= arrow.mask
        for bit, behind in signal_inputs.items():
            if arrow.signal_mask & bit:
                mask |= behind
    return mask
