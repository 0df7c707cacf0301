"""Compile a board with its settings decided to the small integers that every search and the simulator run on."""

from dataclasses import dataclass

from twincore.behaviour.changes import Changes
from twincore.behaviour.machine import Arrow, Place, Side
from twincore.profile import Board, Family, Number, Value
from twincore.profile.behaviour import Behaviour, Machine, Output, Transition
from twincore.profile.levels import Condition


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
        watches=tuple(
            (context.clocks[clock.id], signal_bits[clock.runs_while]) for clock in behaviour.clocks if clock.runs_while
        ),
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
            _compile_arrow(go, number, read, index, own_clock, context)
            for number, go in enumerate(state.go)
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
    go: Transition, number: int, read: tuple[int, int], index: dict[str, int], own_clock: int, context: _Context
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
        number=number,
    )


def _amount(amount: Number | str | None, values: dict[str, Value]) -> Number:
    found = values[amount] if isinstance(amount, str) else amount
    assert found is not None and not isinstance(found, str)  # checked when the board was fitted into its family
    return found
