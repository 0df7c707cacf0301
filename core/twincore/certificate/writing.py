"""Writes what a verdict of *identical* rests on, so that somebody else can check it: places that hold everything the boards can do."""

from collections.abc import Iterator
from dataclasses import replace
from fractions import Fraction
from typing import Any

from twincore.behaviour import Twin
from twincore.behaviour.lockstep import Config, everywhere
from twincore.behaviour.machine import DEAD, EXPIRED, Side
from twincore.behaviour.nodes import Key
from twincore.behaviour.pair import Pair
from twincore.behaviour.zone import OPEN, Zone
from twincore.behaviour.zones import ExactSearch
from twincore.certificate.about import digests
from twincore.errors import DocumentError, EndlessLoopError
from twincore.profile.document import dump, open_document
from twincore.profile.values import tidy

FORMAT = "worthy-twin/certificate"
MOST_PLACES = 2_000
"""Places that a certificate has at most; and it is a document like others, of 2 MB and 150,000 values."""
MOST_ARRIVALS = 20_000
"""Arrivals at a place after which nothing more is looked for."""
SIDES = ("original", "replacement")
Bounds = list[list[Any]]
"""[one, other]: equal ages (seconds) or counts; [one, other, most, strictly]: what one is more than the other at most."""


def certificate(twin: Twin, at_once: bool = False) -> dict[str, Any] | None:
    """The certificate of a twin; None where it is not shown to be the same everywhere, or would have more than MOST_PLACES.

    A place of it says where each machine of both boards stands, with which inputs, and bounds for differences of the ages of clocks
    and of counts; `checking.check` says what it must hold. With `at_once` only the lockstep is asked.
    """
    if twin.missing or twin.undecided:
        return None
    unit = twin.unit()
    pair = twin.pair(unit, laps=True)
    names = _Names(twin, pair, unit)
    # what is equal while clocks run together may hang on the inputs, which only the exact search tells
    configs = None if any(map(_runs_by_inputs, pair.sides)) else everywhere(pair, MOST_PLACES)
    if configs is not None:
        places = [names.of_config(config) for config in configs]
    elif at_once:
        return None
    else:
        search = ExactSearch(replace(pair, every_change=True), MOST_ARRIVALS)
        try:
            found = search.run()
        except EndlessLoopError:
            return None
        if found.nodes or not found.closed or search.loops or not pair.all_together:
            return None
        places = [names.of_place(*place) for place in search.everywhere()]
    if len(places) > MOST_PLACES:
        return None
    boards = (twin.original, twin.replacement)
    written = {
        "format": FORMAT, "version": 2, "original": twin.original.part_number, "replacement": twin.replacement.part_number,
        "digests": digests(twin.family.document, [board.document for board in boards], twin.positions),
        "replaced": [{"id": each.id, "original": each.original, "replacement": each.replacement} for each in twin.offsets],
        **({"wished": list(twin.wished)} if twin.wished else {}),
        "places": places,
    }  # fmt: skip
    try:
        return open_document(dump(written).encode(), "certificate").root
    except DocumentError:
        return None  # larger than a document may be


def _runs_by_inputs(side: Side) -> bool:
    """Whether it hangs on the inputs that a clock runs."""
    watched = {bit for _, bit in side.watches}
    return any(bit in watched for machine in side.machines for place in machine for bit, _, _ in place.conditional)


