"""The other schools: copy position for position, and set by the leaflet's table."""

from dataclasses import dataclass
from typing import Any

from twincore.profile import Board, Record, Value
from twincore.profile.facts import missing_facts


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
    unpaired = list(replacement.elements)
    without_place: list[str] = []
    for element in original.elements:
        partner = next((e for e in unpaired if e.id == element.id and e.kind == element.kind), None) or next(
            (e for e in unpaired if e.kind == element.kind), None
        )
        if partner:
            unpaired.remove(partner)
        for index, point in enumerate(element.points):
            target = partner.points[index] if partner and index < len(partner.points) else None
            value = found.points[point.id]
            if target is None or (value is not None and value not in target.domain):
                without_place.append(point.id)
            elif not target.locked:
                points[target.id] = value
    return Copied(Record(replacement.part_number, points), tuple(without_place))


@dataclass(frozen=True, slots=True)
class ChartRow:
    """A row of a leaflet's table for a machine; `missing` are facts that would decide whether it holds."""

    chart: str
    row: int
    positions: dict[str, Any]
    missing: tuple[str, ...]


def chart_rows(board: Board, facts: dict[str, Any]) -> list[ChartRow]:
    """The rows that hold for these facts, and the possible ones with what is missing."""
    found = []
    for chart in board.charts:
        for index, (conditions, positions) in enumerate(chart.rows):
            missing = missing_facts(conditions, facts)
            if missing is not None:
                found.append(ChartRow(chart.id, index, positions, missing))
    return found
