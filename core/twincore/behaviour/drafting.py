"""Draft a behaviour from traces: states and times proposed, checked against every trace there is.

States are merged as long as the machine still makes every trace: the method of Oncina and García (1992) for
deterministic machines from examples, with times on the arrows.
"""

import json
from collections.abc import Mapping, Sequence
from copy import deepcopy
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from twincore.behaviour.simulate import run_values
from twincore.behaviour.traces import compared
from twincore.errors import TwinError
from twincore.profile import Board, Family, Number, Trace, parse_board
from twincore.profile.document import jsonable
from twincore.profile.values import tidy

MOST_STATES = 80


@dataclass(slots=True)
class _Node:
    """A state of the draft: outputs that are on, and where each input change or the time leads."""

    on: frozenset[str]
    by_input: dict[tuple[str, bool], int]
    after: tuple[Fraction, int] | None = None


@dataclass(frozen=True, slots=True)
class Draft:
    """A proposed behaviour, as a board's file has it; `made` says of each trace whether the draft makes it."""

    behaviour: dict[str, Any]
    made: tuple[bool, ...]


def draft_behaviour(board: Board, family: Family, traces: Sequence[Trace]) -> Draft:
    """States and times that make the traces of a board. Raises TwinError where there is nothing to go by."""
    if not traces or not any(trace.seen for trace in traces):
        raise TwinError("traces: expected at least one trace in which something was seen")
    if any(not isinstance(value, bool) for trace in traces for step in trace.scenario.steps for _, value in step.set):
        # where it passed a threshold is seen, but not which
        raise TwinError("traces: expected runs in which no level changes; write the guards that read one by hand")
    nodes = [_Node(frozenset(), {})]
    for trace in traces:
        _grow(nodes, trace)
    if len(nodes) > MOST_STATES:
        raise TwinError(f"traces: expected at most {MOST_STATES} states, found {len(nodes)}; leave traces out")
    nodes = _merged(nodes, board, family, traces)
    return Draft(_document(nodes), tuple(_made(nodes, board, family, traces)))


def _grow(nodes: list[_Node], trace: Trace) -> None:
    """Add one trace: a state for every input change and every change of outputs, shared with those before."""
    moments: list[tuple[Number, int, Any]] = [
        (step.at, 0, change) for step in trace.scenario.steps for change in step.set
    ]
    moments += [(seen.at, 1, seen) for seen in trace.seen]
    moments.sort(key=lambda each: (each[0], each[1]))
    at, since, on = 0, Fraction(0), set[str]()
    last_input: Number | None = None
    index = 0
    while index < len(moments):
        when, kind, what = moments[index]
        if kind == 0:
            at, since, last_input = _to(nodes, at, what, frozenset(on)), Fraction(when), when
            index += 1
            continue
        together = [m for m in moments[index:] if m[1] == 1 and m[0] - when <= what.within_s]
        until_input = next((m[0] for m in moments[index:] if m[1] == 0), None)
        together = [m for m in together if until_input is None or m[0] <= until_input]
        for _, _, seen in together:
            on.add(seen.output) if seen.on else on.discard(seen.output)
        if (last_input is not None and when - last_input <= what.within_s) or (
            last_input is None and when <= what.within_s
        ):
            nodes[at].on = frozenset(on)
        else:
            at, since = _later(nodes, at, Fraction(when) - since, frozenset(on)), Fraction(when)
        last_input = None if last_input is None or when - last_input > what.within_s else last_input
        moments = moments[:index] + [m for m in moments[index:] if m not in together]


def _to(nodes: list[_Node], at: int, change: tuple[str, bool], on: frozenset[str]) -> int:
    target = nodes[at].by_input.get(change)
    if target is None:
        nodes.append(_Node(on, {}))
        target = nodes[at].by_input[change] = len(nodes) - 1
    return target


def _later(nodes: list[_Node], at: int, delay: Fraction, on: frozenset[str]) -> int:
    there = nodes[at].after
    if there is None:
        nodes.append(_Node(on, {}))
        there = nodes[at].after = (_rounded(delay), len(nodes) - 1)
    return there[1]


def _rounded(delay: Fraction) -> Fraction:
    """To whole seconds from two seconds on, else to tenths: boards are made with round times (common practice)."""
    return Fraction(round(delay)) if delay >= 2 else Fraction(round(delay * 10), 10)


def _merged(nodes: list[_Node], board: Board, family: Family, traces: Sequence[Trace]) -> list[_Node]:
    """Merge states with the same outputs, earliest first, wherever every trace is made as well as before."""
    best = sum(_made(nodes, board, family, traces))
    later = 1
    while later < len(nodes):
        for earlier in range(later):
            tried = _joined(nodes, earlier, later)
            if tried is not None and sum(_made(tried, board, family, traces)) >= best:
                nodes = tried
                break
        else:
            later += 1
    return nodes


def _joined(nodes: list[_Node], one: int, two: int) -> list[_Node] | None:
    """The machine with two states made one, and whatever that forces together; None where that cannot be."""
    nodes = deepcopy(nodes)
    into = list(range(len(nodes)))

    def root(index: int) -> int:
        while into[index] != index:
            index = into[index]
        return index

    waiting = [(one, two)]
    while waiting:
        a, b = sorted(map(root, waiting.pop()))
        if a == b:
            continue
        if nodes[a].on != nodes[b].on:
            return None
        into[b] = a
        for change, target in nodes[b].by_input.items():
            if change in nodes[a].by_input:
                waiting.append((nodes[a].by_input[change], target))
            else:
                nodes[a].by_input[change] = target
        mine, theirs = nodes[a].after, nodes[b].after
        if mine and theirs:
            if abs(mine[0] - theirs[0]) > 1:
                return None
            waiting.append((mine[1], theirs[1]))
        nodes[a].after = mine or theirs
    kept = [index for index in range(len(nodes)) if root(index) == index]
    place = {index: kept.index(root(index)) for index in range(len(nodes))}
    return [
        _Node(
            nodes[index].on,
            {change: place[target] for change, target in nodes[index].by_input.items()},
            None if (timed := nodes[index].after) is None else (timed[0], place[timed[1]]),
        )
        for index in kept
    ]


def _document(nodes: Sequence[_Node]) -> dict[str, Any]:
    names = [f"s{number}" for number in range(1, len(nodes) + 1)]
    states = {}
    for name, node in zip(names, nodes, strict=True):
        go: list[dict[str, Any]] = [
            {"to": names[target], "if": {change[0]: change[1]}} for change, target in node.by_input.items()
        ]
        go = [each for each in go if each["to"] != name]
        if node.after:
            go.append({"to": names[node.after[1]], "after": tidy(node.after[0])})
        states[name] = {"title": ", ".join(sorted(node.on)) or "Nothing on", "on": sorted(node.on), "go": go}
    return {"start": "s1", "states": states}


def _made(nodes: Sequence[_Node], board: Board, family: Family, traces: Sequence[Trace]) -> list[bool]:
    drafted = drafted_board(board, _document(nodes))
    made = []
    for trace in traces:
        try:
            made.append(compared(run_values(drafted, {}, family, trace.scenario), trace, family).agrees)
        except TwinError:
            made.append(False)
    return made


def drafted_board(board: Board, behaviour: Mapping[str, Any]) -> Board:
    """The board with a behaviour put in; whatever its file says besides stays. Raises DocumentError."""
    document = {**jsonable(board.document), "behaviour": jsonable(dict(behaviour))}
    return parse_board(json.dumps(document).encode())
