"""Checks a certificate that two boards never show anything different, from their documents alone.

Shares nothing with what found it, and asks little of whoever reads it: a certificate lists *places*: a state of every machine of both
boards, the inputs with which they may stand there, and bounds for differences of ages and counts. Where the boards
start lies within a place; whatever can happen next from a place (time passing until an arrow is due, one input changing)
leads into places again; and in none do the outputs differ. By induction they never do.

Ages and counts are bounded by difference constraints (Bellman 1958; D. L. Dill 1989), kept as matrices in closed form.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from math import lcm
from typing import Any

Bound = tuple[int, int]
"""(units, 1) for at most, (units, 0) for less than."""
Matrix = list[list[Bound]]
NO_BOUND: Bound = (1 << 60, 1)
SIDES = ("original", "replacement")
MOST_ARROWS = 32
MOST_INPUTS = 16
MOST_PIECES = 200_000
"""Pieces of places that are looked at before a certificate counts as too much to check."""


class NotShown(Exception):
    """What a certificate does not show, in words."""


@dataclass(slots=True)
class _Arrow:
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
class _Board:
    machines: list[dict[str, Any]]
    own: list[int]
    """The variable of each machine's state clock."""
    named: dict[str, int]
    counts: dict[str, int]
    expired: dict[int, int]
    """For a clock that starts expired, the units that it has reached at least."""
    runs_off: list[int]
    kept_counts: list[int]
    arrows: list[dict[str, list[_Arrow]]] = field(default_factory=list)
    shows: list[dict[str, list[tuple[str, int]]]] = field(default_factory=list)
    """For each machine and state: (signal, inputs for which it is on)."""


@dataclass(slots=True)
class _Piece:
    """Where both boards stand, some inputs, and a matrix."""

    states: list[list[str]]
    power: bool
    inputs: int
    ages: Matrix

    def with_(self, inputs: int, ages: Matrix) -> "_Piece":
        return _Piece([list(each) for each in self.states], self.power, inputs, ages)


def check(
    family: Mapping[str, Any],
    boards: Sequence[Mapping[str, Any]],
    values: Sequence[Mapping[str, Any]],
    certificate: Mapping[str, Any],
) -> int:
    """How many places were checked. `values` are what each board's functions stand at (seconds, numbers, choices).

    Raises NotShown where the certificate does not show that the boards are the same.
    """
    return _Checker(family, boards, values).run(certificate)


