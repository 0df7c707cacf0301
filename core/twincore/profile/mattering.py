"""Where a behaviour reads a function that does not matter there: allowed, but it looks like a slip."""

from collections.abc import Callable, Iterator

from twincore.errors import Fault
from twincore.profile.behaviour import Behaviour, Machine, Output, Transition
from twincore.profile.board import Board
from twincore.profile.family import Family
from twincore.profile.values import Value, same

When = tuple[tuple[str, Value], ...]


def read_without_mattering(board: Board, family: Family) -> list[Fault]:
    """Where a behaviour reads a function in a state that can be reached with settings by which the function does not matter."""
    found: dict[str, Fault] = {}
    for function in family.functions if board.behaviour else ():
        for name, values in function.matters_if:
            for other in _values_on(board, family, name):
                if any(same(other, value) for value in values):
                    continue
                told = str(other).lower() if isinstance(other, bool) else other
                for place in _reads(board.behaviour, function.id, name, other):
                    words = f"{function.id} is read here, though with {name} = {told} it does not matter"
                    found.setdefault(place, Fault(place, words))
    return list(found.values())


def _values_on(board: Board, family: Family, name: str) -> list[Value]:
    """The values that a function can have on a board."""
    definition, function = family.function(name), board.functions.get(name)
    assert definition is not None  # checked when the family was loaded
    if function is None:
        return [] if definition.if_absent is None else [definition.if_absent]
    if function.rows:
        return list(dict.fromkeys(row.value for row in function.rows))
    if function.scope:
        return [function.read(position, definition.numeric) for position in board.points[function.scope[0]].domain]
    return [] if function.fixed is None else [function.fixed]


def _reads(behaviour: Behaviour | None, name: str, other: str, value: Value) -> Iterator[str]:
    """The places that name a function, in states that can be reached while another function has this value."""

    def may_hold(when: When) -> bool:
        return all(each != other or same(wanted, value) for each, wanted in when)

    for machine in behaviour.machines if behaviour else ():
        for state in _reached(machine, may_hold):
            place = behaviour.state_place(machine, state) if behaviour else ""
            guards: list[tuple[str, Transition | Output]] = [
                *((f"{place}.go[{index}]", go) for index, go in enumerate(machine.states[state].go)),
                *((f"{place}.on[{index}]", output) for index, output in enumerate(machine.states[state].on)),
            ]
            yield from (where for where, guard in guards if name in guard.functions and may_hold(guard.when))


def _reached(machine: Machine, may_hold: Callable[[When], bool]) -> list[str]:
    found = [machine.start]
    for name in found:
        found += [go.to for go in machine.states[name].go if may_hold(go.when) and go.to not in found]
    return found
