"""Nodes: where two boards stand, with all the ages and inputs that they can have there, and the way on which they came."""

from dataclasses import dataclass, replace
from fractions import Fraction

from twincore.behaviour import zone as z
from twincore.behaviour.input_sets import InputSets
from twincore.behaviour.timing import Distance, Spans, earliest_times

States = tuple[int, ...]
Refs = tuple[int, ...]
"""For each clock slot of a board: the zone's clock that gives its age (from 1), or EXPIRED, DEAD, NOW."""
Log = tuple[tuple[int, int | None, int | None, bool], ...]
"""What was decided about ages at an instant: (zone clock, at least, at most, strict)."""
Key = tuple[tuple[States, States], tuple[Refs, Refs], tuple[States, States], int, int]
"""The states of both boards, their clocks, their counters, the inputs that are told one by one, and the clocks that stand still."""
ANY = -1
"""For the input bit changed: one of those that are followed together, whichever."""


@dataclass(frozen=True, slots=True)
class Way:
    """How a node is come to, for some combinations of inputs."""

    some: int
    parent: "Node"
    before: int
    """The combinations at the parent from which it comes."""
    changed: int
    """The input bit changed just before, ANY of those that are followed together, or 0 for a timer."""
    log: Log
    clocks: tuple[int, ...]
    """For each clock of the node's zone the one of the parent's that it was (from 1), 0 where it was reset just now."""


@dataclass(slots=True)
class Node:
    """A settled pair of configurations with all the ages they can have on arrival, for some combinations of inputs."""

    states: tuple[States, States]
    refs: tuple[Refs, Refs]
    counters: tuple[States, States]
    inputs: int
    """The inputs that are told one by one, the power among them."""
    some: int
    """The combinations in which the others stand, as a set."""
    zone: z.Zone
    size: int
    """The clocks of the zone and one more."""
    still: int
    """The clocks of the zone that stand still from here on, as bits."""
    changes: int
    differs: bool
    ways: list[Way]
    """Ways to it from the start on, one at least for each of its combinations; none at the start."""

    def key(self) -> Key:
        """What makes two nodes comparable by their zones and sets alone."""
        return (self.states, self.refs, self.counters, self.inputs, self.still)

    def part(self, some: int) -> "Node":
        """The node for some of its combinations."""
        return replace(self, some=some, ways=list(self.ways))


@dataclass(slots=True)
class Found:
    """How a search ended: nodes that differ after equally few changes, and whether nothing was left out before them."""

    nodes: list[Node]
    closed: bool
    explored: int
    covered: bool = False
    """Whether all was looked at, and a difference met to which no way at exact times was found."""
    least: int = 0
    """Where it was broken off: no difference needs fewer changes."""


@dataclass(frozen=True, slots=True)
class Loop:
    """A board that goes round without end: which of the two, the states it goes through, and the way there."""

    side: int
    states: tuple[str, ...]
    node: Node


@dataclass(frozen=True, slots=True)
class Event:
    """A moment on a way: where the boards stand then, how all inputs do, and which of these was changed at that moment."""

    node: Node
    inputs: int
    changed: int
    distances: tuple[Distance, ...]
    """What was decided there about the time since earlier events."""


def way_to(node: Node, sets: InputSets) -> list[Event]:
    """A way to a node from the start: one combination of inputs is picked at its end, and one change undone at each step."""
    back: list[tuple[Node, int, int, Way | None]] = []
    some, here = node.some, node
    inputs = node.inputs | sets.first(some)
    while here.ways:
        place = sets.place(inputs)
        way = next(each for each in here.ways if each.some >> place & 1)
        changed = way.changed
        if changed == ANY:
            changed = next(bit for bit in sets.bits if way.before >> sets.place(inputs ^ bit) & 1)
        back.append((here, inputs, changed, way))
        inputs ^= changed
        here = way.parent
    back.append((here, inputs, 0, None))
    events: list[Event] = []
    ran: list[Spans] = []
    for here, inputs, changed, taken in reversed(back):
        number = len(events)
        # while what was before this event lasted, its clocks went on, but for those that stood
        ran = [
            spans if taken and taken.parent.still >> clock & 1 else _on(spans, number)
            for clock, spans in enumerate(ran, 1)
        ]
        log = taken.log if taken else ()
        distances = tuple(Distance(ran[clock - 1], least, most, strict) for clock, least, most, strict in log)
        clocks = taken.clocks if taken else (0,) * (here.size - 1)
        ran = [ran[clock - 1] if clock else () for clock in clocks]
        events.append(Event(here, inputs, changed, distances))
    return events


def times_of(way: list[Event]) -> list[Fraction] | None:
    """The earliest times at which a way can be gone, in units; None where it cannot."""
    return earliest_times(len(way), [distance for event in way for distance in event.distances])


def _on(spans: Spans, number: int) -> Spans:
    """The spans over which a clock ran, which also ran from the event before the one of this number to it."""
    if spans and spans[-1][1] == number - 1:
        return (*spans[:-1], (spans[-1][0], number))
    return (*spans, (number - 1, number))
