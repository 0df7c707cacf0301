"""Why two boards part at the end of a counter-case: what each did last, and what it waits for."""

from dataclasses import dataclass

from twincore.behaviour.prove import CounterCase, Twin
from twincore.behaviour.simulate import Moved, last_moves
from twincore.profile import Board, Number, Value
from twincore.profile.behaviour import Transition


@dataclass(frozen=True, slots=True)
class Move:
    """A transition of a board: when, out of which state into which (by their titles), and the values of the functions on which it hangs."""

    at: Number
    left: str
    entered: str
    transition: Transition
    values: dict[str, Value]


@dataclass(frozen=True, slots=True)
class Because:
    """What a board does as the two part, after the last input change; the states (by their titles) in which it then is; and what it waits for."""

    board: Board
    does: tuple[Move, ...]
    states: tuple[str, ...]
    waits: tuple[Move, ...]


def why(twin: Twin, case: CounterCase) -> tuple[Because, Because]:
    """Why the boards of a twin show something different at the end of their counter-case."""
    scenario = case.scenario()
    unit = twin.unit(scenario)
    moves = [last_moves(side, side.changes.at_rest(twin.family.rest), scenario, unit) for side in twin.sides(unit)]
    return (
        _because(twin.original, twin.values[0], case.original_states, *moves[0]),
        _because(twin.replacement, twin.values[1], case.replacement_states, *moves[1]),
    )


def _because(
    board: Board, values: dict[str, Value], states: tuple[str, ...], does: list[Moved], waits: list[Moved]
) -> Because:
    behaviour = board.behaviour
    assert behaviour is not None  # a counter-case is of boards whose behaviour is known

    def told(moved: Moved) -> Move:
        there = behaviour.machines[moved.machine].states
        go = there[moved.state].go[moved.number]
        named = {name: values[name] for name in go.functions}
        return Move(moved.at, there[moved.state].title, there[go.to].title, go, named)

    titles = tuple(behaviour.state_titles(states))
    return Because(board, tuple(map(told, does)), titles, tuple(map(told, waits)))
