"""Behaviour: a board as one or several timed machines, as its document writes it."""

from dataclasses import dataclass
from typing import Any

from twincore.profile.faults import FaultList, known
from twincore.profile.levels import Band, Condition, build_conditions
from twincore.profile.values import Number, Value


@dataclass(frozen=True, slots=True)
class Transition:
    """A way out of a state; times in seconds, or the id of a function that gives them."""

    to: str
    conditions: tuple[Condition, ...]
    when: tuple[tuple[str, Value], ...]
    after: Number | str | None
    clock: str | None
    counter: str | None
    reached: Number | str | None
    below: Number | str | None
    reset: tuple[str, ...]
    clear: tuple[str, ...]
    add: tuple[str, ...]

    @property
    def functions(self) -> tuple[str, ...]:
        """The functions on which it hangs: of its time, its count, what must be so, and its thresholds."""
        amounts = [each for each in (self.after, self.reached, self.below) if isinstance(each, str)]
        return tuple(dict.fromkeys([*amounts, *_functions_asked(self.conditions, self.when)]))

    @property
    def unconditional(self) -> bool:
        """Whether it is taken at once whatever the inputs, settings and counters."""
        return not (self.conditions or self.when or self.counter) and self.after in (None, 0)


@dataclass(frozen=True, slots=True)
class Output:
    """An output or internal signal of a state, on while inputs and functions are so."""

    name: str
    conditions: tuple[Condition, ...]
    when: tuple[tuple[str, Value], ...]

    @property
    def functions(self) -> tuple[str, ...]:
        """The functions on which it hangs: of what must be so, and its thresholds."""
        return tuple(_functions_asked(self.conditions, self.when))


def _functions_asked(conditions: tuple[Condition, ...], when: tuple[tuple[str, Value], ...]) -> dict[str, None]:
    """The functions that the conditions of a guard name."""
    limits = [limit for _, wanted in conditions if isinstance(wanted, Band) for limit in wanted.limits.values()]
    return dict.fromkeys([*(name for name, _ in when), *(limit.function for limit in limits if limit.function)])


@dataclass(frozen=True, slots=True)
class State:
    """What is on in a state, and the ways out in the order in which they are looked at."""

    id: str
    title: str
    on: tuple[Output, ...]
    go: tuple[Transition, ...]


@dataclass(frozen=True, slots=True)
class Machine:
    """One state machine of a board."""

    id: str
    start: str
    survive: frozenset[str]
    states: dict[str, State]


@dataclass(frozen=True, slots=True)
class Clock:
    """A named clock of a board."""

    id: str
    starts_expired: bool
    runs_without_power: bool
    runs_while: str | None = None
    """The output or internal signal while which it runs, as long as there is power; otherwise it stands. None: it runs always."""


@dataclass(frozen=True, slots=True)
class Counter:
    """A counter of a board."""

    id: str
    survives_power_loss: bool


@dataclass(frozen=True, slots=True)
class Behaviour:
    """The machines of a board in the order in which they are looked at, and what they share."""

    machines: tuple[Machine, ...]
    clocks: tuple[Clock, ...]
    counters: tuple[Counter, ...]
    internal: tuple[str, ...]
    single: bool

    def state_place(self, machine: Machine, state: str) -> str:
        """Where a state stands in the document."""
        if self.single:
            return f"behaviour.states.{state}"
        return f"behaviour.machines[{self.machines.index(machine)}].states.{state}"

    def state_titles(self, names: tuple[str, ...]) -> list[str]:
        """The titles of the machines' states, given one name a machine in their order."""
        return [machine.states[name].title for machine, name in zip(self.machines, names, strict=False)]

    def titles_of(self, names: tuple[str, ...]) -> list[str]:
        """The titles of states that are passed one after the other: of one machine where one has them all, else of several."""
        one = [machine for machine in self.machines if set(names) <= machine.states.keys()]
        titles = {name: state.title for m in one[:1] or self.machines for name, state in m.states.items()}
        return [titles[name] for name in names]

    def named_functions(self) -> dict[str, str]:
        """Every function that an `after`, `count`, `when` or threshold names, with the first place that names it."""
        found: dict[str, str] = {}

        def of_bands(conditions: tuple[Condition, ...], place: str) -> None:
            for name, wanted in conditions:
                for key, limit in wanted.limits.items() if isinstance(wanted, Band) else ():
                    if limit.function:
                        found.setdefault(limit.function, f"{place}.if.{name}.{key}")

        for machine in self.machines:
            for state in machine.states.values():
                place = self.state_place(machine, state.id)
                for index, output in enumerate(state.on):
                    of_bands(output.conditions, f"{place}.on[{index}]")
                    for name, _ in output.when:
                        found.setdefault(name, f"{place}.on[{index}].when.{name}")
                for index, go in enumerate(state.go):
                    of_bands(go.conditions, f"{place}.go[{index}]")
                    for name, _ in go.when:
                        found.setdefault(name, f"{place}.go[{index}].when.{name}")
                    for key, amount in (("after", go.after), ("count.reached", go.reached), ("count.below", go.below)):
                        if isinstance(amount, str):
                            found.setdefault(amount, f"{place}.go[{index}].{key}")
        return found


