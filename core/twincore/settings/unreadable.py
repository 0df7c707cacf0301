"""Which unreadable points matter, and which single reading would decide most."""

from dataclasses import dataclass, replace

from twincore.profile import Board, Family, Record
from twincore.settings.decode import decode


@dataclass(frozen=True, slots=True)
class UnreadablePoint:
    """An unreadable point: the open functions that hang on it, and how many its reading decides on average."""

    point: str
    functions: tuple[str, ...]
    decides: float


def unreadable_points(board: Board, record: Record, family: Family) -> list[UnreadablePoint]:
    """Every unreadable point, the one whose reading decides most functions first; those that matter to none last."""
    open_now = [name for name, decoded in decode(board, record, family).items() if not decoded.decided]
    found = []
    for point in record.unreadable:
        hanging = tuple(name for name in open_now if point in board.functions[name].scope)
        decided = 0
        domain = board.points[point].domain if hanging else ()
        for value in domain:
            read = replace(record, points={**record.points, point: value})
            after = decode(board, read, family)
            decided += sum(after[name].decided for name in hanging)
        found.append(UnreadablePoint(point, hanging, decided / len(domain) if domain else 0.0))
    return sorted(found, key=lambda each: -each.decides)
