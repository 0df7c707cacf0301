"""Statements that cannot all be true: for the parts lead to settle."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import Any

from twincore.choose.statements import Statement
from twincore.heavy import load
from twincore.profile.facts import fact_agrees
from twincore.profile.values import is_number, same


@dataclass(frozen=True, slots=True)
class Contradiction:
    """`kind` is both ways, cycle or two successors; `statements` are the ids that clash, in order."""

    kind: str
    boards: tuple[str, ...]
    statements: tuple[str, ...]


def can_hold_together(one: Mapping[str, Any], other: Mapping[str, Any]) -> bool:
    """Whether two sets of conditions can hold for one machine."""
    return all(_overlap(one[name], other[name]) for name in one if name in other)


def _overlap(one: Any, other: Any) -> bool:
    if isinstance(one, list | tuple):
        return any(_overlap(each, other) for each in one)
    if isinstance(other, list | tuple):
        return any(_overlap(one, each) for each in other)
    if isinstance(one, dict) and isinstance(other, dict):
        low = max(each["from"] for each in (one, other, {"from": -(10**12)}) if "from" in each)
        high = min(each["to"] for each in (one, other, {"to": 10**12}) if "to" in each)
        return bool(low <= high)
    if isinstance(one, dict):
        return is_number(other) and fact_agrees(other, one)
    if isinstance(other, dict):
        return is_number(one) and fact_agrees(one, other)
    return same(one, other)


def _valid_together(one: Statement, other: Statement) -> bool:
    ends = [(each.valid_from or "0000", each.valid_to or "9999") for each in (one, other)]
    return max(low for low, _ in ends) <= min(high for _, high in ends)


def clash(one: Statement, other: Statement) -> bool:
    """Whether both can be meant for one machine on one day."""
    return can_hold_together(one.conditions, other.conditions) and _valid_together(one, other)


def contradictions(statements: Iterable[Statement]) -> list[Contradiction]:
    """What cannot all be true: a pairing both allowed and forbidden, boards that supersede each other in a ring, and two
    successors for one machine between which nothing decides."""
    rows = [each for each in statements if each.relation not in ("exchange", "repair", "donor")]
    found = [*_both_ways(rows), *_two_successors(rows)]
    networkx = load("networkx")
    ring = networkx.DiGraph()
    for each in rows:
        if each.relation == "supersedes":
            ring.add_edge(each.original, each.replacement, statement=each.id)
    for boards in networkx.strongly_connected_components(ring):
        if len(boards) > 1:
            found.append(_ring(ring, sorted(boards)))
    return sorted(found, key=lambda each: (each.kind, each.boards, each.statements))


def _ring(graph: Any, boards: Sequence[str]) -> Contradiction:
    edges = load("networkx").find_cycle(graph.subgraph(boards), boards[0])
    return Contradiction("cycle", tuple(a for a, _ in edges), tuple(graph[a][b]["statement"] for a, b in edges))


def _both_ways(rows: Sequence[Statement]) -> Iterable[Contradiction]:
    by_pair: dict[tuple[str, str], list[Statement]] = {}
    for each in rows:
        by_pair.setdefault((each.original, each.replacement), []).append(each)
        if each.relation == "same":
            by_pair.setdefault((each.replacement, each.original), []).append(each)
    for pair, group in by_pair.items():
        for one, other in combinations(sorted(group, key=lambda each: each.id), 2):
            if (one.relation == "not exchangeable") != (other.relation == "not exchangeable") and clash(one, other):
                yield Contradiction("both ways", pair, (one.id, other.id))


def _two_successors(rows: Sequence[Statement]) -> Iterable[Contradiction]:
    by_original: dict[str, list[Statement]] = {}
    for each in rows:
        if each.relation == "supersedes":
            by_original.setdefault(each.original, []).append(each)
    for original, group in by_original.items():
        for one, other in combinations(sorted(group, key=lambda each: each.id), 2):
            if one.replacement != other.replacement and clash(one, other):
                yield Contradiction(
                    "two successors", (original, one.replacement, other.replacement), (one.id, other.id)
                )
