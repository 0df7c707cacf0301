"""How a board that cannot be read may be taken to stand: as a leaflet's row says, as its maker set it, as another job found it."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from twincore.carry_over import record_of
from twincore.errors import WrongValue
from twincore.job.case import Case, original_of
from twincore.job.rules.state import State
from twincore.job.shared.facts import fact_values
from twincore.job.targets.record import AssumedKept, Assumption
from twincore.profile import Value, as_shipped, written_positions
from twincore.profile.record import UNREADABLE
from twincore.profile.values import plain
from twincore.settings import set_by_table

SOURCES: dict[Assumption, str] = {
    "earlier job": "as an earlier job on this machine left it", "sister machine": "as on another machine of the kind",
    "leaflet": "as its leaflet sets it for this machine", "factory": "as its maker sets it",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Assumable:
    """One place to take positions from: which job, machine or leaflet, and how the elements stand there."""

    source: Assumption
    of: str
    positions: dict[str, Any]


def unread_elements(state: State) -> list[str]:
    """The elements that were looked at and cannot be read, in whole or in part."""
    return [name for name, value in state["found"].items() if UNREADABLE in str(value)]


def assumable(case: Case, told: Iterable[Assumable]) -> list[Assumable]:
    """Where positions may be taken from: other jobs first, as they are given, then the leaflet's row, then the maker's.

    Only what this board can take, and only of elements that cannot be read.
    """
    board = original_of(case)[1]
    table = set_by_table(board, fact_values(case), None)
    own = [Assumable("factory", "", _written(case, as_shipped(board).points))]
    if table.settled and table.record is not None:
        rows = ", ".join(f"{row.chart}, row {row.row + 1}" for row in table.holding)
        own.insert(0, Assumable("leaflet", rows, _written(case, table.record.points)))
    found = []
    for each in (*told, *own):
        positions = {name: each.positions[name] for name in unread_elements(case.state) if name in each.positions}
        whole = {name: value for name, value in positions.items() if _taken(case, name, value)}
        if whole:
            found.append(Assumable(each.source, each.of, whole))
    return found


def _written(case: Case, points: dict[str, Value | None]) -> dict[str, Any]:
    return dict(plain(written_positions(original_of(case)[1], points)))


def _taken(case: Case, name: str, value: Any) -> bool:
    """Whether this board can stand so, every place of it said."""
    if UNREADABLE in str(value):
        return False
    try:
        record_of(original_of(case)[1], {name: value})
    except WrongValue:
        return False
    return True


def assumed_words(name: str, each: AssumedKept) -> str:
    """What is assumed of an element and from where: "S1 taken as 0110, as its maker sets it (Wennick)"."""
    of = f", {each['of']}" if each.get("of") else ""
    return f"{name} could not be read and is taken as {each['value']}, {SOURCES[each['source']]}{of} ({each['by']})"
