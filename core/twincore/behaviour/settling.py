"""Settling: what two boards do at one instant, symbolic over the ages of their clocks and over the inputs."""

from collections.abc import Iterator
from dataclasses import dataclass, field

from twincore.behaviour import zone as z
from twincore.behaviour.effort import Effort
from twincore.behaviour.likeness import shows
from twincore.behaviour.machine import DEAD, EXPIRED, MOST_TRANSITIONS, NOW, Arrow, ring_of
from twincore.behaviour.nodes import Log, Loop, Node, Refs, States, Way
from twincore.behaviour.pair import Pair
from twincore.errors import EndlessLoopError


@dataclass(slots=True)
class Draft:
    """A pair of configurations while it settles at one instant."""

    states: list[States]
    refs: list[list[int]]
    counters: list[States]
    inputs: int
    some: int
    zone: z.Zone
    log: Log
    before: int = 0
    """The combinations at the parent from which it comes."""
    side: int = 0
    taken: int = 0
    names: list[str] = field(default_factory=list)

    def copy(self, some: int, zone: z.Zone, log: Log) -> "Draft":
        """The same, for other inputs and ages."""
        return Draft(
            list(self.states), [list(r) for r in self.refs], list(self.counters), self.inputs, some, zone, log,
            self.before, self.side, self.taken, list(self.names),
        )  # fmt: skip


Live = list[tuple[int, int]]
"""For each clock slot of a side: the zone's clock, EXPIRED, DEAD or NOW, and the largest threshold to come."""
Listed = tuple[int, Arrow, int]
"""A machine, an arrow of its state, and the combinations of inputs for which all but its time holds."""


ALL_RUN: frozenset[tuple[int, int]] = frozenset()


