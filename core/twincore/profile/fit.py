"""Checks between documents: a board in its family, boards that share a settings layout."""

from collections.abc import Sequence

from twincore.errors import DocumentError, Fault
from twincore.profile.behaviour import Behaviour, reachable
from twincore.profile.board import Board
from twincore.profile.family import Family
from twincore.profile.faults import FaultList, known
from twincore.profile.function_def import FunctionDef
from twincore.profile.functions import FunctionMap, same_meaning
from twincore.profile.levels import Band
from twincore.profile.mattering import read_without_mattering
from twincore.profile.values import exact


def check_board_in_family(board: Board, family: Family) -> None:
    """Refuse a board whose names or values its family does not know. Raises DocumentError."""
    faults = FaultList()
    if board.family != family.id:
        faults.add("family", f'expected "{family.id}", found "{board.family}"')
    for name, function in board.functions.items():
        definition = family.function(name)
        if definition is None:
            faults.add(
                f"functions.{name}", f"expected a function of the family ({known(f.id for f in family.functions)})"
            )
        else:
            _check_values(board, function, definition, faults)
    signals = {each["id"] for each in family.document.get("signals", ())}
    for index, connector in enumerate(board.document.get("connectors", ()) if signals else ()):
        for pin_index, pin in enumerate(connector["pins"]):
            if pin.get("signal") is not None and pin["signal"] not in signals:
                faults.add(
                    f"connectors[{index}].pins[{pin_index}].signal",
                    f"expected a signal of the family ({known(sorted(signals))})",
                )
    for index, part in enumerate(board.document.get("kit", ()) if signals else ()):
        for place, name in enumerate(part.get("replaces", ())):
            if name not in signals:
                faults.add(
                    f"kit[{index}].replaces[{place}]", f"expected a signal of the family ({known(sorted(signals))})"
                )
    if board.behaviour:
        _check_behaviour(board, board.behaviour, family, faults)
    faults.done()


def _check_values(board: Board, function: FunctionMap, definition: FunctionDef, faults: FaultList) -> None:
    place = f"functions.{function.id}"
    if function.rows or not function.scope:
        values = [function.fixed] if not function.rows else [row.value for row in function.rows]
        for index, value in enumerate(values):
            if not definition.accepts(value):
                where = f"{place}.table[{index}].value" if function.rows else f"{place}.fixed"
                faults.add(where, f"expected {definition.wanted_value()}")
        return
    if definition.type == "flag":
        faults.add(f"{place}.from", 'expected "fixed" or "table", for a flag is not read from a point')
        return
    point = board.points[function.scope[0]]
    for position in point.domain:
        try:
            if definition.numeric and isinstance(position, str):
                exact(position)
        except ValueError:
            faults.add(f"{place}.from", f'expected a point whose positions read as numbers, found "{position}"')
            return
        if not definition.accepts(value := function.read(position, definition.numeric)):
            faults.add(
                f"{place}.from", f"expected {definition.wanted_value()} at every position, {position} gives {value}"
            )
            return


