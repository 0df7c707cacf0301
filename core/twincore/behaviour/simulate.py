"""Simulate: what one board shows over a scenario."""

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction

from twincore.behaviour.changes import changes_of
from twincore.behaviour.compiling import behaviour_times, compile_side
from twincore.behaviour.functions import function_values, undecided
from twincore.behaviour.machine import MOST_TRANSITIONS, Arrow, Side, ring_of, time_unit
from twincore.errors import EndlessLoopError, LimitError, TwinError, UndecidedError
from twincore.profile import Board, Family, Number, Record, Scenario, Value
from twincore.profile.values import tidy

MOST_EVENTS = 40_000


@dataclass(frozen=True, slots=True)
class Shown:
    """What stands at the end of an instant (seconds): outputs on, and the state of each machine."""

    at: Number
    on: tuple[str, ...]
    states: tuple[str, ...]


def simulate(board: Board, record: Record, family: Family, scenario: Scenario) -> list[Shown]:
    """What a board shows at 0 s and at every instant at which its outputs change, to the scenario's end.

    Raises UndecidedError where positions leave a function open that the behaviour names, EndlessLoopError where the
    board never settles, LimitError beyond 40,000 events.
    """
    entries = run_board(board, record, family, scenario)
    return [entry for i, entry in enumerate(entries) if i == 0 or entry.on != entries[i - 1].on]


def run_board(board: Board, record: Record, family: Family, scenario: Scenario) -> list[Shown]:
    """As `simulate`, with an entry also where only a state changed."""
    if board.behaviour is None:
        raise TwinError(f"behaviour: expected a behaviour, but that of {board.part_number} is not known")
    decoded = function_values(board, record, family)
    if open_functions := undecided(board, decoded):
        raise UndecidedError(open_functions)
    return run_values(board, {name: each.values[0] for name, each in decoded.items() if each.decided}, family, scenario)


def run_values(board: Board, values: dict[str, Value], family: Family, scenario: Scenario) -> list[Shown]:
    """As `run_board`, with the values of its functions given."""
    assert board.behaviour is not None  # callers ask for boards whose behaviour is known
    times = [*behaviour_times(board.behaviour, values), scenario.until, *(step.at for step in scenario.steps)]
    unit = time_unit(times)
    changes = changes_of(family, [(board.behaviour, values)])
    return play(compile_side(board, values, family, unit, changes), changes.at_rest(family.rest), scenario, unit)


def play(side: Side, rest: int, scenario: Scenario, unit: int) -> list[Shown]:
    """Run a compiled board from rest; `unit` is the number of time units in a second and must fit the scenario."""
    entries: list[Shown] = []

    def note(run: _Run) -> None:
        shown = tuple(side.shown(run.signals()))
        states = tuple(side.names(run.states)) if run.powered else ()
        at = tidy(Fraction(run.now, unit))
        if entries and entries[-1].at == at:
            entries.pop()
        if not entries or (entries[-1].on, entries[-1].states) != (shown, states):
            entries.append(Shown(at, shown, states))

    run = _Run(side, rest)
    try:
        run.follow(scenario, unit, note)
    except EndlessLoopError as error:
        error.at, error.shown = tidy(Fraction(run.now, unit)), tuple(entries)
        raise
    return entries


@dataclass(frozen=True, slots=True)
class Moved:
    """A transition that a board took, or waits for: when (seconds), of which machine, from which state, and its place there."""

    at: Number
    machine: int
    state: str
    number: int


def last_moves(side: Side, rest: int, scenario: Scenario, unit: int) -> tuple[list[Moved], list[Moved]]:
    """What a board does at a scenario's end, after its last input change and no earlier; and what it waits for then."""
    run = _Run(side, rest)
    run.follow(scenario, unit, lambda _: None)
    end = (int(scenario.until * unit), run.changed)
    waits = sorted(
        (due, machine, run.states[machine], arrow.number)
        for machine, arrow in (side.ready(run.states, run.inputs, run.counters) if run.powered else ())
        if (due := run.due(arrow)) is not None
    )

    def told(at: int, machine: int, state: int, number: int) -> Moved:
        return Moved(tidy(Fraction(at, unit)), machine, side.machines[machine][state].name, number)

    return [told(at[0], *move) for at, move in run.moves if at == end], [told(*each) for each in waits]


