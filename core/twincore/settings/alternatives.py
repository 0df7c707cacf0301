"""Which other settings of a board give the same functions."""

from collections.abc import Iterator
from dataclasses import replace
from itertools import product
from math import prod

from twincore.profile import Board, Family, Record, Value
from twincore.settings.acting import acts_of
from twincore.settings.decode import decode_function

MOST_TRIED = 20_000


def same_functions(board: Board, record: Record, family: Family, most: int = 5) -> list[Record]:
    """Up to `most` other records that give every function the same value, fewest points moved first.

    Points that no function depends on stay, locked ones too, and positions that act are not offered. Groups of points
    with more than 20,000 combinations are left as they are.
    """
    found = [
        replace(record, points={**record.points, **points})
        for group in _groups(board)
        for points in _others(board, record, family, group)
    ]
    found.sort(key=lambda other: sum(other.points[name] != value for name, value in record.points.items()))
    return found[:most]


def _groups(board: Board) -> list[tuple[str, ...]]:
    """Points that functions couple, each group by itself."""
    groups: list[set[str]] = []
    for function in board.functions.values():
        scope = set(function.scope)
        touching = [group for group in groups if group & scope]
        groups = [group for group in groups if group not in touching] + [scope.union(*touching)] if scope else groups
    return [tuple(name for name in board.points if name in group) for group in groups]


def _others(board: Board, record: Record, family: Family, group: tuple[str, ...]) -> Iterator[dict[str, Value | None]]:
    acting = {(act.point, act.when) for act in acts_of(board)}
    domains = [
        (record.points[name],)
        if board.points[name].locked
        else tuple(value for value in board.points[name].domain if (name, value) not in acting)
        for name in group
    ]
    if prod(len(domain) for domain in domains) > MOST_TRIED or any(record.points[name] is None for name in group):
        return
    functions = [
        (function, definition)
        for function in board.functions.values()
        if set(function.scope) & set(group) and (definition := family.function(function.id))
    ]
    now = [decode_function(function, board, record, definition) for function, definition in functions]
    for values in product(*domains):
        points: dict[str, Value | None] = dict(zip(group, values, strict=True))
        if all(record.points[name] == value for name, value in points.items()):
            continue
        other = replace(record, points={**record.points, **points})
        if all(decode_function(f, board, other, d) == was for (f, d), was in zip(functions, now, strict=True)):
            yield points
