"""Exact search: the product of two boards, symbolic over time, breadth first by the number of input changes."""

from collections import deque
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from itertools import pairwise

from twincore.behaviour import zone as z
from twincore.behaviour.machine import DEAD, EXPIRED, MOST_TRANSITIONS, NOW, Arrow, ring_of
from twincore.behaviour.pair import Pair
from twincore.behaviour.timing import Distance
from twincore.errors import EndlessLoopError

States = tuple[int, ...]
Refs = tuple[int, ...]
"""For each clock slot of a board: the zone's clock that gives its age (from 1), or EXPIRED, DEAD, NOW."""
Log = tuple[tuple[int, int | None, int | None, bool], ...]
"""What was decided about ages at an instant: (zone clock, at least, at most, strict)."""


@dataclass(slots=True)
class Node:
    """A settled pair of configurations with all the ages they can have on arrival."""

    states: tuple[States, States]
    refs: tuple[Refs, Refs]
    counters: tuple[States, States]
    inputs: int
    zone: z.Zone
    born: tuple[int, ...]
    """For each clock of the zone, the event (by depth) at which it was reset."""
    depth: int
    changes: int
    parent: "Node | None"
    changed: int
    """The input bit changed on the way here, 0 for a timer."""
    log: Log
    differs: bool = False

    def key(self) -> object:
        """What makes two nodes comparable by their zones alone."""
        return (self.states, self.refs, self.counters, self.inputs)


@dataclass(slots=True)
class Found:
    """How a search ended: nodes that differ after equally few changes, and whether nothing was left out before them."""

    nodes: list[Node]
    closed: bool
    explored: int


@dataclass(frozen=True, slots=True)
class Loop:
    """A board that goes round without end: which of the two, the states it goes through, and the way there."""

    side: int
    states: tuple[str, ...]
    node: Node


@dataclass(slots=True)
class _Draft:
    """A pair of configurations while it settles at one instant."""

    states: list[States]
    refs: list[list[int]]
    counters: list[States]
    inputs: int
    zone: z.Zone
    log: Log
    side: int = 0
    taken: int = 0
    names: list[str] = field(default_factory=list)

    def copy(self, zone: z.Zone, entry: tuple[int, int | None, int | None, bool]) -> "_Draft":
        return _Draft(
            list(self.states), [list(r) for r in self.refs], list(self.counters), self.inputs, zone,
            (*self.log, entry), self.side, self.taken, list(self.names),
        )  # fmt: skip


