"""Settings record: how the elements of one board stand, as far as they could be read."""

from dataclasses import dataclass
from typing import Any

from twincore.profile.board import Board
from twincore.profile.document import open_document
from twincore.profile.elements import Element
from twincore.profile.faults import FaultList, known
from twincore.profile.standing import doubtful_elements
from twincore.profile.values import Value

UNREADABLE = "?"


@dataclass(frozen=True, slots=True)
class Record:
    """What each point of a board was read as; None is unreadable."""

    part_number: str
    points: dict[str, Value | None]

    @property
    def unreadable(self) -> tuple[str, ...]:
        """The points that could not be read, in the board's order."""
        return tuple(name for name, value in self.points.items() if value is None)

    def possible(self, board: Board, point: str) -> tuple[Value, ...]:
        """The values that a point may have: the one read, or its whole domain."""
        value = self.points[point]
        return board.points[point].domain if value is None else (value,)


def parse_record(data: bytes, board: Board) -> Record:
    """Read a settings record and check it against its board; missing elements are unreadable."""
    root = open_document(data, "settings").root
    faults = FaultList()
    if root["part_number"] not in (board.part_number, *board.also_marked):
        faults.add("part_number", f'expected "{board.part_number}", found "{root["part_number"]}"')
    record = build_record(root["positions"], board, "positions", faults)
    faults.done()
    return record


def build_record(positions: dict[str, Any], board: Board, place: str, faults: FaultList) -> Record:
    """A record from positions as written: one entry an element, `?` for what could not be read."""
    elements = {element.id: element for element in board.elements}
    points: dict[str, Value | None] = dict.fromkeys(board.points)
    for name, written in positions.items():
        element = elements.get(name)
        if element is None:
            faults.add(f"{place}.{name}", f"expected an element of {board.part_number} ({known(elements)})")
        elif read := _read(element, written, f"{place}.{name}", faults):
            points.update(read)
    return Record(board.part_number, points)


def _read(element: Element, written: Any, place: str, faults: FaultList) -> dict[str, Value | None] | None:
    points = element.points
    if element.placed:
        if not isinstance(written, str) or len(written) != len(points):
            faults.add(place, f"expected {len(points)} places written as one text, ? for an unreadable one")
            return None
        symbols = element.symbols()
        for place_number, mark in enumerate(written, 1):
            if mark != UNREADABLE and mark not in symbols:
                faults.add(place, f'expected {known(symbols)} or ? at place {place_number}, found "{mark}"')
                return None
        return {
            point.id: None if mark == UNREADABLE else symbols[mark] for point, mark in zip(points, written, strict=True)
        }
    point = points[0]
    if written == UNREADABLE and UNREADABLE not in point.domain:
        return {point.id: None}
    if not element.rules.is_written_as(written) or written not in point.domain:
        faults.add(place, f"expected {element.wanted()} or ?")
        return None
    return {point.id: written}


def factory_record(board: Board) -> Record:
    """The board as it leaves the maker."""
    return Record(board.part_number, {name: point.factory for name, point in board.points.items()})


def as_shipped(board: Board) -> Record:
    """The board as it leaves the maker, as far as somebody knows: a sketch names a factory setting only because a document must."""
    doubtful = doubtful_elements(board.document, "factory")
    unknown = {point.id for element in board.elements if element.id in doubtful for point in element.points}
    points = {name: None if name in unknown else point.factory for name, point in board.points.items()}
    return Record(board.part_number, points)


def written_positions(board: Board, points: dict[str, Value | None]) -> dict[str, Value]:
    """Positions as a record writes them, one entry an element."""
    return {element.id: element.write([points[point.id] for point in element.points]) for element in board.elements}
