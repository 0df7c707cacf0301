"""The other schools: copy position for position, set by the leaflet's table, or let the board learn."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any, Literal, get_args

from twincore.profile import Board, Element, Record, Value
from twincore.profile.facts import missing_facts

School = Literal["functions", "table", "positions", "learning"]
"""By what its functions were (solved), by the leaflet's table, position for position, by learning."""
SCHOOLS: tuple[School, ...] = get_args(School)


@dataclass(frozen=True, slots=True)
class Copied:
    """A replacement set as the original stood; `without_place` are the original's points that it does not have."""

    record: Record
    without_place: tuple[str, ...]


def copy_positions(original: Board, found: Record, replacement: Board) -> Copied:
    """What somebody gets who sets the replacement as the original stood, place by place.

    Elements are paired by name where names agree, else by kind in the order of the file; what the original does not
    say stays at factory, and an unreadable place stays unreadable.
    """
    points: dict[str, Value | None] = {name: point.factory for name, point in replacement.points.items()}
    partners = _paired(original.elements, replacement.elements)
    without_place: list[str] = []
    for element in original.elements:
        partner = partners.get(element.id)
        for index, point in enumerate(element.points):
            target = partner.points[index] if partner and index < len(partner.points) else None
            value = found.points[point.id]
            if target is None or (value is not None and value not in target.domain):
                without_place.append(point.id)
            elif not target.locked:
                points[target.id] = value
    return Copied(Record(replacement.part_number, points), tuple(without_place))


def _paired(old: Sequence[Element], new: Sequence[Element]) -> dict[str, Element]:
    """For each old element the new one that somebody takes for it: of its name, and what is left over by kind in the order of the file."""
    found = {each.id: other for each in old for other in new if (each.id, each.kind) == (other.id, other.kind)}
    left = [each for each in new if each not in found.values()]
    for element in old:
        partner = next((each for each in left if each.kind == element.kind), None)
        if element.id not in found and partner:
            found[element.id] = partner
            left.remove(partner)
    return found


@dataclass(frozen=True, slots=True)
class ChartRow:
    """A row of a setting table for a machine; `missing` are facts that would decide whether it holds, `use` the parts
    that it says go with it, `notes` what it says besides.
    """

    chart: str
    title: str
    row: int
    positions: dict[str, Any]
    missing: tuple[str, ...]
    conditions: Mapping[str, Any] = field(default_factory=dict)
    use: tuple[str, ...] = ()
    notes: Mapping[str, str] = field(default_factory=dict)
    page: str = ""
    """Of the data sheet, as somebody wrote it down."""


def chart_rows(board: Board, facts: dict[str, Any]) -> list[ChartRow]:
    """The rows that hold for these facts, and the possible ones with what is missing."""
    found = []
    for chart in board.charts:
        for index, row in enumerate(chart.rows):
            missing = missing_facts(row.conditions, facts)
            if missing is not None:
                found.append(
                    ChartRow(
                        chart.id,
                        chart.title,
                        index,
                        row.positions,
                        missing,
                        row.conditions,
                        row.use,
                        row.notes,
                        chart.page,
                    )
                )
    return found


@dataclass(frozen=True, slots=True)
class ByTable:
    """What a leaflet's tables say for a machine.

    `record` is None where no row holds, or where rows that hold contradict each other (`clash` names the points); what
    the table leaves open stands as in the record that it was laid over. `possible` are rows for which facts are missing.
    """

    record: Record | None
    holding: tuple[ChartRow, ...]
    possible: tuple[ChartRow, ...]
    says: Mapping[str, Value]
    clash: tuple[str, ...]
    unsure: tuple[str, ...] = ()
    """The points that rows which could still hold would set otherwise, or besides."""

    @property
    def missing(self) -> tuple[str, ...]:
        """The facts that would decide which of the possible rows hold; those of the row that lacks fewest stand first."""
        rows = sorted(self.possible, key=lambda row: len(row.missing))
        return tuple(dict.fromkeys(name for row in rows for name in row.missing))

    @property
    def use(self) -> tuple[str, ...]:
        """The parts that the rows which hold say go with them, each once."""
        return tuple(dict.fromkeys(item for row in self.holding for item in row.use)) if self.settled else ()

    @property
    def settled(self) -> bool:
        """Whether the row can be taken as it is: no row that could still hold sets anything otherwise or besides."""
        return self.record is not None and not self.unsure

    def wanted(self, fact: str) -> Any:
        """What a missing fact is asked for: every value of the possible rows, true or false, or the range of the first."""
        asked = [row.conditions[fact] for row in self.possible if fact in row.missing]
        if isinstance(asked[0], dict | bool):
            return asked[0]
        values = [value for each in asked for value in (each if isinstance(each, list) else [each])]
        return [value for value in dict.fromkeys(map(_whole, values)) if value is not None]


