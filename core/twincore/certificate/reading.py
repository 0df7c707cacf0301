"""What a checker of certificates reads of a family and two boards: what can change, the arrows, and what each state shows."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from math import lcm
from typing import Any

from twincore.certificate.deciding import NotShown, as_fraction, equal

MOST_INPUTS = 16
"""Inputs and thresholds of levels that can be checked."""


@dataclass(slots=True)
class Arrow:
    """A transition: for which inputs and signals, from which age and count on, and what it sets to zero or adds to."""

    machine: int
    target: str
    where: int
    signals: list[tuple[str, bool]]
    age: int
    """The variable of the clock that is read; 0 for none."""
    after: int
    count: int
    limit: int
    reached: bool
    resets: list[int]
    clears: list[int]
    adds: list[int]


@dataclass(slots=True)
class Board:
    """A board's machines with the variables of its clocks and counts, its arrows and what it shows."""

    machines: list[dict[str, Any]]
    own: list[int]
    """The variable of each machine's state clock."""
    named: dict[str, int]
    counts: dict[str, int]
    expired: dict[int, int]
    """For a clock that starts expired, the units that it has reached at least."""
    kept_clocks: list[int]
    """The clocks that a power loss does not take back to their start."""
    always: list[int]
    """The clocks that run whenever there is power."""
    watches: list[tuple[int, str]]
    """(variable, signal) of the clocks that run only while a signal is on."""
    kept_counts: list[int]
    arrows: list[dict[str, list[Arrow]]] = field(default_factory=list)
    shows: list[dict[str, list[tuple[str, int]]]] = field(default_factory=list)
    """For each machine and state: (signal, inputs for which it is on)."""


