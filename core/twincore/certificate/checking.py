"""Checks a certificate that two boards never show anything different, from their documents alone.

Shares nothing with what found it, and asks little of whoever reads it: a certificate lists *places*: a state of every machine of both
boards, the inputs with which they may stand there, and bounds for differences of ages and counts. Where the boards
start lies within a place; whatever can happen next from a place (time passing until an arrow is due, one input changing)
leads into places again; and in none do the outputs differ. By induction they never do.

Ages and counts are bounded by difference constraints (Bellman 1958; D. L. Dill 1989), kept as matrices in closed form.
"""

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from twincore.certificate.about import digest, digests
from twincore.certificate.deciding import NotShown, as_fraction, decide
from twincore.certificate.differences import NO_BOUND, Bound, Matrix, add_one, become, elapse, inside, tighten
from twincore.certificate.reading import Arrow, Documents

SIDES = ("original", "replacement")
MOST_ARROWS = 32
MOST_PIECES = 200_000
"""Pieces of places that are looked at before a certificate counts as too much to check."""


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
    positions: Sequence[Mapping[str, Any]],
    certificate: Mapping[str, Any],
    wished: Collection[str] = (),
) -> int:
    """How many places were checked. `positions` are how both boards stand, as their records write it; functions that are `wished`
    otherwise are compared by what the original does.

    Raises NotShown where the certificate does not show that the boards are the same.
    """
    numbers = [board["part_number"] for board in boards]
    if [certificate.get(side) for side in SIDES] != numbers or certificate.get("digests") != digests(
        family, boards, positions
    ):
        raise NotShown("it is about another family, other boards or other settings")
    if sorted(certificate.get("wished", ())) != sorted(wished):
        raise NotShown("it is about other wishes")
    try:
        values, replaced = decide(family, boards, positions, wished)
        if digest(certificate.get("replaced")) != digest(replaced):
            raise NotShown("other numbers were replaced than lie within tolerance")
        checker = _Checker(family, boards, values)
    except (KeyError, TypeError, ValueError, IndexError, AttributeError, ArithmeticError) as error:
        raise NotShown(f"the documents cannot be read: {error!r}") from error
    return checker.run(certificate)


