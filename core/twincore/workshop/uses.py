"""What jobs teach about a board: places that could not be read, and positions that mean nothing by its profile."""

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from twincore.profile import Board, Family
from twincore.profile.faults import FaultList
from twincore.profile.record import Record, build_record
from twincore.settings import decode


@dataclass(frozen=True, slots=True)
class Taught:
    """A point that jobs could not read, or a function whose positions were found to mean nothing; in how many jobs."""

    of: str
    what: Literal["unread", "means nothing"]
    jobs: int


def found_record(board: Board, written: Mapping[str, Any]) -> Record:
    """How a board stood by what a job found; what this revision does not have is left out, and unread where it cannot be."""
    return _read(board, written) or Record(board.part_number, dict.fromkeys(board.points))


def _read(board: Board, written: Mapping[str, Any]) -> Record | None:
    names, faults = {each.id for each in board.elements}, FaultList()
    record = build_record({n: v for n, v in written.items() if n in names}, board, "found", faults)
    return None if faults.faults else record


def taught_by(board: Board, family: Family, found: Iterable[Mapping[str, Any]]) -> list[Taught]:
    """What the records of several jobs teach; the commonest first. A job that recorded nothing of an element says nothing of it."""
    unread: Counter[str] = Counter()
    reserved: Counter[str] = Counter()
    for written in found:
        record = _read(board, written)
        if record is None:
            continue
        read = {point.id for each in board.elements if each.id in written for point in each.points}
        unread.update(name for name in record.unreadable if name in read)
        reserved.update(name for name, each in decode(board, record, family).items() if not each.values)
    told = [Taught(name, "unread", count) for name, count in unread.items()]
    told += [Taught(name, "means nothing", count) for name, count in reserved.items()]
    return sorted(told, key=lambda each: -each.jobs)