class Documents:
    """Two boards with the values of their functions, read for a checker."""

    def __init__(
        self, family: Mapping[str, Any], boards: Sequence[Mapping[str, Any]], values: Sequence[Mapping[str, Any]]
    ) -> None:
        self.values = values
        behaviours = [board["behaviour"] for board in boards]
        self.inputs = {each["id"]: bool(each.get("level")) for each in family["inputs"]}
        """The inputs, and whether each is a level."""
        self.unit = lcm(1, *(each.denominator for each in self._times(behaviours)))
        self.bits = self._read_bits(family, behaviours)
        if len(self.bits) > MOST_INPUTS:
            raise NotShown(f"{len(self.bits)} inputs and thresholds are too many to check; {MOST_INPUTS} are allowed")
        size = 1 << len(self.bits)
        self.everything = (1 << size) - 1
        self.allowed = {power: self._allowed(family, power) for power in (False, True)}
        """The combinations that can occur, without power and with it."""
        self.compared = [each["id"] for each in family["outputs"] if each.get("compare", True)]
        self.has_power = any(each["id"] == "power" for each in family["inputs"])
        self.rest = self._at_rest(family)
        self.power_at_rest = bool(family.get("rest", {}).get("power", True))
        self.shown = [{*(each["id"] for each in family["outputs"]), *each.get("internal", ())} for each in behaviours]
        """The signals of each board."""
        self.count = 1
        self.boards = [self._board(each, index) for index, each in enumerate(behaviours)]

    def _times(self, behaviours: Sequence[Mapping[str, Any]]) -> Iterator[Fraction]:
        for index, behaviour in enumerate(behaviours):
            for machine in behaviour.get("machines", [behaviour]):
                for state in machine["states"].values():
                    for go in state.get("go", []):
                        yield self._amount(go.get("after", 0), index)

    def _amount(self, amount: Any, index: int) -> Fraction:
        return as_fraction(self._value(amount, index) if isinstance(amount, str) else amount)

    def _value(self, name: str, index: int) -> Any:
        """What a function of a board stands at."""
        if name not in self.values[index]:
            raise NotShown(f"of one of the boards it is not known what {name} stands at")
        return self.values[index][name]

    def _holds(self, when: Mapping[str, Any], index: int) -> bool:
        return all(equal(self._value(name, index), value) for name, value in when.items())

    def _threshold(self, limit: Any, index: int) -> Fraction:
        if isinstance(limit, Mapping):
            return self._amount(limit["function"], index) + as_fraction(limit.get("plus", 0))
        return self._amount(limit, index)

    def _guards(self, behaviours: Sequence[Mapping[str, Any]]) -> Iterator[tuple[int, str, Any]]:
        for index, behaviour in enumerate(behaviours):
            for machine in behaviour.get("machines", [behaviour]):
                for state in machine["states"].values():
                    for guard in [*state.get("go", []), *(o for o in state.get("on", []) if isinstance(o, Mapping))]:
                        for name, wanted in guard.get("if", {}).items():
                            yield index, name, wanted

    def _read_bits(
        self, family: Mapping[str, Any], behaviours: Sequence[Mapping[str, Any]]
    ) -> list[tuple[str, Fraction | None]]:
        """What can change: (input, None), or (level, threshold at or above which it stands), lowest first."""
        self.levels = {
            e["id"]: (as_fraction(e["from"]), as_fraction(e["to"])) for e in family["inputs"] if e.get("level")
        }
        plain: set[str] = set()
        cuts: dict[str, set[Fraction]] = {name: set() for name in self.levels}
        for index, name, wanted in self._guards(behaviours):
            if self.inputs.get(name, False) is not isinstance(wanted, Mapping):
                raise NotShown(f"{name} is asked for as what it is not")
            if isinstance(wanted, Mapping):
                low, high = self.levels[name]
                cuts[name] |= {at for each in wanted.values() if low < (at := self._threshold(each, index)) <= high}
            else:
                plain.add(name)
        flags = [name for name, level in self.inputs.items() if not level and name != "power"]
        counts = plain | {"power"}
        tied = {name for never in family.get("never_together", []) if counts & set(never) for name in never}
        found: list[tuple[str, Fraction | None]] = [(name, None) for name in flags if name in plain | tied]
        return found + [(name, at) for name, each in cuts.items() for at in sorted(each)]

    def bit_on(self, place: int) -> int:
        """The combinations in which a bit is on."""
        off = self.everything // ((1 << (1 << place)) + 1)
        return self.everything & ~off

    def where(self, conditions: Mapping[str, Any], index: int) -> int:
        """The combinations in which inputs stand as asked; the power, which is told apart, and signals are left to others."""
        found = self.everything
        for name, wanted in conditions.items():
            if not isinstance(wanted, Mapping):
                if name in self.inputs and name != "power":
                    on = self.bit_on(self.bits.index((name, None)))
                    found &= on if wanted else self.everything & ~on
            else:
                for key, limit in wanted.items():
                    above = self._at_or_above(name, self._threshold(limit, index))
                    found &= above if key == "from" else self.everything & ~above
        return found

    def _at_or_above(self, name: str, at: Fraction) -> int:
        low, high = self.levels[name]
        if at <= low:
            return self.everything
        return self.bit_on(self.bits.index((name, at))) if at <= high else 0

    def _allowed(self, family: Mapping[str, Any], power: bool) -> int:
        found = self.everything
        named = {name for name, at in self.bits if at is None} | {"power"}
        for never in family.get("never_together", []):
            if set(never) <= named and never.get("power", power) is power:
                found &= ~self.where(never, 0)
        for place, (name, at) in enumerate(self.bits):
            if at is not None and place and self.bits[place - 1][0] == name and self.bits[place - 1][1] is not None:
                found &= ~(self.bit_on(place) & ~self.bit_on(place - 1))
        return found & self.everything

    def _at_rest(self, family: Mapping[str, Any]) -> int:
        rest = family.get("rest", {})
        place = 0
        for number, (name, at) in enumerate(self.bits):
            if at is None:
                place |= bool(rest.get(name, False)) << number
            else:
                place |= (as_fraction(rest.get(name, self.levels[name][0])) >= at) << number
        return 1 << place

    def _board(self, behaviour: Mapping[str, Any], index: int) -> Board:
        machines = list(behaviour.get("machines", [behaviour]))
        own = [self._new() for _ in machines]
        clocks, counters = behaviour.get("clocks", []), behaviour.get("counters", [])
        named = {each["id"]: self._new() for each in clocks}
        counts = {each["id"]: self._new() for each in counters}
        board = Board(
            machines, own, named, counts, {},
            [named[each["id"]] for each in clocks if each.get("runs_without_power")],
            [*own, *(named[each["id"]] for each in clocks if "runs_while" not in each)],
            [(named[each["id"]], each["runs_while"]) for each in clocks if "runs_while" in each],
            [counts[each["id"]] for each in counters if each.get("survives_power_loss")],
        )  # fmt: skip
        for number, machine in enumerate(machines):
            board.arrows.append(
                {
                    name: [a for go in s.get("go", []) if (a := self._arrow(board, number, go, index))]
                    for name, s in machine["states"].items()
                }
            )
            board.shows.append({name: self._signals(state, index) for name, state in machine["states"].items()})
        every = [arrow for states in board.arrows for arrows in states.values() for arrow in arrows]
        for each in clocks:
            if each.get("starts") == "expired":
                variable = named[each["id"]]
                board.expired[variable] = max((arrow.after for arrow in every if arrow.age == variable), default=0)
        return board

    def _new(self) -> int:
        self.count += 1
        return self.count - 1

    def _arrow(self, board: Board, machine: int, go: Mapping[str, Any], index: int) -> Arrow | None:
        if not self._holds(go.get("when", {}), index):
            return None
        count = go.get("count", {})
        limit = self._amount(count.get("reached", count.get("below", 0)), index)
        after = int(self._amount(go.get("after", 0), index) * self.unit)
        age = 0 if after <= 0 else board.named[go["clock"]] if "clock" in go else board.own[machine]
        signals = [(name, bool(wanted)) for name, wanted in go.get("if", {}).items() if name not in self.inputs]
        if unknown := [name for name, _ in signals if name not in self.shown[index]]:
            raise NotShown(f"{unknown[0]} is neither an input nor a signal of the board")
        where = self.where(go.get("if", {}), index)
        if go.get("if", {}).get("power") is False:
            return None  # nothing is taken without power
        return Arrow(
            machine, go["to"], where, signals, age, after,
            board.counts[count["counter"]] if count else 0, -int(-limit // 1), "reached" in count,
            [board.named[name] for name in go.get("reset", [])],
            [board.counts[name] for name in go.get("clear", [])],
            [board.counts[name] for name in go.get("add", [])],
        )  # fmt: skip

    def _signals(self, state: Mapping[str, Any], index: int) -> list[tuple[str, int]]:
        found = []
        for out in state.get("on", []):
            if isinstance(out, str):
                found.append((out, self.everything))
            elif self._holds(out.get("when", {}), index):
                where = 0 if out.get("if", {}).get("power") is False else self.where(out.get("if", {}), index)
                found.append((out["output"], where))
        return found