def _check_behaviour(board: Board, behaviour: Behaviour, family: Family, faults: FaultList) -> None:
    own = {*family.outputs, *behaviour.internal}
    for index, name in enumerate(behaviour.internal):
        if name in family.outputs or name in family.inputs:
            faults.add(f"behaviour.internal[{index}]", f'expected a name that no input or output has, found "{name}"')
    for index, clock in enumerate(behaviour.clocks):
        if clock.runs_while is not None and clock.runs_while not in own:
            faults.add(
                f"behaviour.clocks[{index}].runs_while",
                f'expected an output or internal signal ({known(sorted(own))}), found "{clock.runs_while}"',
            )
    for machine in behaviour.machines:
        for state in machine.states.values():
            place = behaviour.state_place(machine, state.id)
            for index, output in enumerate(state.on):
                if output.name not in own:
                    faults.add(
                        f"{place}.on[{index}]", f'expected an output ({known(sorted(own))}), found "{output.name}"'
                    )
                for name, wanted in output.conditions:
                    if name not in family.inputs:
                        faults.add(f"{place}.on[{index}].if.{name}", f"expected an input ({known(family.inputs)})")
                    _check_asked(name, wanted, family, f"{place}.on[{index}].if.{name}", faults)
                _check_when(output.when, f"{place}.on[{index}].when", family, faults)
            for index, go in enumerate(state.go):
                for name, wanted in go.conditions:
                    _check_asked(name, wanted, family, f"{place}.go[{index}].if.{name}", faults)
                    if name not in own and name not in family.inputs:
                        faults.add(
                            f"{place}.go[{index}].if.{name}",
                            f"expected an input ({known(family.inputs)}), output or internal signal",
                        )
                _check_when(go.when, f"{place}.go[{index}].when", family, faults)
    for name, place in behaviour.named_functions().items():
        definition = family.function(name)
        if definition is None:
            faults.add(
                place, f'expected a function of the family ({known(f.id for f in family.functions)}), found "{name}"'
            )
        elif name not in board.functions and definition.if_absent is None:
            faults.add(place, f'expected a function of this board, for the family says no "if_absent" for {name}')
        elif ".when." not in place and not definition.numeric:
            amount = "a number" if ".if." in place else "a number of seconds"
            faults.add(place, f'expected {amount} or a function with numbers, found "{name}"')


def _check_asked(name: str, wanted: bool | Band, family: Family, place: str, faults: FaultList) -> None:
    """A level is asked for by thresholds, everything else for being on or off."""
    if family.inputs.get(name) is None:
        if isinstance(wanted, Band):
            faults.add(place, "expected true or false, for this is no level")
    elif not isinstance(wanted, Band):
        faults.add(place, 'expected {"from": …} or {"below": …}, for this is a level')


def _check_when(when: Sequence[tuple[str, object]], place: str, family: Family, faults: FaultList) -> None:
    for name, value in when:
        definition = family.function(name)
        if definition is None:
            faults.add(
                f"{place}.{name}", f"expected a function of the family ({known(f.id for f in family.functions)})"
            )
        elif not definition.accepts(value):
            faults.add(f"{place}.{name}", f"expected {definition.wanted_value()}")


def check_layouts_agree(one: Board, other: Board) -> None:
    """Refuse two boards that claim one settings layout but mean different things by it. Raises DocumentError."""
    if one.settings_layout is None or one.settings_layout != other.settings_layout:
        return
    shape_one = [(each.id, each.kind, [point.domain for point in each.points]) for each in one.elements]
    shape_other = [(each.id, each.kind, [point.domain for point in each.points]) for each in other.elements]
    if sorted(shape_one, key=str) != sorted(shape_other, key=str):
        raise DocumentError(
            [
                Fault(
                    "settings",
                    f"expected the elements of {other.part_number}, for both have layout {one.settings_layout}",
                )
            ]
        )
    for name in sorted({*one.functions, *other.functions}):
        mine, theirs = one.functions.get(name), other.functions.get(name)
        if mine is None or theirs is None or not same_meaning(mine, theirs, one.points):
            raise DocumentError(
                [
                    Fault(
                        f"functions.{name}",
                        f"expected the meaning that {other.part_number} gives it, for both have layout {one.settings_layout}",
                    )
                ]
            )


def warnings_of(board: Board, family: Family | None = None) -> list[Fault]:
    """What is allowed but looks like a slip: states that no arrow leads to; and in its family, functions that are read where
    they do not matter.
    """
    if board.behaviour is None:
        return []
    unread = read_without_mattering(board, family) if family else []
    return unread + [
        Fault(board.behaviour.state_place(machine, name), "no arrow leads to this state")
        for machine in board.behaviour.machines
        for name in machine.states
        if name not in reachable(machine)
    ]
