"""Carry over: the positions of a replacement that give the functions of the original, or come closest."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

from twincore.heavy import load
from twincore.profile import Board, Family, FunctionDef, Record, Value
from twincore.settings import eliminate
from twincore.settings.acting import at_rest
from twincore.settings.decode import Decoded, decode
from twincore.settings.mattering import matters
from twincore.settings.problem import Problem, build_problem, still_possible

NO_WISHES: Mapping[str, Value] = MappingProxyType({})
MET = ("same", "within tolerance", "does not matter")
LARGEST_ELIMINATION = 600_000
"""Table entries up to which elimination is the quicker of the two exact solvers (measured: some ten seconds at the most)."""


@dataclass(frozen=True, slots=True)
class CarriedFunction:
    """One function on both boards: what was wanted, what the positions give, and how the two compare."""

    id: str
    wanted: Decoded
    got: Value | None
    verdict: str
    importance: str
    possible: bool | None = None
    """Of an open function: whether what is got is, within tolerance, one of what is still possible."""

    @property
    def met(self) -> bool:
        """Whether nobody has to decide about it: what is got is what is wanted, or it does not matter."""
        return self.verdict in MET

    @property
    def missed(self) -> bool:
        """Whether what is got is out of tolerance."""
        return self.verdict in ("off", "not on this board")

    def answer(self) -> dict[str, Any]:
        """As the command line writes it."""
        wanted = self.wanted.values[0] if self.wanted.decided else self.wanted.answer()
        answer = {"id": self.id, "wanted": wanted, "got": self.got, "verdict": self.verdict}
        return answer if self.possible is None else answer | {"possible": self.possible}


@dataclass(frozen=True, slots=True)
class Carried:
    """The result of a carry-over; `record` is None where every choice is reserved, and `why` names the functions."""

    record: Record | None
    functions: tuple[CarriedFunction, ...]
    moved: int
    why: tuple[str, ...] = ()
    proved: bool = True
    """Whether no other positions are better; otherwise they are the best that were found in time."""

    def misses(self, safety: bool) -> int:
        """How many functions are out of tolerance."""
        return sum(each.missed and (each.importance == "safety") == safety for each in self.functions)


def carry(
    original: Board, found: Record, replacement: Board, family: Family, wishes: Mapping[str, Value] = NO_WISHES
) -> Carried:
    """The best positions of a replacement for an original as found; `wishes` are functions wanted otherwise.

    Exact and deterministic: fewest safety functions out of tolerance, then fewest open safety functions out of all that
    is still possible, the same of other functions, least sum of relative deviations, fewest possible values that are
    safer than the one got, fewest points moved from factory, first in order. Locked points stay, reserved ones are avoided.
    Where that could not be proved in time, the best that were found are the answer and `proved` is false. Raises LimitError where
    none were found.
    """
    wanted = wanted_functions(original, found, family, wishes)
    problem = build_problem(replacement, family, wanted)
    positions, proved = _solve(problem)
    if positions is None:
        return Carried(None, (), 0, _reserved_everywhere(problem))
    record = Record(replacement.part_number, {name: positions[name] for name in replacement.points})
    functions = judge(wanted, replacement, record, family)
    moved = sum(value != problem.factory[name] for name, value in positions.items())
    return Carried(record, functions, moved, proved=proved)


def wanted_functions(
    original: Board, found: Record, family: Family, wishes: Mapping[str, Value] = NO_WISHES
) -> dict[str, Decoded]:
    """What the replacement should do: every function of the original, or the family's value for one it lacks.

    A wish (an upgrade that the owner wants) takes the place of what the original does; what acted for a while, such as
    a test mode, is not carried over.
    """
    decoded = decode(original, at_rest(original, found), family) | {
        name: Decoded((value,)) for name, value in wishes.items()
    }
    return {
        definition.id: decoded.get(definition.id) or Decoded((definition.if_absent,))  # type: ignore[arg-type]
        for definition in family.functions
        if definition.id in decoded or definition.if_absent is not None
    }


def judge(
    wanted: dict[str, Decoded], replacement: Board, record: Record, family: Family
) -> tuple[CarriedFunction, ...]:
    """How a replacement that stands so compares with what is wanted, function by function in the family's order."""
    got = decode(replacement, record, family)
    return tuple(
        _judge_one(definition, wanted, got.get(definition.id))
        for definition in family.functions
        if definition.id in wanted
    )


def met_wishes(functions: Iterable[CarriedFunction], wishes: Mapping[str, Value]) -> list[str]:
    """The functions that are wanted otherwise and that the replacement gives as wanted."""
    return [row.id for row in functions if row.id in wishes and row.met]


def _judge_one(definition: FunctionDef, every: Mapping[str, Decoded], got: Decoded | None) -> CarriedFunction:
    wanted = every[definition.id]
    if got is None:
        got = Decoded((definition.if_absent,)) if definition.if_absent is not None else None
    value = got.values[0] if got and got.decided else None
    if not matters(definition, every):
        verdict = "does not matter"
    elif not wanted.decided:
        verdict = "open"
    elif got is None:
        verdict = "not on this board"
    elif value is None:
        verdict = "open"
    elif definition.within(wanted.values[0], value):
        verdict = "same" if value == wanted.values[0] else "within tolerance"
    else:
        verdict = "off"
    possible = value is not None and still_possible(wanted, value, definition) if verdict == "open" else None
    return CarriedFunction(definition.id, wanted, value, verdict, definition.importance, possible)


def _solve(problem: Problem) -> tuple[dict[str, Value] | None, bool]:
    if eliminate.width_product(problem) <= LARGEST_ELIMINATION:
        return eliminate.solve(problem), True
    # loaded only here: the constraint solver takes over a second to import and few boards need it
    return load("twincore.settings.cpsat").solve(problem)  # type: ignore[no-any-return]


def _reserved_everywhere(problem: Problem) -> tuple[str, ...]:
    """The functions that no position gives by themselves, or all that are coupled where only together they clash."""
    alone = [
        term.function
        for term in problem.terms
        if eliminate.solve(Problem({n: problem.domains[n] for n in term.scope}, problem.factory, (term,))) is None
    ]
    return tuple(alone or [term.function for term in problem.terms if len(term.scope) > 0])