class _Checker:
    def __init__(
        self, family: Mapping[str, Any], boards: Sequence[Mapping[str, Any]], values: Sequence[Mapping[str, Any]]
    ) -> None:
        self.values = values
        behaviours = [board["behaviour"] for board in boards]
        self.unit = lcm(1, *(Fraction(str(each)).denominator for each in self._times(behaviours)))
        self.bits = self._read_bits(family, behaviours)
        if len(self.bits) > MOST_INPUTS:
            raise NotShown(f"{len(self.bits)} inputs and thresholds are too many to check; {MOST_INPUTS} are allowed")
        size = 1 << len(self.bits)
        self.everything = (1 << size) - 1
        self.allowed = self._allowed(family)
        self.compared = [each["id"] for each in family["outputs"] if each.get("compare", True)]
        self.has_power = any(each["id"] == "power" for each in family["inputs"])
        self.rest = self._at_rest(family)
        self.power_at_rest = bool(family.get("rest", {}).get("power", True))
        self.count = 1
        self.boards = [self._board(each, index) for index, each in enumerate(behaviours)]
        self.looked_at = 0

    # reading the documents -----------------------------------------------------------------------------------------

    def _times(self, behaviours: Sequence[Mapping[str, Any]]) -> Iterator[Any]:
        for index, behaviour in enumerate(behaviours):
            for machine in behaviour.get("machines", [behaviour]):
                for state in machine["states"].values():
                    for go in state.get("go", []):
                        yield self._amount(go.get("after", 0), index)

    def _amount(self, amount: Any, index: int) -> Any:
        return self.values[index][amount] if isinstance(amount, str) else amount

    def _threshold(self, limit: Any, index: int) -> Fraction:
        if isinstance(limit, Mapping):
            return Fraction(str(self.values[index][limit["function"]])) + Fraction(str(limit.get("plus", 0)))
        return Fraction(str(self._amount(limit, index)))

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
            e["id"]: (Fraction(str(e["from"])), Fraction(str(e["to"]))) for e in family["inputs"] if e.get("level")
        }
        plain: set[str] = set()
        cuts: dict[str, set[Fraction]] = {name: set() for name in self.levels}
        for index, name, wanted in self._guards(behaviours):
            if isinstance(wanted, Mapping):
                low, high = self.levels[name]
                cuts[name] |= {at for each in wanted.values() if low < (at := self._threshold(each, index)) <= high}
            else:
                plain.add(name)
        flags = [each["id"] for each in family["inputs"] if not each.get("level") and each["id"] != "power"]
        tied = {name for never in family.get("never_together", []) if plain & set(never) for name in never}
        found: list[tuple[str, Fraction | None]] = [(name, None) for name in flags if name in plain | tied]
        return found + [(name, at) for name, each in cuts.items() for at in sorted(each)]

    def _bit_on(self, place: int) -> int:
        """The combinations in which a bit is on."""
        off = self.everything // ((1 << (1 << place)) + 1)
        return self.everything & ~off

    def _where(self, conditions: Mapping[str, Any], index: int) -> int:
        """The combinations in which inputs stand as asked; names that are no inputs are left to others."""
        found = self.everything
        for name, wanted in conditions.items():
            if not isinstance(wanted, Mapping):
                if (name, None) in self.bits:
                    on = self._bit_on(self.bits.index((name, None)))
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
        return self._bit_on(self.bits.index((name, at))) if at <= high else 0

    def _allowed(self, family: Mapping[str, Any]) -> int:
        found = self.everything
        named = {name for name, at in self.bits if at is None}
        for never in family.get("never_together", []):
            if set(never) <= named:
                found &= ~self._where(never, 0)
        for place, (name, at) in enumerate(self.bits):
            if at is not None and place and self.bits[place - 1][0] == name and self.bits[place - 1][1] is not None:
                found &= ~(self._bit_on(place) & ~self._bit_on(place - 1))
        return found & self.everything

    def _at_rest(self, family: Mapping[str, Any]) -> int:
        rest = family.get("rest", {})
        place = 0
        for number, (name, at) in enumerate(self.bits):
            if at is None:
                place |= bool(rest.get(name, False)) << number
            else:
                place |= (Fraction(str(rest.get(name, self.levels[name][0]))) >= at) << number
        return 1 << place

    def _board(self, behaviour: Mapping[str, Any], index: int) -> _Board:
        machines = list(behaviour.get("machines", [behaviour]))
        own = [self._new() for _ in machines]
        clocks, counters = behaviour.get("clocks", []), behaviour.get("counters", [])
        named = {each["id"]: self._new() for each in clocks}
        counts = {each["id"]: self._new() for each in counters}
        board = _Board(
            machines, own, named, counts, {},
            [named[each["id"]] for each in clocks if each.get("runs_without_power")],
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

    def _arrow(self, board: _Board, machine: int, go: Mapping[str, Any], index: int) -> _Arrow | None:
        if any(self.values[index][name] != value for name, value in go.get("when", {}).items()):
            return None
        count = go.get("count", {})
        limit = self._amount(count.get("reached", count.get("below", 0)), index)
        after = int(Fraction(str(self._amount(go.get("after", 0), index))) * self.unit)
        age = 0 if after <= 0 else board.named[go["clock"]] if "clock" in go else board.own[machine]
        inputs = {name for name, _ in self.bits} | {"power"}
        signals = [(name, bool(wanted)) for name, wanted in go.get("if", {}).items() if name not in inputs]
        where = self._where(go.get("if", {}), index)
        if go.get("if", {}).get("power") is False:
            return None  # nothing is taken without power
        return _Arrow(
            machine, go["to"], where, signals, age, after,
            board.counts[count["counter"]] if count else 0, -int(-Fraction(str(limit)) // 1), "reached" in count,
            [board.named[name] for name in go.get("reset", [])],
            [board.counts[name] for name in go.get("clear", [])],
            [board.counts[name] for name in go.get("add", [])],
        )  # fmt: skip

    def _signals(self, state: Mapping[str, Any], index: int) -> list[tuple[str, int]]:
        found = []
        for out in state.get("on", []):
            if isinstance(out, str):
                found.append((out, self.everything))
            elif all(self.values[index][name] == value for name, value in out.get("when", {}).items()):
                where = 0 if out.get("if", {}).get("power") is False else self._where(out.get("if", {}), index)
                found.append((out["output"], where))
        return found

    # the places ----------------------------------------------------------------------------------------------------

    def run(self, certificate: Mapping[str, Any]) -> int:
        """Read the places, and look at the start and at everything that follows from each."""
        self.places: dict[object, list[_Piece]] = {}
        try:
            every = [self._place(each) for each in certificate["places"]]
        except (KeyError, TypeError, ValueError, IndexError, AttributeError, ArithmeticError) as error:
            raise NotShown(f"a place of the certificate cannot be read: {error!r}") from error
        for place in every:
            self.places.setdefault(_key(place), []).append(place)
        self._within(self._start())
        for place in every:
            self._within(self._next(place))
        return len(every)

    def _place(self, written: Mapping[str, Any]) -> _Piece:
        states = [list(written[side]) for side in SIDES]
        for board, each in zip(self.boards, states, strict=True):
            for machine, state in zip(board.machines, each, strict=True):
                machine["states"][state]
        inputs = self.everything
        if "inputs" in written:
            inputs = 0
            for each in written["inputs"]:
                inputs |= self._where(each, 0)
        ages = self._free()
        for one, other, bound in self._bounds(written["ages"]):
            tightened = _tighten(ages, one, other, bound)
            if tightened is None:
                raise ValueError("bounds of ages that nothing can keep")
            ages = tightened
        return _Piece(states, bool(written["power"]), inputs & self.allowed, ages)

    def _bounds(self, written: Sequence[Sequence[Any]]) -> Iterator[tuple[int, int, Bound]]:
        """[one, other]: that they are equal; [one, other, most, strictly]: what one is more than the other at most."""
        for one, other, *rest in written:
            pair = self._variable(one), self._variable(other)
            if not rest:
                yield *pair, (0, 1)
                yield *pair[::-1], (0, 1)
            else:
                most, strictly = rest
                scale = 1 if "/count " in one + other else self.unit
                yield *pair, (int(Fraction(str(most)) * scale), 0 if strictly else 1)

    def _variable(self, name: str) -> int:
        """The variable of a name: "" for zero, `original/state 1`, `original/clock k`, `original/count n`."""
        if name == "":
            return 0
        side, _, rest = name.partition("/")
        kind, _, what = rest.partition(" ")
        board = self.boards[SIDES.index(side)]
        if kind == "state":
            return board.own[int(what) - 1]
        return {"clock": board.named, "count": board.counts}[kind][what]

    def _free(self) -> Matrix:
        """Ages and counts that may be anything from zero on."""
        ages = [[NO_BOUND] * self.count for _ in range(self.count)]
        for i in range(self.count):
            ages[i][i] = ages[0][i] = (0, 1)
        return ages

    # what can happen -----------------------------------------------------------------------------------------------

    def _start(self) -> Iterator[_Piece]:
        ages = self._free()
        for board in self.boards:
            for variable in [*board.own, *board.named.values(), *board.counts.values()]:
                ages = _become(ages, variable, board.expired.get(variable))
        states = [[machine["start"] for machine in board.machines] for board in self.boards]
        piece = _Piece(states, self.power_at_rest or not self.has_power, self.rest & self.allowed, ages)
        return self._settled(piece)

    def _next(self, place: _Piece) -> Iterator[_Piece]:
        if not place.power:
            running = [variable for board in self.boards for variable in board.runs_off]
            later = place.with_(place.inputs, _elapse(place.ages, running))
            yield from self._turned(later)
            yield from self._settled(self._powered_on(later))
            return
        running = [variable for board in self.boards for variable in [*board.own, *board.named.values()]]
        for piece, due in self._waiting(place):
            waited = _elapse(piece.ages, running)
            for age, after in due:
                ages: Matrix | None = _tighten(waited, 0, age, (-after, 1))
                for other, limit in due:
                    ages = ages and _tighten(ages, other, 0, (limit, 1))
                if ages:
                    yield from self._settled(piece.with_(piece.inputs, ages))
            before: Matrix | None = waited
            for other, limit in due:
                before = before and _tighten(before, other, 0, (limit, 0))
            if before:
                yield from self._turned(piece.with_(piece.inputs, before))
                if self.has_power:
                    yield self._powered_off(piece.with_(piece.inputs, before))

    def _turned(self, piece: _Piece) -> Iterator[_Piece]:
        for place in range(len(self.bits)):
            on = self._bit_on(place)
            step = 1 << place
            inputs = ((piece.inputs & on) >> step | (piece.inputs & ~on) << step) & self.allowed
            if inputs:
                yield from self._settled(piece.with_(inputs, piece.ages))

    def _powered_off(self, piece: _Piece) -> _Piece:
        ages = piece.ages
        for board, states in zip(self.boards, piece.states, strict=True):
            for number, machine in enumerate(board.machines):
                if states[number] not in machine.get("survive_power_loss", []):
                    states[number] = machine["start"]
            for variable in board.counts.values():
                if variable not in board.kept_counts:
                    ages = _become(ages, variable, None)
        piece.ages, piece.power = ages, False
        return piece

    def _powered_on(self, piece: _Piece) -> _Piece:
        piece = piece.with_(piece.inputs, piece.ages)
        for board in self.boards:
            for variable in [*board.own, *board.named.values()]:
                if variable not in board.runs_off:
                    piece.ages = _become(piece.ages, variable, board.expired.get(variable))
        piece.power = True
        return piece

    def _waiting(self, place: _Piece) -> Iterator[tuple[_Piece, list[tuple[int, int]]]]:
        """A place split by which arrows are due, and when, if nothing else happens; where one is due now is no rest."""
        pieces: list[tuple[_Piece, list[tuple[int, int]]]] = [(place, [])]
        for index, arrow in self._listed(place):
            split: list[tuple[_Piece, list[tuple[int, int]]]] = []
            for piece, due in pieces:
                where = piece.inputs & self._holding(index, arrow, piece)
                if piece.inputs & ~where:
                    split.append((piece.with_(piece.inputs & ~where, piece.ages), due))
                for counted, ages in self._counted(arrow, piece.ages) if where else ():
                    if not counted:
                        split.append((piece.with_(where, ages), due))
                    elif arrow.age and (early := _tighten(ages, arrow.age, 0, (arrow.after, 0))):
                        split.append((piece.with_(where, early), [*due, (arrow.age, arrow.after)]))
            pieces = split
            self._count(len(pieces))
        yield from pieces

    def _listed(self, piece: _Piece) -> Iterator[tuple[int, _Arrow]]:
        for index, (board, states) in enumerate(zip(self.boards, piece.states, strict=True)):
            for number, state in enumerate(states):
                for arrow in board.arrows[number][state]:
                    yield index, arrow

    def _holding(self, index: int, arrow: _Arrow, piece: _Piece) -> int:
        """The inputs for which what an arrow asks of inputs and signals holds."""
        where = arrow.where
        for name, wanted in arrow.signals:
            on = self._on(index, name, piece.states[index])
            where &= on if wanted else ~on
        return where & self.everything

    def _on(self, index: int, name: str, states: list[str]) -> int:
        """The inputs for which a board shows a signal."""
        found = 0
        for number, state in enumerate(states):
            for signal, where in self.boards[index].shows[number][state]:
                if signal == name:
                    found |= where
        return found

    def _counted(self, arrow: _Arrow, ages: Matrix) -> list[tuple[bool, Matrix]]:
        """Ages and counts split by whether what an arrow asks of a count holds."""
        if not arrow.count:
            return [(True, ages)]
        reached = _tighten(ages, 0, arrow.count, (-arrow.limit, 1))
        below = _tighten(ages, arrow.count, 0, (arrow.limit - 1, 1))
        halves = ((arrow.reached, reached), (not arrow.reached, below))
        return [(holds, each) for holds, each in halves if each]

    def _settled(self, piece: _Piece) -> Iterator[_Piece]:
        """Everywhere that both boards can come to rest at this instant."""
        waiting = [(piece, 0, 0)]
        while waiting:
            piece, index, taken = waiting.pop()
            self._count(1)
            while index < 2 and piece.power:
                found = self._taken(piece, index, taken, waiting)
                if found is None:
                    index, taken = index + 1, 0
                    continue
                piece, taken = self._after(piece, index, found), taken + 1
                if taken > MOST_ARROWS:
                    raise NotShown(f"from a place, the {SIDES[index]} never comes to rest")
            yield piece

    def _taken(self, piece: _Piece, index: int, taken: int, waiting: list[tuple[_Piece, int, int]]) -> _Arrow | None:
        """The arrow that is taken next; what stands otherwise than it asks waits to be looked at by itself."""
        for number, state in enumerate(piece.states[index]):
            for arrow in self.boards[index].arrows[number][state]:
                where = piece.inputs & self._holding(index, arrow, piece)
                if not where:
                    continue
                ages: Matrix | None = piece.ages
                others: list[Matrix] = []
                for holds, each in self._counted(arrow, piece.ages):
                    if holds:
                        ages = each
                    else:
                        others.append(each)
                if len(others) == 1 and ages is piece.ages:
                    continue
                if arrow.age and ages:
                    early = _tighten(ages, arrow.age, 0, (arrow.after, 0))
                    ages = _tighten(ages, 0, arrow.age, (-arrow.after, 1))
                    others += [early] if early else []
                if not ages:
                    continue
                if piece.inputs & ~where:
                    waiting.append((piece.with_(piece.inputs & ~where, piece.ages), index, taken))
                waiting.extend((piece.with_(where, other), index, taken) for other in others)
                piece.inputs, piece.ages = where, ages
                return arrow
        return None

    def _after(self, piece: _Piece, index: int, arrow: _Arrow) -> _Piece:
        board = self.boards[index]
        after = piece.with_(piece.inputs, piece.ages)
        after.states[index][arrow.machine] = arrow.target
        for variable in [board.own[arrow.machine], *arrow.resets, *arrow.clears]:
            after.ages = _become(after.ages, variable, None)
        for variable in arrow.adds:
            after.ages = _add_one(after.ages, variable)
        return after

    def _within(self, pieces: Iterator[_Piece]) -> None:
        """Raise NotShown unless all of these lie within places, and show the same on both boards."""
        for piece in pieces:
            for name in self.compared if piece.power else ():
                apart = self._on(0, name, piece.states[0]) ^ self._on(1, name, piece.states[1])
                if apart & piece.inputs:
                    raise NotShown(f"{_told(piece)} the two differ in “{name}”")
            left = piece.inputs
            for place in self.places.get(_key(piece), ()):
                if left & place.inputs and _inside(piece.ages, place.ages):
                    left &= ~place.inputs
            if left:
                raise NotShown(f"{_told(piece)} something leads out of the places of the certificate")

    def _count(self, more: int) -> None:
        self.looked_at += more
        if self.looked_at > MOST_PIECES:
            raise NotShown("this is more than can be checked")


def _key(piece: _Piece) -> object:
    return (tuple(map(tuple, piece.states)), piece.power)


def _told(piece: _Piece) -> str:
    one, other = (", ".join(each) for each in piece.states)
    return f"with the original in {one} and the replacement in {other}{'' if piece.power else ', without power,'}"


# difference constraints ------------------------------------------------------------------------------------------------


def _sum(a: Bound, b: Bound) -> Bound:
    if a[0] >= NO_BOUND[0] or b[0] >= NO_BOUND[0]:
        return NO_BOUND
    return (a[0] + b[0], a[1] & b[1])


def _tighten(ages: Matrix, i: int, j: int, bound: Bound) -> Matrix | None:
    """The part in which variable i less variable j keeps a bound; None where there is none."""
    if bound >= ages[i][j]:
        return ages
    if _sum(ages[j][i], bound) < (0, 1):
        return None
    found = [list(row) for row in ages]
    size = range(len(ages))
    for k in size:
        through = _sum(ages[k][i], bound)
        for m in size:
            total = _sum(through, ages[j][m])
            if total < found[k][m]:
                found[k][m] = total
    return found


def _elapse(ages: Matrix, running: Sequence[int]) -> Matrix:
    """The same after any time, in which these variables grow together."""
    found = [list(row) for row in ages]
    for i in running:
        for j in range(len(ages)):
            if j not in running:
                found[i][j] = NO_BOUND
    return found


def _become(ages: Matrix, variable: int, at_least: int | None) -> Matrix:
    """The same with a variable set to zero, or to anything from `at_least` on."""
    found = [list(row) for row in ages]
    for other in range(len(ages)):
        if other != variable:
            found[variable][other] = found[0][other] if at_least is None else NO_BOUND
            found[other][variable] = found[other][0] if at_least is None else _sum(found[other][0], (-at_least, 1))
    return found


def _add_one(ages: Matrix, variable: int) -> Matrix:
    found = [list(row) for row in ages]
    for other in range(len(ages)):
        if other != variable:
            found[variable][other] = _sum(found[variable][other], (1, 1))
            found[other][variable] = _sum(found[other][variable], (-1, 1))
    return found


def _inside(ages: Matrix, others: Matrix) -> bool:
    return all(a <= b for row, other in zip(ages, others, strict=True) for a, b in zip(row, other, strict=True))
