"""Which unreadable points matter, and which single reading would decide most."""

from collections.abc import Mapping
from dataclasses import dataclass
from math import prod

from twincore.profile import Board, Family, FunctionMap, Record, Value
from twincore.settings.decode import decode


@dataclass(frozen=True, slots=True)
class UnreadablePoint:
    """An unreadable point: the open functions that hang on it, and how many its reading decides on average."""

    point: str
    functions: tuple[str, ...]
    decides: float


def unreadable_points(board: Board, record: Record, family: Family) -> list[UnreadablePoint]:
    """Every unreadable point, the one whose reading decides most functions first; those that matter to none last."""
    open_now = [name for name, decoded in decode(board, record, family).items() if not decoded.decided]
    possible = {point: set(record.possible(board, point)) for point in board.points}
    found = []
    for point in record.unreadable:
        hanging = tuple(name for name in open_now if point in board.functions[name].scope)
        decided = sum(_readings_that_decide(board.functions[name], possible, point) for name in hanging)
        found.append(UnreadablePoint(point, hanging, decided / len(possible[point]) if hanging else 0.0))
    return sorted(found, key=lambda each: -each.decides)


def _readings_that_decide(function: FunctionMap, possible: Mapping[str, set[Value]], point: str) -> int:
    """For how many readings of a point a function stands at one value: each row of its table is looked at once."""
    if not function.rows:
        return len(possible[point])
    others = {name: possible[name] for name in function.scope if name != point}
    wanted = prod(len(values) for values in others.values())
    anyway: dict[Value, int] = {}
    at: dict[Value, dict[Value, int]] = {}
    for row in function.rows:
        if all(value in possible[name] for name, value in row.when.items()):
            covered = prod(len(values) for name, values in others.items() if name not in row.when)
            counts = at.setdefault(row.when[point], {}) if point in row.when else anyway
            counts[row.value] = counts.get(row.value, 0) + covered
    return sum(_decided(at.get(value, {}), anyway, wanted) for value in possible[point])


def _decided(here: Mapping[Value, int], anyway: Mapping[Value, int], wanted: int) -> bool:
    return len({**here, **anyway}) == 1 and sum(here.values()) + sum(anyway.values()) == wanted
