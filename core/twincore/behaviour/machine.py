"""A compiled board: states, arrows and signals as small integers, and what it shows and can do next."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from fractions import Fraction
from math import lcm

from twincore.behaviour.changes import Changes
from twincore.profile import Number

MOST_TRANSITIONS = 32
"""Transitions in one settling beyond which a board counts as never settling (fixed by the format)."""

EXPIRED, DEAD, NOW = -1, -2, -3
"""What stands for a clock that is past every threshold, is never read again, or was reset at this very instant."""


@dataclass(frozen=True, slots=True)
class Arrow:
    """A transition: input conditions as a mask, signal conditions likewise; times in units."""

    target: int
    mask: int
    value: int
    signal_mask: int
    signal_value: int
    after: int
    """Units that the clock must have reached; 0 where there is no time condition."""
    clock: int
    """Slot of the clock, -1 where there is no time condition."""
    counter: int
    """Index of the counter compared, -1 for none."""
    threshold: int
    reached: bool
    resets: tuple[int, ...]
    clears: tuple[int, ...]
    adds: tuple[int, ...]
    number: int
    """Its place among the transitions of its state as the profile lists them."""


@dataclass(frozen=True, slots=True)
class Place:
    """A state: signals that are on anyway, signals on under input conditions, and the arrows in order."""

    name: str
    steady: int
    conditional: tuple[tuple[int, int, int], ...]
    arrows: tuple[Arrow, ...]


@dataclass(slots=True)
class Side:
    """One compiled board. Clock slots: one a machine for its state clock, then the named clocks."""

    part_number: str
    machines: tuple[tuple[Place, ...], ...]
    starts: tuple[int, ...]
    survives: tuple[frozenset[int], ...]
    named_clocks: tuple[tuple[bool, bool], ...]
    """(starts expired, runs without power) for each named clock."""
    watches: tuple[tuple[int, int], ...]
    """(clock slot, signal) of the clocks that run only while a signal is on: stopwatches, of running time."""
    counters: tuple[bool, ...]
    """Whether each counter survives a power loss."""
    caps: tuple[int, ...]
    compared: int
    outputs: tuple[tuple[int, str], ...]
    """(bit, name) of every output in the family's order."""
    internal: tuple[str, ...]
    changes: Changes
    _signals: dict[tuple[tuple[int, ...], int], int] = field(default_factory=dict)
    _ready: dict[tuple[tuple[int, ...], int, tuple[int, ...]], tuple[tuple[int, Arrow], ...]] = field(
        default_factory=dict
    )

    def signals(self, states: tuple[int, ...], inputs: int) -> int:
        """The outputs and internal signals that are on, as bits, while powered."""
        key = (states, inputs)
        found = self._signals.get(key)
        if found is None:
            found = 0
            for machine, state in zip(self.machines, states, strict=True):
                place = machine[state]
                found |= place.steady
                for bit, mask, value in place.conditional:
                    if inputs & mask == value:
                        found |= bit
            self._signals[key] = found
        return found

    def ready(self, states: tuple[int, ...], inputs: int, counters: tuple[int, ...]) -> tuple[tuple[int, Arrow], ...]:
        """Arrows whose conditions other than time hold, with their machine, in the order in which they are looked at.

        Nothing is listed after the first one that needs no time.
        """
        key = (states, inputs, counters)
        found = self._ready.get(key)
        if found is None:
            found = self._ready[key] = tuple(self._list_ready(states, inputs, counters))
        return found

    def _list_ready(self, states: tuple[int, ...], inputs: int, counters: tuple[int, ...]) -> list[tuple[int, Arrow]]:
        signals = self.signals(states, inputs)
        found: list[tuple[int, Arrow]] = []
        for index, state in enumerate(states):
            for arrow in self.machines[index][state].arrows:
                if inputs & arrow.mask != arrow.value or signals & arrow.signal_mask != arrow.signal_value:
                    continue
                if arrow.counter >= 0 and (counters[arrow.counter] >= arrow.threshold) != arrow.reached:
                    continue
                found.append((index, arrow))
                if arrow.clock < 0:
                    return found
        return found

    def shown(self, signals: int) -> list[str]:
        """The names of the outputs that are on."""
        return [name for bit, name in self.outputs if signals & bit]

    def names(self, states: tuple[int, ...]) -> list[str]:
        """The names of the machines' states."""
        return [machine[state].name for machine, state in zip(self.machines, states, strict=True)]

    def count(self, counters: tuple[int, ...], arrow: Arrow) -> tuple[int, ...]:
        """The counters after an arrow; values past every threshold are not told apart."""
        if not (arrow.clears or arrow.adds):
            return counters
        changed = list(counters)
        for index in arrow.clears:
            changed[index] = 0
        for index in arrow.adds:
            changed[index] = min(changed[index] + 1, self.caps[index])
        return tuple(changed)

    def clocks_at_power_on(self, before: Sequence[int] | None = None) -> list[int]:
        """Clock slots just after power comes on; those that ran without it stand as `before`."""
        clocks = [NOW] * len(self.machines)
        for slot, (expired, keeps_running) in enumerate(self.named_clocks, len(self.machines)):
            clocks.append(before[slot] if keeps_running and before is not None else EXPIRED if expired else NOW)
        return clocks

    def clocks_without_power(self, before: Sequence[int]) -> list[int]:
        """Clock slots while the power is off: only those that run without it matter."""
        keeps = [False] * len(self.machines) + [keeps_running for _, keeps_running in self.named_clocks]
        return [clock if kept else DEAD for clock, kept in zip(before, keeps, strict=True)]

    def without_power(
        self, states: tuple[int, ...], counters: tuple[int, ...]
    ) -> tuple[tuple[int, ...], tuple[int, ...]]:
        """States and counters just after the power is lost."""
        kept = tuple(
            state if state in survives else start
            for state, survives, start in zip(states, self.survives, self.starts, strict=True)
        )
        return kept, tuple(n if survives else 0 for n, survives in zip(counters, self.counters, strict=True))


def without_laps(side: Side) -> Side:
    """The same board without arrows that only start a state's own clock anew which nothing else there reads."""
    machines = tuple(
        tuple(_without_laps(place, state, index) for state, place in enumerate(places))
        for index, places in enumerate(side.machines)
    )
    return replace(side, machines=machines, _signals={}, _ready={})


def _without_laps(place: Place, state: int, own_clock: int) -> Place:
    timed = [arrow for arrow in place.arrows if arrow.clock == own_clock]
    if any(arrow.target != state or arrow.resets or arrow.clears or arrow.adds for arrow in timed):
        return place
    return replace(place, arrows=tuple(arrow for arrow in place.arrows if arrow.clock != own_clock))


def rule(arrow: Arrow) -> tuple[object, ...]:
    """What an arrow asks for and does, without its time and its target."""
    return (
        arrow.mask, arrow.value, arrow.signal_mask, arrow.signal_value, arrow.clock, arrow.counter,
        arrow.threshold, arrow.reached, arrow.resets, arrow.clears, arrow.adds,
    )  # fmt: skip


def ring_of(names: Sequence[str]) -> tuple[str, ...]:
    """The states that come round and round at the end of a series of them; the last few where none do."""
    for length in range(1, len(names) // 2 + 1):
        if names[-length:] == names[-2 * length : -length]:
            return tuple(names[-length:])
    return tuple(names[-6:])


def time_unit(times: list[Number]) -> int:
    """The number of units in a second, so that every time is a whole number of them."""
    return lcm(1, *(Fraction(time).denominator for time in times))
