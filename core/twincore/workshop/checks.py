"""Everything that is wrong with a draft, or looks so, with its place: worked out while somebody types."""

from twincore.behaviour import make_twin, prove
from twincore.errors import DocumentError, EndlessLoopError, Fault
from twincore.profile import (
    Board,
    Family,
    Scenario,
    Step,
    check_board_in_family,
    factory_record,
    parse_board,
    warnings_of,
)
from twincore.profile.behaviour import State, Transition
from twincore.profile.values import stands
from twincore.workshop.chart_checks import Finding, check_chart
from twincore.workshop.draft import Draft, document_bytes

LOOP_LIMIT = 2_000
"""Settled pairs after which the search for rounds without end stops while somebody types."""

CELLS = {
    "if": "expected inputs with on or off, such as: call on, limit_ok off",
    "when": "expected functions with a value, such as: restart manual; or a counter: n reaches 3",
    "on": "expected outputs, such as: fan, lamp if door off",
    "reset": "expected: reset a clock, clear a counter or add to one",
}


def findings(draft: Draft) -> list[Finding]:
    """Every finding, faults first. A draft without a fault can be published."""
    family, board, found = draft.kind(), None, []
    try:
        board = parse_board(document_bytes(draft.board))
        check_board_in_family(board, family)
    except DocumentError as error:
        found += [Finding(fault.place, _said(fault)) for fault in error.faults]
    wrong = bool(found)
    for index, chart in enumerate(draft.board.get("charts", ())):
        found += check_chart(index, chart, family, None if wrong else board)
    if board and not found:
        found += _behaviour(board, family)
    return sorted(dict.fromkeys(found), key=lambda each: each.weight != "fault")


def _said(fault: Fault) -> str:
    """A fault in the words of the tables: a cell that could not be read stands where the document has an object."""
    key = fault.place.rsplit(".", 1)[-1]
    return CELLS.get(key, fault.expected) if " found " in fault.expected and key in CELLS else fault.expected


def _behaviour(board: Board, family: Family) -> list[Finding]:
    if board.behaviour is None:
        return []
    found = [Finding(each.place, each.expected, "note") for each in warnings_of(board, family)]
    for machine in board.behaviour.machines:
        for state in machine.states.values():
            place = board.behaviour.state_place(machine, state.id)
            if not state.go and len(machine.states) > 1:
                found.append(Finding(place, "no arrow leads out of this state", "note"))
            found += [
                Finding(f"{place}.go[{second}]", f"never taken: arrow {first + 1} is taken first", "note")
                for first, second in _shadowed(state)
            ]
    return found + _rounds(board, family)


def _shadowed(state: State) -> list[tuple[int, int]]:
    """Arrows that are never taken, with the earlier one that always is before them."""
    found = []
    for second, later in enumerate(state.go):
        first = next((i for i in range(second) if _always_first(state.go[i], later)), None)
        if first is not None:
            found.append((first, second))
    return found


def _always_first(earlier: Transition, later: Transition) -> bool:
    """Whether an arrow is enabled whenever another one is."""
    counted = earlier.counter is None or (
        (earlier.counter, earlier.reached, earlier.below) == (later.counter, later.reached, later.below)
    )
    timed = earlier.after in (None, 0) or (earlier.after, earlier.clock) == (later.after, later.clock)
    return (
        counted and timed and set(earlier.conditions) <= set(later.conditions) and set(earlier.when) <= set(later.when)
    )


def _rounds(board: Board, family: Family) -> list[Finding]:
    """A way into a round without end, as the board leaves its maker."""
    record = factory_record(board)
    try:
        proof = prove(make_twin(board, record, board, record, family), LOOP_LIMIT)
    except EndlessLoopError as error:
        return [Finding("behaviour.states", f"goes round {' > '.join(error.states)} without end at rest")]
    return [
        Finding(
            "behaviour.states",
            f"goes round {' > '.join(each.states)} without end once {_way(each.steps)}",
            way=Scenario("", each.steps, each.at),
        )
        for each in proof.endless[:1]
    ]


def _way(steps: tuple[Step, ...]) -> str:
    changes = [f"{name} {stands(value)}" for step in steps for name, value in step.set]
    return ", ".join(changes) or "it has power"
