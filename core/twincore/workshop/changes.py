"""What publishing a draft changes: function by function, and by the twin check between the two revisions."""

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import product
from math import prod
from typing import Literal

from twincore.behaviour import Proof, TraceChecked, check_trace, make_twin, prove
from twincore.errors import TwinError
from twincore.profile import Board, Family, Record, Trace, Value, factory_record
from twincore.profile.functions import same_meaning
from twincore.settings import decode_function

MOST_COMPARED = 4_096
MOST_SHOWN = 8

How = Literal["new", "gone", "same", "changed"]


@dataclass(frozen=True, slots=True)
class Moved:
    """A position at which a function's value changes; None where positions mean nothing (reserved)."""

    at: Mapping[str, Value]
    was: Value | None
    becomes: Value | None


@dataclass(frozen=True, slots=True)
class FunctionChange:
    """A function before and after; `moved` are positions with another value, at most MOST_SHOWN of `count`."""

    id: str
    how: How
    moved: tuple[Moved, ...] = ()
    count: int = 0


@dataclass(frozen=True, slots=True)
class Changes:
    """A revision in use against a draft of the next one.

    `elements` are settings that are new, gone or otherwise; `parts` are other parts of the document that are not the
    same; `proof` is the twin check between the two as they leave the maker, None where a behaviour is not known.
    """

    functions: tuple[FunctionChange, ...]
    elements: tuple[tuple[str, How], ...]
    parts: tuple[str, ...]
    proof: Proof | None

    @property
    def any(self) -> bool:
        """Whether anything changes at all."""
        return bool(self.parts or any(how != "same" for _, how in self.elements)) or any(
            each.how != "same" for each in self.functions
        )


def changes_between(old: Board, new: Board, family: Family) -> Changes:
    """What is otherwise in the new revision of a board, in the family as it will be."""
    names = [each.id for each in family.functions if each.id in old.functions or each.id in new.functions]
    known = old.behaviour is not None and new.behaviour is not None
    return Changes(
        tuple(_function(name, old, new, family) for name in names),
        _elements(old, new),
        tuple(
            key
            for key in dict.fromkeys([*old.document, *new.document])
            if key not in ("functions", "settings") and old.document.get(key) != new.document.get(key)
        ),
        _twins(old, new, family) if known and _same_points(old, new) else None,
    )


def _twins(old: Board, new: Board, family: Family) -> Proof | None:
    record = factory_record(new)
    try:
        return prove(make_twin(old, Record(old.part_number, dict(record.points)), new, record, family))
    except TwinError:
        return None


def _same_points(old: Board, new: Board) -> bool:
    return {n: set(p.domain) for n, p in old.points.items()} == {n: set(p.domain) for n, p in new.points.items()}


def _elements(old: Board, new: Board) -> tuple[tuple[str, How], ...]:
    mine = {each.id: each for each in old.elements}
    theirs = {each.id: each for each in new.elements}
    return tuple(
        (
            name,
            "new" if name not in mine else "gone" if name not in theirs
            else "same" if mine[name] == theirs[name] else "changed",
        )
        for name in dict.fromkeys([*mine, *theirs])
    )  # fmt: skip


def _function(name: str, old: Board, new: Board, family: Family) -> FunctionChange:
    one, other, definition = old.functions.get(name), new.functions.get(name), family.function(name)
    assert definition is not None  # names are the family's
    if one is None or other is None:
        return FunctionChange(name, "new" if one is None else "gone")
    if same_meaning(one, other, {**old.points, **new.points}):
        return FunctionChange(name, "same")
    scope = [each for each in new.points if each in {*one.scope, *other.scope}]
    if not _same_points(old, new) or prod(len(new.points[each].domain) for each in scope) > MOST_COMPARED:
        return FunctionChange(name, "changed")
    factory, moved = factory_record(new).points, []
    for at in product(*(new.points[each].domain for each in scope)):
        stands = dict(zip(scope, at, strict=True))
        record = Record(new.part_number, {**factory, **stands})
        values = [decode_function(each, board, record, definition) for each, board in ((one, old), (other, new))]
        was, becomes = (each.values[0] if each.decided else None for each in values)
        if was != becomes:
            moved.append(Moved(stands, was, becomes))
    if not moved:
        return FunctionChange(name, "same")
    return FunctionChange(name, "changed", tuple(moved[:MOST_SHOWN]), len(moved))


def traces_against(
    board: Board, family: Family, traces: Mapping[str, tuple[Trace, Record]]
) -> dict[str, TraceChecked | None]:
    """Every trace against a board that stood so when it was timed; None where that cannot be worked out."""
    found: dict[str, TraceChecked | None] = {}
    for name, (trace, record) in traces.items():
        try:
            found[name] = check_trace(board, record, family, trace)
        except TwinError:
            found[name] = None
    return found
