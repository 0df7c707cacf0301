"""The schools side by side: what each would set on the replacement, and where they disagree."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from twincore.profile import Board, Family, Record, Value
from twincore.profile.facts import ORIGINAL
from twincore.settings import (
    ByLearning,
    ByTable,
    Decoded,
    copy_positions,
    decode,
    matters,
    set_by_learning,
    set_by_table,
)
from twincore.settings import School as SchoolName


@dataclass(frozen=True, slots=True)
class School:
    """What one school sets: `record` None where it says nothing here, and `counts` where somebody might follow it."""

    id: SchoolName
    record: Record | None
    counts: bool
    without_place: tuple[str, ...] = ()
    table: ByTable | None = None
    learning: ByLearning | None = None


def schools_of(
    original: Board, found: Record, replacement: Board, facts: Mapping[str, Any], solved: Record | None
) -> list[School]:
    """The four schools in the order of SCHOOLS: by functions, by the table, position for position, by learning.

    Copying counts only between boards whose banks look alike: nobody copies a bank onto a dial.
    """
    # a leaflet may list its rows by the number of the board that is replaced: that is known here
    table = set_by_table(replacement, {ORIGINAL: original.part_number, **facts}, solved)
    copied = copy_positions(original, found, replacement)
    learning = set_by_learning(original, replacement, solved)
    says = learning is not None and bool(learning.knows)
    return [
        School("functions", solved, solved is not None),
        School("table", table.record, table.record is not None, table=table),
        School("positions", copied.record, _look_alike(original, replacement), copied.without_place),
        School("learning", learning.record if learning else None, says, learning=learning),
    ]


def _look_alike(original: Board, replacement: Board) -> bool:
    return sorted((e.kind, len(e.points)) for e in original.elements) == sorted(
        (e.kind, len(e.points)) for e in replacement.elements
    )


def values_of(school: School, replacement: Board, family: Family) -> dict[str, Decoded]:
    """What each function of the replacement would be."""
    return decode(replacement, school.record, family) if school.record else {}


def disagreements(
    schools: list[School], wanted: Mapping[str, Decoded], replacement: Board, family: Family
) -> dict[str, dict[SchoolName, Value]]:
    """Functions for which schools that count give values that are not the same within tolerance, with each value."""
    found: dict[str, dict[SchoolName, Value]] = {}
    values = {s.id: values_of(s, replacement, family) for s in schools if s.counts and s.record}
    for definition in family.functions:
        said = {
            name: each[definition.id].values[0]
            for name, each in values.items()
            if definition.id in each and each[definition.id].decided
        }
        if not matters(definition, wanted):
            continue
        mine = wanted.get(definition.id)
        reference = mine.values[0] if mine and mine.decided else said.get("functions")
        if reference is None:
            continue
        apart = [
            name for name, value in said.items() if name != "functions" and not definition.within(reference, value)
        ]
        if apart:
            found[definition.id] = said
    return found
