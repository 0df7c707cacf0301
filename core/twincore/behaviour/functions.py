"""Function values that a behaviour works with: decoded, completed by the family, and replaced within tolerance."""

from dataclasses import dataclass

from twincore.profile import Board, Family, Record, Value
from twincore.settings import Decoded, decode


@dataclass(frozen=True, slots=True)
class Offset:
    """A number of the replacement that differs from the original's, but lies within tolerance."""

    id: str
    original: Value
    replacement: Value


def function_values(board: Board, record: Record, family: Family) -> dict[str, Decoded]:
    """Every function as this board behaves: its own, or the family's value for one that it lacks."""
    decoded = decode(board, record, family)
    for definition in family.functions:
        if definition.id not in decoded and definition.if_absent is not None:
            decoded[definition.id] = Decoded((definition.if_absent,))
    return decoded


def undecided(board: Board, values: dict[str, Decoded]) -> tuple[str, ...]:
    """The functions that this board's behaviour names and that its positions leave undecided."""
    named = board.behaviour.named_functions() if board.behaviour else {}
    return tuple(name for name in values if name in named and not values[name].decided)


def offsets(original: dict[str, Decoded], replacement: dict[str, Decoded], family: Family) -> tuple[Offset, ...]:
    """The numbers that the twin check replaces by the original's, in the family's order."""
    found = []
    for definition in family.functions:
        mine, theirs = original.get(definition.id), replacement.get(definition.id)
        if definition.numeric and mine and theirs and mine.decided and theirs.decided:
            one, other = mine.values[0], theirs.values[0]
            if one != other and definition.within(one, other):
                found.append(Offset(definition.id, one, other))
    return tuple(found)
