"""Exact search: the product of two boards, symbolic over time and inputs, by the number of input changes."""

from collections import deque
from collections.abc import Callable, Iterator

from twincore.behaviour import zone as z
from twincore.behaviour.effort import Effort, Spent, effort_of
from twincore.behaviour.nodes import ANY, Found, Key, Log, Loop, Node, times_of, way_to
from twincore.behaviour.pair import Pair
from twincore.behaviour.settling import Draft, Settling

Pending = tuple[tuple[int, int], ...]
"""(zone clock, units) of timers."""
MOST_TIMED = 40
"""Ways to a difference of which the exact times are looked for."""
Ahead = Callable[[Node], tuple[int, int]]


class ExactSearch:
    """Explores a pair until the first difference, the end of the space, or `limit` arrivals at a settled pair.

    `ahead` gives a lower bound on the input changes that a node still needs, and the combinations of its inputs from which the
    boards can part at all; nodes with the least changes so far plus bound are looked at first. With a `weight` above 1 on the bound a difference is found sooner,
    but need not have the fewest changes. What is covered by something known with as few changes is not followed.
    """

    def __init__(
        self, pair: Pair, limit: int, ahead: Ahead | None = None, weight: int = 1, effort: Effort | None = None
    ) -> None:
        self.pair, self.limit, self.ahead, self.weight = pair, limit, ahead, weight
        self.effort = effort or effort_of(limit)
        self.settling = Settling(pair, self.effort)
        self.sets = pair.sets
        self.covered = False
        """Whether a difference was met to which no way at exact times was found."""
        self._known: dict[Key, list[tuple[z.Zone, int, int]]] = {}
        self._waiting: dict[int, deque[Node]] = {}
        self._rank = 0
        self._waiting_at: dict[object, Node] = {}

    @property
    def loops(self) -> dict[int, Loop]:
        """Where a board goes round without end, by its side."""
        return self.settling.loops

    def run(self, until_loop: bool = False) -> Found:
        """The first difference by number of input changes, if there is one within the limit.

        With `until_loop`, the search ends where a board goes round without end. Raises EndlessLoopError where one does
        so with power on and the inputs at rest.
        """
        try:
            return self._run(until_loop)
        except Spent:
            return self._broken_off(self._rank)

    def _broken_off(self, rank: int) -> Found:
        """What was found where a search ends before its time: nothing differs with fewer changes than `rank`, looked at in order."""
        met = [other for each in self._waiting.values() for other in each if other.differs]
        least = min(rank, *self._waiting) if self._waiting else rank
        return Found(
            self._real(met[:MOST_TIMED]), False, self.settling.explored, least=least if self.weight == 1 else 0
        )

    def _run(self, until_loop: bool) -> Found:
        self._queue(self._start())
        while self._waiting and not (until_loop and self.loops):
            rank = self._rank = min(self._waiting)
            level = self._waiting[rank]
            node = level.popleft()
            if not level:
                del self._waiting[rank]
            if node.differs:
                alike = [node, *(other for other in level if other.differs and other.changes == node.changes)]
                if real := self._real(alike[:MOST_TIMED]):
                    return Found(real, self.weight == 1 and not self.covered, self.settling.explored)
                self.covered = True
                continue
            del self._waiting_at[node.key(), node.zone, node.changes, rank]
            if not self._is_new(node):
                continue
            if self.settling.explored >= self.limit:
                return self._broken_off(rank)
            for pending, some in self._pending(node):
                self._queue(self._after_waiting(node, pending, some))
                self._queue(self._after_changes(node, pending, some))
        return Found([], not self.covered, self.settling.explored, self.covered)

    def _real(self, nodes: list[Node]) -> list[Node]:
        """Those nodes to which there is a way at exact times. Only where clocks stand still meanwhile are zones larger than that."""
        if not self.settling.watched:
            return nodes
        return [node for node in nodes if times_of(way_to(node, self.sets)) is not None]

    def everywhere(self) -> Iterator[tuple[Key, int, z.Zone]]:
        """Everywhere that was looked at, with the inputs and ages there; once a search without a heading is closed, everywhere
        that the boards can be.
        """
        for key, known in self._known.items():
            for zone, _, some in known:
                yield key, some, zone

    def _queue(self, nodes: Iterator[Node]) -> None:
        for node in nodes:
            if node.differs:
                self._waiting.setdefault(node.changes, deque()).appendleft(node)
                continue
            bound, some = (0, node.some) if self.ahead is None else self.ahead(node)
            if some:
                self._wait(node if some == node.some else node.part(some), node.changes + bound * self.weight)

    def _wait(self, node: Node, rank: int) -> None:
        """Have a node wait for its turn, together with what waits there already but for the inputs."""
        key = (node.key(), node.zone, node.changes, rank)
        there = self._waiting_at.get(key)
        if there is None:
            self._waiting_at[key] = node
            self._waiting.setdefault(rank, deque()).append(node)
        elif node.some & ~there.some:
            there.some |= node.some
            there.ways += node.ways

    def _is_new(self, node: Node) -> bool:
        """Whether something of a node is not covered by what is known with as few changes; no more is left of it."""
        known = self._known.setdefault(node.key(), [])
        self.effort.spend(1 + 2 * len(known))
        for zone, changes, some in known:
            if some & node.some and changes <= node.changes and z.inside(node.zone, zone):
                node.some &= ~some
                if not node.some:
                    return False
        kept = []
        for zone, changes, some in known:
            if changes >= node.changes and some & node.some and z.inside(zone, node.zone):
                some &= ~node.some
            if some:
                kept.append((zone, changes, some))
        known[:] = [*kept, (node.zone, node.changes, node.some)]
        self.effort.fill(20 + len(node.zone))
        return True

    def _start(self) -> Iterator[Node]:
        clocks = [side.clocks_at_power_on() for side in self.pair.sides]
        if not self.pair.powered(self.pair.rest):
            clocks = [side.clocks_without_power(each) for side, each in zip(self.pair.sides, clocks, strict=True)]
        draft = Draft(
            [side.starts for side in self.pair.sides],
            clocks,
            [(0,) * len(side.counters) for side in self.pair.sides],
            self.pair.rest & self.pair.alone,
            1 << self.sets.place(self.pair.rest),
            (z.ZERO,),
            (),
        )
        return self.settling.settle(draft, 1, None, 0)

    def _draft(self, node: Node, some: int, zone: z.Zone, log: Log) -> Draft:
        return Draft(
            list(node.states), [list(refs) for refs in node.refs], list(node.counters), node.inputs, some, zone, log
        )

    # waiting -----------------------------------------------------------------------------------------------------

    def _pending(self, node: Node) -> list[tuple[Pending, int]]:
        """The timers that will fire if nothing else happens, with the combinations of inputs for which it is those."""
        classes: dict[Pending, int] = {(): node.some}
        if not self.pair.powered(node.inputs):
            return list(classes.items())
        for i in (0, 1):
            for _, arrow, where in self.settling.listed(i, node.states[i], node.inputs, node.counters[i]):
                if arrow.clock < 0 or (ref := node.refs[i][arrow.clock]) <= 0 or node.still >> ref & 1:
                    continue
                split: dict[Pending, int] = {}
                for pending, some in classes.items():
                    more = tuple(sorted({*pending, (ref, arrow.after)}))
                    for timers, those in ((more, some & where), (pending, some & ~where)):
                        if those:
                            split[timers] = split.get(timers, 0) | those
                classes = split
        return list(classes.items())

    def _after_waiting(self, node: Node, pending: Pending, some: int) -> Iterator[Node]:
        if not pending:
            return
        size = node.size
        waited = z.elapse(node.zone, size, node.still)
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
                yield from self.settling.settle(self._draft(node, some, zone, tuple(log)), size, node, 0)

    # input changes -----------------------------------------------------------------------------------------------

    def _after_changes(self, node: Node, pending: Pending, some: int) -> Iterator[Node]:
        size = node.size
        zone: z.Zone | None = z.elapse(node.zone, size, node.still)
        log: list[tuple[int, int | None, int | None, bool]] = []
        for clock, after in pending:
            zone = zone and z.constrain(zone, size, clock, 0, z.below(after))
            log.append((clock, None, after, True))
        if not zone:
            return
        # a change of what neither board reads leaves all as it is, but for the time that went by
        turned = some if self.pair.every_change else 0
        for bit in self.pair.branches(node.states):
            if bit & self.pair.alone:
                draft = self._draft(node, some & self.settling.allowed(node.inputs ^ bit), zone, tuple(log))
                draft.inputs ^= bit
                if bit == self.pair.power:
                    self._switch_power(draft, node)
                if draft.some:
                    yield from self.settling.settle(draft, size, node, bit)
            else:
                turned |= self.sets.turned_bit(some, bit)
        if turned := turned & self.settling.allowed(node.inputs):
            draft = self._draft(node, turned, zone, tuple(log))
            draft.before = some
            yield from self.settling.settle(draft, size, node, ANY)

    def _switch_power(self, draft: Draft, node: Node) -> None:
        for i, side in enumerate(self.pair.sides):
            if draft.inputs & self.pair.power:
                draft.refs[i] = side.clocks_at_power_on(node.refs[i])
            else:
                draft.states[i], draft.counters[i] = side.without_power(draft.states[i], draft.counters[i])
                draft.refs[i] = side.clocks_without_power(draft.refs[i])