class Settling:
    """What two boards can do at an instant. Loops that are met are kept by the side that goes round."""

    def __init__(self, pair: Pair, effort: Effort) -> None:
        self.pair, self.sets, self.effort = pair, pair.sets, effort
        self.loops: dict[int, Loop] = {}
        self.explored = 0
        self.watched = pair.watched
        self._listed: dict[tuple[int, States, int, States], list[Listed]] = {}
        self._apart: dict[tuple[tuple[States, States], int], int] = {}
        self._allowed: dict[int, int] = {}

    def allowed(self, inputs: int) -> int:
        """The combinations that can occur beside those inputs that are told one by one."""
        found = self._allowed.get(inputs)
        if found is None:
            found = self.sets.everything
            for mask, value in self.pair.forbidden:
                found &= ~self.sets.beside(inputs, self.pair.alone, mask, value)
            self._allowed[inputs] = found
        return found

    def listed(self, side: int, states: States, inputs: int, counters: States) -> list[Listed]:
        """The arrows of a side that may be taken by any inputs, in the order in which they are looked at."""
        key = (side, states, inputs, counters)
        found = self._listed.get(key)
        if found is None:
            found = self._listed[key] = list(self._list(*key))
        return found

    def _list(self, side: int, states: States, inputs: int, counters: States) -> Iterator[Listed]:
        board = self.pair.sides[side]
        for index, state in enumerate(states):
            for arrow in board.machines[index][state].arrows:
                if arrow.counter >= 0 and (counters[arrow.counter] >= arrow.threshold) != arrow.reached:
                    continue
                where = self.sets.beside(inputs, self.pair.alone, arrow.mask, arrow.value)
                signals = arrow.signal_mask
                while signals:
                    bit = signals & -signals
                    signals ^= bit
                    shown = self._shows(side, states, inputs, bit)
                    where &= shown if arrow.signal_value & bit else ~shown
                if where:
                    yield index, arrow, where

    def _shows(self, side: int, states: States, inputs: int, bit: int) -> int:
        """The combinations of inputs for which a signal is on."""
        found = 0
        for machine, state in zip(self.pair.sides[side].machines, states, strict=True):
            found |= shows(machine[state], bit, self.sets, inputs, self.pair.alone)
        return found

    def apart(self, states: tuple[States, States], inputs: int) -> int:
        """The combinations of inputs for which the two show something different."""
        found = self._apart.get((states, inputs))
        if found is None:
            found, compared = 0, self.pair.sides[0].compared
            while compared:
                bit = compared & -compared
                compared ^= bit
                found |= self._shows(0, states[0], inputs, bit) ^ self._shows(1, states[1], inputs, bit)
            self._apart[states, inputs] = found
        return found

    def settle(self, draft: Draft, size: int, parent: Node | None, bit: int) -> Iterator[Node]:
        """Every way in which both boards can settle at this instant, split by what inputs and ages decide."""
        powered = self.pair.powered(draft.inputs)
        waiting = [draft]
        work = 30 + size * size
        while waiting:
            draft = waiting.pop()
            self.effort.spend(work)
            while powered and draft.side < 2:
                found = self._next_arrow(draft, size, waiting)
                if found is None:
                    draft.side, draft.taken, draft.names = draft.side + 1, 0, []
                elif draft.taken < MOST_TRANSITIONS:
                    self._take(draft, *found)
                else:
                    self._keep_loop(draft, size, parent, bit)
                    break
            else:
                yield from self._arrive(draft, size, parent, bit, powered)

    def _keep_loop(self, draft: Draft, size: int, parent: Node | None, bit: int) -> None:
        """Keep the first way into a loop of a side; refuse a board that does not even settle at rest."""
        side = self.pair.sides[draft.side]
        if parent is None:
            inputs = side.changes.named(draft.inputs | self.sets.first(draft.some))
            raise EndlessLoopError(side.part_number, ring_of(draft.names), inputs)
        if draft.side not in self.loops:
            here = next(self._arrive(draft, size, parent, bit, False))
            self.loops[draft.side] = Loop(draft.side, ring_of(draft.names), here)

    def _next_arrow(self, draft: Draft, size: int, waiting: list[Draft]) -> tuple[int, Arrow] | None:
        """The arrow that is taken next. What stands otherwise than it needs, inputs or ages, waits as a draft of its own."""
        i = draft.side
        for machine, arrow, listed in self.listed(i, draft.states[i], draft.inputs, draft.counters[i]):
            where = draft.some & listed
            if not where:
                continue
            ref, after = draft.refs[i][arrow.clock] if arrow.clock >= 0 else EXPIRED, arrow.after
            if ref == NOW or (ref != EXPIRED and z.always_below(draft.zone, size, ref, after)):
                continue
            if where != draft.some:
                waiting.append(draft.copy(draft.some & ~where, draft.zone, draft.log))
                draft.some = where
            if ref != EXPIRED and not z.always_at_least(draft.zone, size, ref, after):
                not_yet = z.constrain(draft.zone, size, ref, 0, z.below(after))
                if not_yet:
                    waiting.append(draft.copy(where, not_yet, (*draft.log, (ref, None, after, True))))
                reached = z.constrain(draft.zone, size, 0, ref, z.at_most(-after))
                assert reached is not None  # otherwise the age would always be below
                draft.zone = reached
                draft.log = (*draft.log, (ref, after, None, False))
            return machine, arrow
        return None

    def _take(self, draft: Draft, machine: int, arrow: Arrow) -> None:
        i = draft.side
        side = self.pair.sides[i]
        states = draft.states[i]
        draft.states[i] = (*states[:machine], arrow.target, *states[machine + 1 :])
        draft.counters[i] = side.count(draft.counters[i], arrow)
        for slot in (machine, *arrow.resets):
            draft.refs[i][slot] = NOW
        draft.taken += 1
        draft.names.append(side.machines[machine][arrow.target].name)

    def _arrive(self, draft: Draft, size: int, parent: Node | None, bit: int, powered: bool) -> Iterator[Node]:
        self.explored += 1
        self.effort.spend(60 + size * size)
        states = (draft.states[0], draft.states[1])
        live = [self._live(draft, i, size) for i in (0, 1)]
        apart = draft.some & self.apart(states, draft.inputs) if powered else 0
        for still, those in self._standing(draft, live, powered).items():
            refs, clocks, limits, stands = _numbered(live, still)
            zone = z.widen(z.project(draft.zone, size, clocks), len(limits), limits)
            for some, differs in ((those & apart, True), (those & ~apart, False)):
                if some:
                    yield Node(
                        states=states,
                        refs=refs,
                        counters=(self._live_counters(draft, 0), self._live_counters(draft, 1)),
                        inputs=draft.inputs,
                        some=some,
                        zone=zone,
                        size=len(limits),
                        still=stands,
                        changes=(parent.changes if parent else 0) + bool(bit),
                        differs=differs,
                        ways=[Way(some, parent, draft.before, bit, draft.log, clocks)] if parent else [],
                    )

    def _live(self, draft: Draft, i: int, size: int) -> Live:
        """For each clock of a side what stands for it, and the largest threshold that it can still meet."""
        live = []
        for ref, limit in zip(draft.refs[i], self.pair.outlooks[i].clock_limits(draft.states[i]), strict=True):
            if limit < 0 or ref == DEAD:
                ref = DEAD
            elif ref == EXPIRED or (ref > 0 and z.always_at_least(draft.zone, size, ref, limit)):
                ref = EXPIRED
            live.append((ref, limit))
        return live

    def _standing(self, draft: Draft, live: list[Live], powered: bool) -> dict[frozenset[tuple[int, int]], int]:
        """The clocks (side, slot) that stand still from here on, with the combinations of inputs for which it is those."""
        found = {ALL_RUN: draft.some}
        if not self.watched:
            return found
        for i, side in enumerate(self.pair.sides):
            for slot, bit in side.watches:
                if live[i][slot][0] in (DEAD, EXPIRED):
                    continue
                runs = self._shows(i, draft.states[i], draft.inputs, bit) if powered else 0
                split: dict[frozenset[tuple[int, int]], int] = {}
                for still, some in found.items():
                    for those, which in ((some & runs, still), (some & ~runs, still | {(i, slot)})):
                        if those:
                            split[which] = split.get(which, 0) | those
                found = split
        return found

    def _live_counters(self, draft: Draft, i: int) -> States:
        limits = self.pair.outlooks[i].counter_limits(draft.states[i])
        counters = draft.counters[i]
        if not counters:
            return counters
        return tuple(min(n, limit) if limit >= 0 else 0 for n, limit in zip(counters, limits, strict=True))


def _numbered(live: list[Live], still: frozenset[tuple[int, int]]) -> tuple[tuple[Refs, Refs], Refs, list[int], int]:
    """The clocks of a zone: for each slot of both sides its number; which clock before each was, 0 for those reset just now; the
    largest threshold of each, after that of 0; and which of them stand still, as bits. Clocks of one age stay one clock where they
    run or stand together.
    """
    largest: dict[tuple[int, bool], int] = {}
    ages = []
    for i, slots in enumerate(live):
        for slot, (ref, limit) in enumerate(slots):
            age = (ref, (i, slot) in still)
            ages.append(age)
            if ref > 0 or ref == NOW:
                largest[age] = max(limit, largest.get(age, 0))
    # those that were reset come last
    order = [age for age in largest if age[0] != NOW] + [age for age in largest if age[0] == NOW]
    number = {age: at for at, age in enumerate(order, 1)}
    refs = [number.get(age, age[0]) for age in ages]
    cut = len(live[0])
    stands = sum(1 << at for at, (_, stood) in enumerate(order, 1) if stood)
    clocks = tuple(0 if ref == NOW else ref for ref, _ in order)
    return (tuple(refs[:cut]), tuple(refs[cut:])), clocks, [0, *(largest[age] for age in order)], stands