class _Checker(Documents):
    # the places ----------------------------------------------------------------------------------------------------

    def run(self, certificate: Mapping[str, Any]) -> int:
        """Read the places, and look at the start and at everything that follows from each."""
        self.looked_at = 0
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
        if not isinstance(written["power"], bool) or not (written["power"] or self.has_power):
            raise ValueError("expected power to be on or off, as it can be")
        inputs = self.everything
        if "inputs" in written:
            inputs = 0
            for each in written["inputs"]:
                inputs |= self._stand(each)
        ages = self._free()
        for one, other, bound in self._bounds(written["ages"]):
            tightened = tighten(ages, one, other, bound)
            if tightened is None:
                raise ValueError("bounds of ages that nothing can keep")
            ages = tightened
        return _Piece(states, written["power"], inputs & self.allowed[written["power"]], ages)

    def _stand(self, conditions: Mapping[str, Any]) -> int:
        """The combinations in which the inputs stand as a place says, by names and thresholds that count for these boards."""
        for name, wanted in conditions.items():
            asked = (
                {(name, as_fraction(at)) for at in wanted.values()} if isinstance(wanted, Mapping) else {(name, None)}
            )
            if not asked <= set(self.bits) or not (isinstance(wanted, bool) or set(wanted) <= {"from", "below"}):
                raise ValueError(f"{name} does not count, or not so")
        return self.where(conditions, 0)

    def _bounds(self, written: Sequence[Sequence[Any]]) -> Iterator[tuple[int, int, Bound]]:
        """[one, other]: that they are equal; [one, other, most, strictly]: what one is more than the other at most."""
        for one, other, *rest in written:
            pair = self._variable(one), self._variable(other)
            if not rest:
                yield *pair, (0, 1)
                yield *pair[::-1], (0, 1)
            else:
                most, strictly = rest
                units = as_fraction(most) * (1 if "/count " in one + other else self.unit)
                if units.denominator != 1 or not isinstance(strictly, bool):
                    raise ValueError(f"{most} is between the times that count")
                yield *pair, (units.numerator, 0 if strictly else 1)

    def _variable(self, name: str) -> int:
        """The variable of a name: "" for zero, `original/state 1`, `original/clock k`, `original/count n`."""
        if name == "":
            return 0
        side, _, rest = name.partition("/")
        kind, _, what = rest.partition(" ")
        board = self.boards[SIDES.index(side)]
        if kind == "state":
            return board.own[range(1, len(board.own) + 1).index(int(what))]
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
                ages = become(ages, variable, board.expired.get(variable))
        states = [[machine["start"] for machine in board.machines] for board in self.boards]
        power = self.power_at_rest or not self.has_power
        return self._settled(_Piece(states, power, self.rest & self.allowed[power], ages))

    def _next(self, place: _Piece) -> Iterator[_Piece]:
        if not place.power:
            running = [each for board in self.boards for each in board.kept_clocks if each in board.always]
            later = place.with_(place.inputs, elapse(place.ages, running))
            yield from self._turned(later)
            yield from self._settled(self._powered_on(later))
            return
        for part, running in self._running(place):
            yield from self._passing(part, running)

    def _running(self, place: _Piece) -> list[tuple[_Piece, list[int]]]:
        """A place split by which clocks run there."""
        pieces = [(place, [each for board in self.boards for each in board.always])]
        for index, board in enumerate(self.boards):
            for variable, signal in board.watches:
                on = self._on(index, signal, place.states[index])
                pieces = [
                    (piece.with_(those, piece.ages), [*running, variable] if runs else running)
                    for piece, running in pieces
                    for runs, those in ((True, piece.inputs & on), (False, piece.inputs & ~on))
                    if those
                ]
        return pieces

    def _passing(self, place: _Piece, running: list[int]) -> Iterator[_Piece]:
        """Everything that follows from a place in which these clocks run."""
        for piece, pending in self._waiting(place):
            due = [(age, after) for age, after in pending if age in running]
            waited = elapse(piece.ages, running)
            for age, after in due:
                ages: Matrix | None = tighten(waited, 0, age, (-after, 1))
                for other, limit in due:
                    ages = ages and tighten(ages, other, 0, (limit, 1))
                if ages:
                    yield from self._settled(piece.with_(piece.inputs, ages))
            before: Matrix | None = waited
            for other, limit in due:
                before = before and tighten(before, other, 0, (limit, 0))
            if before:
                yield from self._turned(piece.with_(piece.inputs, before))
                if self.has_power:
                    yield self._powered_off(piece.with_(piece.inputs, before))

    def _turned(self, piece: _Piece) -> Iterator[_Piece]:
        for place in range(len(self.bits)):
            on = self.bit_on(place)
            step = 1 << place
            inputs = ((piece.inputs & on) >> step | (piece.inputs & ~on) << step) & self.allowed[piece.power]
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
                    ages = become(ages, variable, None)
        piece.ages, piece.power, piece.inputs = ages, False, piece.inputs & self.allowed[False]
        return piece

    def _powered_on(self, piece: _Piece) -> _Piece:
        piece = piece.with_(piece.inputs, piece.ages)
        for board in self.boards:
            for variable in [*board.own, *board.named.values()]:
                if variable not in board.kept_clocks:
                    piece.ages = become(piece.ages, variable, board.expired.get(variable))
        piece.power, piece.inputs = True, piece.inputs & self.allowed[True]
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
                    elif arrow.age and (early := tighten(ages, arrow.age, 0, (arrow.after, 0))):
                        split.append((piece.with_(where, early), [*due, (arrow.age, arrow.after)]))
            pieces = split
            self._count(len(pieces))
        yield from pieces

    def _listed(self, piece: _Piece) -> Iterator[tuple[int, Arrow]]:
        for index, (board, states) in enumerate(zip(self.boards, piece.states, strict=True)):
            for number, state in enumerate(states):
                for arrow in board.arrows[number][state]:
                    yield index, arrow

    def _holding(self, index: int, arrow: Arrow, piece: _Piece) -> int:
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

    def _counted(self, arrow: Arrow, ages: Matrix) -> list[tuple[bool, Matrix]]:
        """Ages and counts split by whether what an arrow asks of a count holds."""
        if not arrow.count:
            return [(True, ages)]
        reached = tighten(ages, 0, arrow.count, (-arrow.limit, 1))
        below = tighten(ages, arrow.count, 0, (arrow.limit - 1, 1))
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

    def _taken(self, piece: _Piece, index: int, taken: int, waiting: list[tuple[_Piece, int, int]]) -> Arrow | None:
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
                    early = tighten(ages, arrow.age, 0, (arrow.after, 0))
                    ages = tighten(ages, 0, arrow.age, (-arrow.after, 1))
                    others += [early] if early else []
                if not ages:
                    continue
                if piece.inputs & ~where:
                    waiting.append((piece.with_(piece.inputs & ~where, piece.ages), index, taken))
                waiting.extend((piece.with_(where, other), index, taken) for other in others)
                piece.inputs, piece.ages = where, ages
                return arrow
        return None

    def _after(self, piece: _Piece, index: int, arrow: Arrow) -> _Piece:
        board = self.boards[index]
        after = piece.with_(piece.inputs, piece.ages)
        after.states[index][arrow.machine] = arrow.target
        for variable in [board.own[arrow.machine], *arrow.resets, *arrow.clears]:
            after.ages = become(after.ages, variable, None)
        for variable in arrow.adds:
            after.ages = add_one(after.ages, variable)
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
                if left & place.inputs and inside(piece.ages, place.ages):
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