class _Names:
    """Places in the words of the documents."""

    def __init__(self, twin: Twin, pair: Pair, unit: int) -> None:
        self.pair, self.unit = pair, unit
        self.clocks: list[list[str]] = []
        self.counts: list[list[str]] = []
        for name, board, side in zip(SIDES, (twin.original, twin.replacement), pair.sides, strict=True):
            assert board.behaviour is not None  # looked at before
            own = [f"{name}/state {number}" for number in range(1, len(side.machines) + 1)]
            self.clocks.append([*own, *(f"{name}/clock {clock.id}" for clock in board.behaviour.clocks)])
            self.counts.append([f"{name}/count {counter.id}" for counter in board.behaviour.counters])

    def of_config(self, config: Config) -> dict[str, Any]:
        """A place of which only what is equal is known."""
        ages: Bounds = []
        slots = [*enumerate(self.clocks[0]), *enumerate(self.clocks[1])]
        first: dict[int, str] = {}
        for number, ((slot, name), clock) in enumerate(zip(slots, config.clocks, strict=True)):
            if clock == EXPIRED:
                side = self.pair.sides[number >= len(self.clocks[0])]
                ages += self._at_least(name, self._seconds(_longest(side, slot)))
            elif clock != DEAD:
                ages += self._equal(first.setdefault(clock, name), name)
        first = {}
        for name, tally in zip([*self.counts[0], *self.counts[1]], config.counters, strict=True):
            if tally != DEAD:
                ages += self._equal(first.setdefault(tally, name), name)
        return {**self._states(config.states), "power": config.powered, "ages": ages}

    def of_place(self, key: Key, some: int, zone: Zone) -> dict[str, Any]:
        """A place of the exact search."""
        states, refs, counters, told_alone, _ = key
        ages: Bounds = []
        first: dict[int, str] = {0: ""}
        for i in (0, 1):
            limits = self.pair.outlooks[i].clock_limits(states[i])
            for slot, (name, ref) in enumerate(zip(self.clocks[i], refs[i], strict=True)):
                if ref == EXPIRED:
                    ages += self._at_least(name, self._seconds(limits[slot]))
                elif ref > 0:
                    ages += self._equal(first.setdefault(ref, name), name)
            most = self.pair.outlooks[i].counter_limits(states[i])
            for name, limit, counted in zip(self.counts[i], most, counters[i], strict=True):
                if limit >= 0:
                    ages += self._at_least(name, counted)
                    ages += [[name, "", counted, False]] if counted < limit else []
        size = len(first)
        for i in range(size):
            for j in range(size):
                bound = zone[i * size + j]
                if i != j and bound < OPEN:
                    ages.append([first[i], first[j], self._seconds(bound >> 1), not bound & 1])
        sets = self.pair.sets
        # what cannot occur may be said or not
        inputs = list(self._combinations(some | sets.everything & ~sets.allowed, len(sets.bits)))
        told = {} if inputs == [{}] else {"inputs": inputs}
        return {**self._states(states), "power": self.pair.powered(told_alone), **told, "ages": ages}

    def _combinations(self, some: int, bits: int) -> Iterator[dict[str, Any]]:
        """A set of combinations of inputs as conditions, of which one must hold."""
        if not some:
            return
        half = 1 << bits
        if some == (1 << half) - 1:
            yield {}
            return
        bit = self.pair.sets.bits[bits - 1]
        low = some & (1 << (half >> 1)) - 1
        high = some >> (half >> 1)
        for each in self._combinations(low & high, bits - 1):
            yield each
        for on, rest in ((False, low & ~high), (True, high & ~low)):
            for each in self._combinations(rest, bits - 1):
                yield self._with(each, bit, on)

    def _with(self, conditions: dict[str, Any], bit: int, on: bool) -> dict[str, Any]:
        changes = self.pair.sides[0].changes
        number = bit.bit_length() - 1
        if number < len(changes.flags):
            return {**conditions, changes.flags[number]: on}
        threshold = changes.thresholds[number - len(changes.flags)]
        band = dict(conditions.get(threshold.level, {}))
        if on:
            band["from"] = max(threshold.at, band.get("from", threshold.at))
        else:
            band["below"] = min(threshold.at, band.get("below", threshold.at))
        return {**conditions, threshold.level: band}

    def _states(self, states: tuple[tuple[int, ...], tuple[int, ...]]) -> dict[str, Any]:
        return {name: side.names(each) for name, side, each in zip(SIDES, self.pair.sides, states, strict=True)}

    def _seconds(self, units: int) -> Any:
        return tidy(Fraction(units, self.unit))

    def _at_least(self, name: str, least: Any) -> Bounds:
        return [["", name, -least, False]] if least > 0 else []

    def _equal(self, one: str, other: str) -> Bounds:
        return [] if one == other else [[one, other]]


def _longest(side: Side, slot: int) -> int:
    """The longest time that a board compares a clock with, in units."""
    return max(
        (
            arrow.after
            for machine in side.machines
            for place in machine
            for arrow in place.arrows
            if arrow.clock == slot
        ),
        default=0,
    )