def _whole(condition: Any) -> Any:
    """A condition that is a value; None for a range."""
    return None if isinstance(condition, dict) else condition


def set_by_table(board: Board, facts: dict[str, Any], over: Record | None) -> ByTable:
    """The positions that a board's tables give for a machine, laid over another record (or the factory's)."""
    rows = chart_rows(board, facts)
    holding = tuple(row for row in rows if not row.missing)
    says: dict[str, Value] = {}
    clash: list[str] = []
    for row in holding:
        for point, value in chart_points(board, row.positions).items():
            if says.setdefault(point, value) != value:
                clash.append(point)
    points = dict(over.points) if over else {name: point.factory for name, point in board.points.items()}
    record = Record(board.part_number, {**points, **says}) if holding and not clash else None
    possible = tuple(row for row in rows if row.missing)
    still = (each for row in possible for each in chart_points(board, row.positions).items())
    unsure = tuple(dict.fromkeys(point for point, value in still if says.get(point) != value))
    return ByTable(record, holding, possible, says, tuple(dict.fromkeys(clash)), unsure)


def chart_points(board: Board, positions: Mapping[str, Any]) -> dict[str, Value]:
    """The points that a row's positions set; a place written `-` is left open."""
    found: dict[str, Value] = {}
    for element in board.elements:
        written = positions.get(element.id, "-")
        if element.placed:
            symbols = element.symbols()
            marks = zip(element.points, str(written) if written != "-" else "", strict=False)
            found |= {point.id: symbols[mark] for point, mark in marks if mark != "-"}
        elif written != "-":
            found[element.points[0].id] = written
    return found


def off_own_table(original: Board, found: Record, facts: dict[str, Any]) -> dict[str, Value]:
    """Points at which the original itself stood otherwise than its own tables say, with what they say.

    Set wrong, or for a reason: somebody has to tell. Empty where no row holds or rows contradict each other.
    """
    table = set_by_table(original, facts, found)
    if table.record is None:
        return {}
    return {
        point: value
        for point, value in table.says.items()
        if found.points[point] is not None and found.points[point] != value
    }


@dataclass(frozen=True, slots=True)
class ByLearning:
    """What a board sets for itself.

    `record` has what it knows from being told which board it replaces, over another record; `finds` are functions that
    a learning run measures on the machine; `by_hand` are points that remain to be set, `knows` those that do not.
    """

    record: Record
    knows: tuple[str, ...]
    finds: tuple[str, ...]
    by_hand: tuple[str, ...]
    document: Mapping[str, Any]


def set_by_learning(original: Board, replacement: Board, over: Record | None) -> ByLearning | None:
    """What the new board would set for itself; None where its profile speaks of no learning."""
    learning = replacement.document.get("learning")
    if learning is None:
        return None
    written = learning.get("knows", {}).get(original.part_number, {})
    known = chart_points(replacement, written)
    points = dict(over.points) if over else {name: point.factory for name, point in replacement.points.items()}
    finds = tuple(name for name in learning.get("finds", ()) if name in replacement.functions)
    found_points = {point for name in finds for point in replacement.functions[name].scope}
    record = replace(over or Record(replacement.part_number, {}), points={**points, **known})
    left = tuple(
        name for name, point in replacement.points.items()
        if name not in known and name not in found_points and not point.locked
    )  # fmt: skip
    return ByLearning(record, tuple(known), finds, left, learning)