class ExactSearch:
    """Explores a pair until the first difference, the end of the space, or `limit` arrivals at a settled pair.

    `ahead` gives a lower bound on the input changes that a node still needs; nodes with the least changes so far plus
    bound come first, so that the first difference has the fewest changes. With a `weight` above 1 the bound counts more
    than it is sure of: a difference is found sooner, and need not have the fewest. Nothing is followed from where a
    board goes round without end; `loops` has the first of each board that was met.
    """

    def __init__(self, pair: Pair, limit: int, ahead: Callable[[Node], int] | None = None, weight: int = 1) -> None:
        self.pair, self.limit, self.ahead, self.weight = pair, limit, ahead, weight
        self.explored = 0
        self.loops: dict[int, Loop] = {}
        self._known: dict[object, list[tuple[z.Zone, int]]] = {}
        self._waiting: dict[int, deque[Node]] = {}

    def run(self, until_loop: bool = False) -> Found:
        """The first difference by number of input changes, if there is one within the limit.

        With `until_loop`, the search ends where a board goes round without end. Raises EndlessLoopError where one does
        so with power on and the inputs at rest.
        """
        self._queue(self._start())
        while self._waiting and not (until_loop and self.loops):
            rank = min(self._waiting)
            level = self._waiting[rank]
            node = level.popleft()
            if not level:
                del self._waiting[rank]
            if node.differs:
                alike = [other for other in level if other.differs and other.changes == node.changes]
                return Found([node, *alike], self.weight == 1, self.explored)
            if not self._is_new(node):
                continue
            if self.explored >= self.limit:
                met = [other for each in self._waiting.values() for other in each if other.differs]
                return Found(met, False, self.explored)
            self._queue(self._after_waiting(node))
            self._queue(self._after_changes(node))
        return Found([], True, self.explored)

    def _queue(self, nodes: Iterator[Node]) -> None:
        for node in nodes:
            bound = 0 if self.ahead is None or node.differs else self.ahead(node) * self.weight
            level = self._waiting.setdefault(node.changes + bound, deque())
            if node.differs:
                level.appendleft(node)
            else:
                level.append(node)

    def _is_new(self, node: Node) -> bool:
        """Whether no node with as few changes covers this one."""
        zones = self._known.setdefault(node.key(), [])
        if any(changes <= node.changes and z.inside(node.zone, known) for known, changes in zones):
            return False
        zones[:] = [
            (known, changes) for known, changes in zones if changes < node.changes or not z.inside(known, node.zone)
        ]
        zones.append((node.zone, node.changes))
        return True

    def _start(self) -> Iterator[Node]:
        draft = _Draft(
            [side.starts for side in self.pair.sides],
            [side.clocks_at_power_on() for side in self.pair.sides],
            [(0,) * len(side.counters) for side in self.pair.sides],
            self.pair.rest,
            (z.ZERO,),
            (),
        )
        return self._settle(draft, 1, (), None, 0)

    # waiting -----------------------------------------------------------------------------------------------------

    def _pending(self, node: Node) -> list[tuple[int, int]]:
        """(zone clock, units) of the timers that will fire if nothing else happens."""
        if not self.pair.powered(node.inputs):
            return []
        found = set()
        for i in (0, 1):
            for _, arrow in self.pair.sides[i].ready(node.states[i], node.inputs, node.counters[i]):
                if (ref := node.refs[i][arrow.clock]) > 0:
                    found.add((ref, arrow.after))
        return sorted(found)

    def _after_waiting(self, node: Node) -> Iterator[Node]:
        pending = self._pending(node)
        if not pending:
            return
        size = len(node.born) + 1
        waited = z.elapse(node.zone, size)
        for number, (clock, after) in enumerate(pending):
            zone: z.Zone | None = z.constrain(waited, size, 0, clock, z.at_most(-after))
            zone = zone and z.constrain(zone, size, clock, 0, z.at_most(after))
            log: list[tuple[int, int | None, int | None, bool]] = [(clock, after, after, False)]
            for other, (c, a) in enumerate(pending):
                # what is due at the same instant is taken with the first of them
                strict = other < number
                if zone and other != number:
                    zone = z.constrain(zone, size, c, 0, z.below(a) if strict else z.at_most(a))
                    log.append((c, None, a, strict))
            if zone:
                yield from self._settle(self._draft(node, zone, tuple(log)), size, node.born, node, 0)

    def _draft(self, node: Node, zone: z.Zone, log: Log) -> _Draft:
        return _Draft(
            list(node.states), [list(refs) for refs in node.refs], list(node.counters), node.inputs, zone, log
        )

    # input changes -----------------------------------------------------------------------------------------------

    def _after_changes(self, node: Node) -> Iterator[Node]:
        size = len(node.born) + 1
        zone: z.Zone | None = z.elapse(node.zone, size)
        log: list[tuple[int, int | None, int | None, bool]] = []
        for clock, after in self._pending(node):
            zone = zone and z.constrain(zone, size, clock, 0, z.below(after))
            log.append((clock, None, after, True))
        if not zone:
            return
        for bit in self.pair.branches(node.states):
            inputs = node.inputs ^ bit
            if not self.pair.allowed(inputs):
                continue
            draft = self._draft(node, zone, tuple(log))
            draft.inputs = inputs
            if bit == self.pair.power:
                self._switch_power(draft, node)
            yield from self._settle(draft, size, node.born, node, bit)

    def _switch_power(self, draft: _Draft, node: Node) -> None:
        for i, side in enumerate(self.pair.sides):
            if draft.inputs & self.pair.power:
                draft.refs[i] = side.clocks_at_power_on(node.refs[i])
            else:
                draft.states[i], draft.counters[i] = side.without_power(draft.states[i], draft.counters[i])
                draft.refs[i] = side.clocks_without_power(draft.refs[i])

    # settling ----------------------------------------------------------------------------------------------------

    def _settle(self, draft: _Draft, size: int, born: tuple[int, ...], parent: Node | None, bit: int) -> Iterator[Node]:
        """Every way in which both boards can settle at this instant, split by what the ages decide."""
        powered = self.pair.powered(draft.inputs)
        waiting = [draft]
        while waiting:
            draft = waiting.pop()
            while powered and draft.side < 2:
                arrow = self._next_arrow(draft, size, waiting)
                if arrow is None:
                    draft.side, draft.taken, draft.names = draft.side + 1, 0, []
                elif draft.taken < MOST_TRANSITIONS:
                    self._take(draft, *arrow)
                else:
                    self._check_rest(draft, parent)
                    if draft.side not in self.loops:
                        here = self._arrive(draft, size, born, parent, bit, False)
                        self.loops[draft.side] = Loop(draft.side, ring_of(draft.names), here)
                    break
            else:
                yield self._arrive(draft, size, born, parent, bit, powered)

    def _check_rest(self, draft: _Draft, parent: Node | None) -> None:
        """Refuse a board that does not even settle at rest."""
        if parent is None:
            side = self.pair.sides[draft.side]
            inputs = side.changes.named(draft.inputs)
            raise EndlessLoopError(side.part_number, ring_of(draft.names), inputs)

    def _next_arrow(self, draft: _Draft, size: int, waiting: list[_Draft]) -> tuple[int, Arrow] | None:
        i = draft.side
        for machine, arrow in self.pair.sides[i].ready(draft.states[i], draft.inputs, draft.counters[i]):
            if arrow.clock < 0:
                return machine, arrow
            ref, after = draft.refs[i][arrow.clock], arrow.after
            if ref == EXPIRED:
                return machine, arrow
            if ref == NOW or z.always_below(draft.zone, size, ref, after):
                continue
            if z.always_at_least(draft.zone, size, ref, after):
                return machine, arrow
            not_yet = z.constrain(draft.zone, size, ref, 0, z.below(after))
            if not_yet:
                waiting.append(draft.copy(not_yet, (ref, None, after, True)))
            reached = z.constrain(draft.zone, size, 0, ref, z.at_most(-after))
            assert reached is not None  # otherwise the age would always be below
            draft.zone = reached
            draft.log = (*draft.log, (ref, after, None, False))
            return machine, arrow
        return None

    def _take(self, draft: _Draft, machine: int, arrow: Arrow) -> None:
        i = draft.side
        side = self.pair.sides[i]
        states = draft.states[i]
        draft.states[i] = (*states[:machine], arrow.target, *states[machine + 1 :])
        draft.counters[i] = side.count(draft.counters[i], arrow)
        for slot in (machine, *arrow.resets):
            draft.refs[i][slot] = NOW
        draft.taken += 1
        draft.names.append(side.machines[machine][arrow.target].name)

    def _arrive(
        self, draft: _Draft, size: int, born: tuple[int, ...], parent: Node | None, bit: int, powered: bool
    ) -> Node:
        limits: dict[int, int] = {}
        refs = [self._live_refs(draft, i, size, limits) for i in (0, 1)]
        order = tuple(ref for ref in limits if ref > 0)
        fresh = NOW in limits
        number = {old: new for new, old in enumerate(order, 1)} | {NOW: len(order) + 1}
        zone = z.project(draft.zone, size, order, fresh)
        bounds = [0, *(limits[ref] for ref in order), *([limits[NOW]] if fresh else [])]
        depth = parent.depth + 1 if parent else 0
        self.explored += 1
        shown = [
            side.signals(states, draft.inputs) & side.compared
            for side, states in zip(self.pair.sides, draft.states, strict=True)
        ]
        return Node(
            states=(draft.states[0], draft.states[1]),
            refs=(tuple(number.get(r, r) for r in refs[0]), tuple(number.get(r, r) for r in refs[1])),
            counters=(self._live_counters(draft, 0), self._live_counters(draft, 1)),
            inputs=draft.inputs,
            zone=z.widen(zone, len(bounds), bounds),
            born=(*(born[ref - 1] for ref in order), *([depth] if fresh else [])),
            depth=depth,
            changes=(parent.changes if parent else 0) + bool(bit),
            parent=parent,
            changed=bit,
            log=draft.log,
            differs=powered and shown[0] != shown[1],
        )

    def _live_refs(self, draft: _Draft, i: int, size: int, limits: dict[int, int]) -> list[int]:
        live = []
        for ref, limit in zip(draft.refs[i], self.pair.outlooks[i].clock_limits(draft.states[i]), strict=True):
            if limit < 0 or ref == DEAD:
                ref = DEAD
            elif ref == EXPIRED or (ref > 0 and z.always_at_least(draft.zone, size, ref, limit)):
                ref = EXPIRED
            else:
                limits[ref] = max(limit, limits.get(ref, 0))
            live.append(ref)
        return live

    def _live_counters(self, draft: _Draft, i: int) -> States:
        limits = self.pair.outlooks[i].counter_limits(draft.states[i])
        counters = draft.counters[i]
        if not counters:
            return counters
        return tuple(min(n, limit) if limit >= 0 else 0 for n, limit in zip(counters, limits, strict=True))


def events_of(node: Node) -> list[Node]:
    """The nodes on the way to a node, from the start."""
    way = []
    step: Node | None = node
    while step:
        way.append(step)
        step = step.parent
    return way[::-1]


def distances_of(way: list[Node]) -> list[Distance]:
    """What the decisions along a way demand of the times of its events."""
    found = []
    for before, node in pairwise(way):
        for clock, least, most, strict in node.log:
            found.append(Distance(before.born[clock - 1], node.depth, least, most, strict))
    return found