class _Run:
    """One board at one instant, with exact whole-number times."""

    def __init__(self, side: Side, rest: int) -> None:
        self.side, self.inputs, self.now, self.events = side, rest, 0, 0
        self.changed = 0
        """How many input changes there were."""
        self.moves: list[tuple[tuple[int, int], tuple[int, int, int]]] = []
        """Everything that was done: (now, input changes before), (machine, state, place of the transition there)."""
        self.power = side.changes.power
        self.states = side.starts
        self.counters = (0,) * len(side.counters)
        self.since: list[int | None] = [0] * len(side.machines)
        self.since += [None if expired else 0 for expired, _ in side.named_clocks]
        self.stands: dict[int, int] = {}
        """Clocks that stand still, and how long they ran."""

    @property
    def powered(self) -> bool:
        return not self.power or bool(self.inputs & self.power)

    def signals(self) -> int:
        return self.side.signals(self.states, self.inputs) if self.powered else 0

    def follow(self, scenario: Scenario, unit: int, note: Callable[["_Run"], None]) -> None:
        """Everything that a scenario makes it do from rest on."""
        self.settle()
        note(self)
        for step in scenario.steps:
            self.wait(int(step.at * unit), note)
            for name, value in step.set:
                self.set(name, value)
            note(self)
        self.wait(int(scenario.until * unit), note)

    def set(self, name: str, value: bool | Number) -> None:
        """Change an input; a level passes one threshold after another, and the board settles at each."""
        if name not in self.side.changes.levels:
            self.change(self.side.changes.flag(name), bool(value))
            return
        for bit, on in self.side.changes.passed(name, value, self.inputs):
            self.change(bit, on)

    def change(self, bit: int, value: bool) -> None:
        if bool(self.inputs & bit) == value:
            return
        self.inputs ^= bit
        self.changed += 1
        if bit == self.power:
            self._lose_power() if not value else self._restart_clocks()
        self.settle()

    def _lose_power(self) -> None:
        self.states, self.counters = self.side.without_power(self.states, self.counters)

    def _restart_clocks(self) -> None:
        first = len(self.side.machines)
        for slot in range(first):
            self.since[slot] = self.now
        for index, (expired, keeps_running) in enumerate(self.side.named_clocks):
            if not keeps_running:
                self._start(first + index, None if expired else self.now)

    def settle(self) -> None:
        taken: list[str] = []
        while self.powered and (step := self._next_arrow()):
            machine, arrow = step
            if len(taken) >= MOST_TRANSITIONS:
                inputs = self.side.changes.named(self.inputs)
                raise EndlessLoopError(self.side.part_number, ring_of(taken), inputs)
            self.moves.append(((self.now, self.changed), (machine, self.states[machine], arrow.number)))
            self.states = (*self.states[:machine], arrow.target, *self.states[machine + 1 :])
            self.counters = self.side.count(self.counters, arrow)
            for slot in (machine, *arrow.resets):
                self._start(slot, self.now)
            taken.append(self.side.machines[machine][arrow.target].name)
        self._run_or_stand()

    def _start(self, slot: int, since: int | None) -> None:
        """Set a clock to what it starts at."""
        self.since[slot] = since
        self.stands.pop(slot, None)

    def _run_or_stand(self) -> None:
        """Have stopwatches go on or stop, by the signals as they stand after settling."""
        signals = self.signals() if self.side.watches else 0
        for slot, bit in self.side.watches:
            since = self.since[slot]
            if since is None:
                continue
            if signals & bit and slot in self.stands:
                self.since[slot] = self.now - self.stands.pop(slot)
            elif not signals & bit and slot not in self.stands:
                self.stands[slot] = self.now - since

    def _next_arrow(self) -> tuple[int, Arrow] | None:
        for machine, arrow in self.side.ready(self.states, self.inputs, self.counters):
            if arrow.clock < 0 or self._age_reached(arrow.clock, arrow.after):
                return machine, arrow
        return None

    def _age_reached(self, slot: int, after: int) -> bool:
        since = self.since[slot]
        return since is None or self.stands.get(slot, self.now - since) >= after

    def due(self, arrow: Arrow) -> int | None:
        """When the time of an arrow is up if nothing else happens; None where it waits for none, or its clock stands."""
        since = self.since[arrow.clock] if arrow.clock >= 0 else None
        return None if since is None or arrow.clock in self.stands else since + arrow.after

    def wait(self, until: int, note: Callable[["_Run"], None]) -> None:
        while (due := self._next_due()) is not None and due <= until:
            self.events += 1
            if self.events > MOST_EVENTS:
                raise LimitError(f"until: expected a scenario in which the board has at most {MOST_EVENTS:,} events")
            self.now = due
            self.settle()
            note(self)
        self.now = until

    def _next_due(self) -> int | None:
        if not self.powered:
            return None
        ready = self.side.ready(self.states, self.inputs, self.counters)
        return min((due for _, arrow in ready if (due := self.due(arrow)) is not None), default=None)
