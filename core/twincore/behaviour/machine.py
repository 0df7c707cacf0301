"""A board with its settings decided, compiled to small integers: what every search and the simulator run on."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from math import lcm

from twincore.behaviour.changes import Changes
from twincore.profile import Board, Family, Number, Value
from twincore.profile.behaviour import Behaviour, Machine, Output, Transition
from twincore.profile.levels import Condition

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


def ring_of(names: Sequence[str]) -> tuple[str, ...]:
    """The states that come round and round at the end of a series of them; the last few where none do."""
    for length in range(1, len(names) // 2 + 1):
        if names[-length:] == names[-2 * length : -length]:
            return tuple(names[-length:])
    return tuple(names[-6:])


def time_unit(times: list[Number]) -> int:
    """The number of units in a second, so that every time is a whole number of them."""
    return lcm(1, *(Fraction(time).denominator for time in times))


def behaviour_times(behaviour: Behaviour, values: dict[str, Value]) -> list[Number]:
    """Every time (seconds) that a behaviour waits for."""
    return [
        _amount(arrow.after, values)
        for machine in behaviour.machines
        for state in machine.states.values()
        for arrow in state.go
        if arrow.after is not None
    ]


def compile_side(board: Board, values: dict[str, Value], family: Family, unit: int, changes: Changes) -> Side:
    """Compile a board whose functions have these values; `unit` is the number of time units in a second."""
    behaviour = board.behaviour
    assert behaviour is not None  # asked for by callers before they compile
    signal_bits = {name: 1 << index for index, name in enumerate((*family.outputs, *behaviour.internal))}
    context = _Context(
        changes=changes,
        signal_bits=signal_bits,
        clocks={clock.id: len(behaviour.machines) + index for index, clock in enumerate(behaviour.clocks)},
        counters={counter.id: index for index, counter in enumerate(behaviour.counters)},
        values=values,
        unit=unit,
    )
    machines = tuple(_compile_machine(machine, index, context) for index, machine in enumerate(behaviour.machines))
    caps = [0] * len(behaviour.counters)
    for machine in machines:
        for place in machine:
            for arrow in place.arrows:
                if arrow.counter >= 0:
                    caps[arrow.counter] = max(caps[arrow.counter], arrow.threshold)
    indices = [{name: index for index, name in enumerate(machine.states)} for machine in behaviour.machines]
    return Side(
        part_number=board.part_number,
        machines=machines,
        starts=tuple(index[machine.start] for index, machine in zip(indices, behaviour.machines, strict=True)),
        survives=tuple(
            frozenset(index[name] for name in machine.survive)
            for index, machine in zip(indices, behaviour.machines, strict=True)
        ),
        named_clocks=tuple((clock.starts_expired, clock.runs_without_power) for clock in behaviour.clocks),
        counters=tuple(counter.survives_power_loss for counter in behaviour.counters),
        caps=tuple(caps),
        compared=sum(signal_bits[name] for name in family.compared),
        outputs=tuple((signal_bits[name], name) for name in family.outputs),
        internal=behaviour.internal,
        changes=changes,
    )


@dataclass(frozen=True, slots=True)
class _Context:
    changes: Changes
    signal_bits: dict[str, int]
    clocks: dict[str, int]
    counters: dict[str, int]
    values: dict[str, Value]
    unit: int

    def holds(self, when: tuple[tuple[str, Value], ...]) -> bool:
        return all(self.values[name] == value for name, value in when)

    def of_inputs(self, conditions: tuple[Condition, ...]) -> tuple[int, int] | None:
        return self.changes.read(conditions, self.values)

    def of_signals(self, conditions: tuple[Condition, ...]) -> tuple[int, int]:
        mask = value = 0
        for name, wanted in conditions:
            if name in self.signal_bits:
                mask |= self.signal_bits[name]
                value |= self.signal_bits[name] if wanted else 0
        return mask, value


def _compile_machine(machine: Machine, own_clock: int, context: _Context) -> tuple[Place, ...]:
    index = {name: number for number, name in enumerate(machine.states)}
    places = []
    for state in machine.states.values():
        steady, conditional = _compile_outputs(state.on, context)
        arrows = [
            _compile_arrow(go, read, index, own_clock, context)
            for go in state.go
            if context.holds(go.when) and (read := context.of_inputs(go.conditions)) is not None
        ]
        taken = tuple(arrow for place, arrow in enumerate(arrows) if not _never_taken(arrow, place, arrows, own_clock))
        places.append(Place(state.id, steady, conditional, taken))
    return tuple(places)


def _never_taken(arrow: Arrow, place: int, arrows: list[Arrow], own_clock: int) -> bool:
    """Whether another arrow always comes first: listed earlier and enabled whenever this one is, or sooner in any case."""
    for other_place, other in enumerate(arrows):
        if other.counter >= 0 or other.signal_mask or other is arrow:
            continue
        wider = arrow.mask & other.mask == other.mask and arrow.value & other.mask == other.value
        sooner = other.clock < 0 or (other.clock == arrow.clock and other.after <= arrow.after)
        if other_place < place and wider and sooner:
            return True
        if not other.mask and other.clock == arrow.clock == own_clock and other.after < arrow.after:
            return True
    return False


def _compile_outputs(outputs: tuple[Output, ...], context: _Context) -> tuple[int, tuple[tuple[int, int, int], ...]]:
    steady, conditional = 0, []
    for output in outputs:
        if not context.holds(output.when):
            continue
        bit = context.signal_bits[output.name]
        read = context.of_inputs(output.conditions)
        if read is None:
            continue
        mask, value = read
        if mask:
            conditional.append((bit, mask, value))
        else:
            steady |= bit
    return steady, tuple(conditional)


def _compile_arrow(
    go: Transition, read: tuple[int, int], index: dict[str, int], own_clock: int, context: _Context
) -> Arrow:
    mask, value = read
    signal_mask, signal_value = context.of_signals(go.conditions)
    after = 0 if go.after is None else int(_amount(go.after, context.values) * context.unit)
    clock = own_clock if go.clock is None else context.clocks[go.clock]
    limit = go.reached if go.reached is not None else go.below
    threshold = 0 if limit is None else _amount(limit, context.values)
    return Arrow(
        target=index[go.to],
        mask=mask,
        value=value,
        signal_mask=signal_mask,
        signal_value=signal_value,
        after=after,
        clock=clock if after > 0 else -1,
        counter=-1 if go.counter is None else context.counters[go.counter],
        threshold=-int(-threshold // 1),
        reached=go.reached is not None,
        resets=tuple(context.clocks[name] for name in go.reset),
        clears=tuple(context.counters[name] for name in go.clear),
        adds=tuple(context.counters[name] for name in go.add),
    )


def _amount(amount: Number | str | None, values: dict[str, Value]) -> Number:
    found = values[amount] if isinstance(amount, str) else amount
    assert found is not None and not isinstance(found, str)  # checked when the board was fitted into its family
    return found
