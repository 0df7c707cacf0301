"""Decode: what each function of a board stands at, from the positions of its elements."""

from dataclasses import dataclass
from math import prod

from twincore.profile import Board, Family, FunctionDef, FunctionMap, Record, Value


@dataclass(frozen=True, slots=True)
class Decoded:
    """The values that a function may have; `reserved` when positions that mean nothing are possible too."""

    values: tuple[Value, ...]
    reserved: bool = False

    @property
    def decided(self) -> bool:
        """Whether exactly one value is possible."""
        return len(self.values) == 1 and not self.reserved

    def answer(self) -> dict[str, object]:
        """As the command line writes it: value, one_of or reserved."""
        if self.decided:
            return {"value": self.values[0]}
        return {"one_of": list(self.values)} if self.values else {"reserved": True}


def decode(board: Board, record: Record, family: Family) -> dict[str, Decoded]:
    """The possible values of every function of a board, in the family's order.

    Unreadable points may stand anywhere in their domain; reserved combinations give no value.
    """
    return {
        definition.id: decode_function(board.functions[definition.id], board, record, definition)
        for definition in family.functions
        if definition.id in board.functions
    }


def decode_function(function: FunctionMap, board: Board, record: Record, definition: FunctionDef) -> Decoded:
    """The possible values of one function."""
    if not function.scope and not function.rows:
        assert function.fixed is not None  # a map without scope or rows is fixed
        return Decoded((function.fixed,))
    if not function.rows:
        positions = record.possible(board, function.scope[0])
        return Decoded(_ordered({function.read(position, definition.numeric) for position in positions}, definition))
    possible = {point: set(record.possible(board, point)) for point in function.scope}
    total = prod(len(values) for values in possible.values())
    covered, found = 0, set()
    for row in function.rows:
        if all(value in possible[point] for point, value in row.when.items()):
            # rows never hold together, so the combinations that they cover add up
            covered += prod(len(values) for point, values in possible.items() if point not in row.when)
            found.add(row.value)
    return Decoded(_ordered(found, definition), covered < total)


def _ordered(values: set[Value], definition: FunctionDef) -> tuple[Value, ...]:
    if definition.choices:
        return tuple(sorted(values, key=lambda value: definition.choices.index(str(value))))
    return tuple(sorted(values, key=float))