def build_behaviour(node: dict[str, Any], place: str, faults: FaultList) -> Behaviour:
    """A behaviour from a part of a board whose structure was checked; names inside the board are checked here."""
    single = "machines" not in node
    clocks = tuple(
        Clock(
            each["id"], each.get("starts") == "expired", each.get("runs_without_power", False), each.get("runs_while")
        )
        for each in node.get("clocks", ())
    )
    counters = tuple(Counter(each["id"], each.get("survives_power_loss", False)) for each in node.get("counters", ()))
    nodes = [node] if single else node["machines"]
    machines = tuple(_machine(each, f"m{index}") for index, each in enumerate(nodes))
    behaviour = Behaviour(machines, clocks, counters, tuple(node.get("internal", ())), single)
    faults.unique([clock.id for clock in clocks], f"{place}.clocks[{{}}].id", "name")
    faults.unique([counter.id for counter in counters], f"{place}.counters[{{}}].id", "name")
    faults.unique([machine.id for machine in machines], f"{place}.machines[{{}}].id", "name")
    faults.unique(list(behaviour.internal), f"{place}.internal[{{}}]", "name")
    for index, machine in enumerate(machines):
        _check_machine(behaviour, machine, place if single else f"{place}.machines[{index}]", faults)
    return behaviour


def _machine(node: dict[str, Any], fallback: str) -> Machine:
    states = {
        name: State(
            name,
            state.get("title", name),
            tuple(_output(each) for each in state.get("on", ())),
            tuple(_transition(each) for each in state.get("go", ())),
        )
        for name, state in node["states"].items()
    }
    return Machine(node.get("id", fallback), node["start"], frozenset(node.get("survive_power_loss", ())), states)


def _output(node: str | dict[str, Any]) -> Output:
    if isinstance(node, str):
        return Output(node, (), ())
    return Output(node["output"], build_conditions(node.get("if", {})), tuple(node.get("when", {}).items()))


def _transition(node: dict[str, Any]) -> Transition:
    count = node.get("count", {})
    return Transition(
        to=node["to"],
        conditions=build_conditions(node.get("if", {})),
        when=tuple(node.get("when", {}).items()),
        after=node.get("after"),
        clock=node.get("clock"),
        counter=count.get("counter"),
        reached=count.get("reached"),
        below=count.get("below"),
        reset=tuple(node.get("reset", ())),
        clear=tuple(node.get("clear", ())),
        add=tuple(node.get("add", ())),
    )


def _check_machine(behaviour: Behaviour, machine: Machine, place: str, faults: FaultList) -> None:
    states = machine.states
    if machine.start not in states:
        faults.add(f"{place}.start", f"expected a state ({known(states)})")
    for name in sorted(machine.survive - set(states)):
        faults.add(f"{place}.survive_power_loss", f'expected states ({known(states)}), found "{name}"')
    for state in states.values():
        for index, go in enumerate(state.go):
            _check_transition(behaviour, states, go, f"{place}.states.{state.id}.go[{index}]", faults)
    if looping := _always_looping(machine):
        faults.add(f"{place}.states.{looping}.go", "expected a state that settles, but it goes round without end")


def _check_transition(
    behaviour: Behaviour, states: dict[str, State], go: Transition, place: str, faults: FaultList
) -> None:
    clocks = [clock.id for clock in behaviour.clocks]
    counters = [counter.id for counter in behaviour.counters]
    if go.to not in states:
        faults.add(f"{place}.to", f'expected a state ({known(states)}), found "{go.to}"')
    if go.clock is not None and go.clock not in clocks:
        faults.add(f"{place}.clock", f'expected a clock of this board ({known(clocks)}), found "{go.clock}"')
    if go.clock is not None and go.after is None:
        faults.add(f"{place}.clock", 'expected "after" beside "clock"')
    for name in go.reset:
        if name not in clocks:
            faults.add(f"{place}.reset", f'expected clocks of this board ({known(clocks)}), found "{name}"')
    used = [*go.clear, *go.add, *([go.counter] if go.counter is not None else [])]
    for name in used:
        if name not in counters:
            faults.add(f"{place}.count", f'expected counters of this board ({known(counters)}), found "{name}"')
    for name in set(go.clear) & set(go.add):
        faults.add(f"{place}.add", f'expected "{name}" to be cleared or added to, not both')
    if go.counter is not None and (go.reached is None) == (go.below is None):
        faults.add(f"{place}.count", 'expected either "reached" or "below"')


def _always_looping(machine: Machine) -> str | None:
    """A reachable state out of which no setting and no input leads, though it never settles; None if there is none."""
    looping: dict[str, set[str]] = {}
    for state in machine.states.values():
        targets: set[str] = set()
        for go in state.go:
            targets.add(go.to)
            if go.unconditional:
                looping[state.id] = targets
                break
    while out := [name for name, targets in looping.items() if not targets <= looping.keys()]:
        for name in out:
            del looping[name]
    return next((name for name in reachable(machine) if name in looping), None)


def reachable(machine: Machine) -> list[str]:
    """The states that can be reached from the start by the arrows alone, in order of finding."""
    found = [machine.start] if machine.start in machine.states else []
    for name in found:
        found.extend(
            dict.fromkeys(go.to for go in machine.states[name].go if go.to in machine.states and go.to not in found)
        )
    return found
