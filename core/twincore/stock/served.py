"""Lists in CSV: the machines that vans look after (`worthy-twin/served`), pieces, and what is on a van's shelf (`worthy-twin/stock`).

RFC 4180, UTF-8, comma or semicolon, the first line names the columns; columns that are not known are refused but for `fact.NAME`.
"""

import csv
import io
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, TypeVar

from twincore.errors import DocumentError, Fault
from twincore.profile.facts import fact_read
from twincore.profile.values import plain
from twincore.stock.planning import MOST_COPIES

Row = TypeVar("Row")
MOST_ROWS = 20_000
MOST_NAME = 80
FACT = "fact."


@dataclass(frozen=True, slots=True)
class Served:
    """Machines of one kind that a van looks after, and what was counted of them."""

    van: str
    board: str
    machines: int
    failed: float = 0.0
    """Boards of them that failed in those years."""
    years: float = 0.0
    """Machine-years that were counted."""
    facts: Mapping[str, Any] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Priced:
    """What a piece costs, and how much of a shelf it takes."""

    piece: str
    cost: float
    size: float = 1.0
    most: int = 3


@dataclass(frozen=True, slots=True)
class Held:
    """So many of a piece are in a van."""

    van: str
    piece: str
    count: int


def parse_served(data: bytes) -> list[Served]:
    """The machines served. Raises DocumentError with the places (line, column) of what is wrong."""

    def row(cells: "Cells") -> Served:
        years, failed = cells.number("years", 0.0), cells.number("failed", 0.0)
        if failed > years:
            cells.wrong("failed", f"at most {years:g}, one a machine and year")
        return Served(cells.name("van"), cells.name("board"), cells.count("machines"), failed, years, cells.facts())

    return _parsed(data, ("van", "board", "machines"), ("failed", "years"), row, facts=True)


def parse_pieces(data: bytes) -> list[Priced]:
    """What pieces cost. Raises DocumentError."""

    def row(cells: "Cells") -> Priced:
        most = cells.count("most", 3)
        if not 1 <= most <= MOST_COPIES:
            cells.wrong("most", f"from 1 to {MOST_COPIES}")
        return Priced(cells.name("piece"), cells.number("cost"), cells.number("size", 1.0), most)

    return _parsed(data, ("piece", "cost"), ("size", "most"), row)


def parse_stock(data: bytes) -> list[Held]:
    """What is in the vans. Raises DocumentError."""

    def row(cells: "Cells") -> Held:
        return Held(cells.name("van"), cells.name("piece"), cells.count("count"))

    return _parsed(data, ("van", "piece", "count"), (), row)


class Cells:
    """One line's cells by their columns; what is wrong in one is noted with its place."""

    def __init__(self, line: int, cells: Mapping[str, str], faults: list[Fault]) -> None:
        self.line, self.cells, self.faults = line, cells, faults

    def wrong(self, column: str, expected: str) -> None:
        """Note what is wrong."""
        self.faults.append(Fault(f"line {self.line}, {column}", f"expected {expected}"))

    def name(self, column: str) -> str:
        """A name."""
        said = self.cells.get(column, "").strip()
        if not 0 < len(said) <= MOST_NAME or not said.isprintable():
            self.wrong(column, f"a name of at most {MOST_NAME} letters")
        return said

    def number(self, column: str, otherwise: float | None = None) -> float:
        """A number of at least none."""
        said = self.cells.get(column, "").strip().replace(",", ".")
        if not said and otherwise is not None:
            return otherwise
        try:
            number = float(said)
        except ValueError:
            number = -1.0
        if not 0 <= number < 1e9:
            self.wrong(column, "a number of at least 0")
            return 0.0
        return number

    def count(self, column: str, otherwise: int | None = None) -> int:
        """A whole number of at least none."""
        said = self.cells.get(column, "").strip()
        if not said and otherwise is not None:
            return otherwise
        if not (said.isascii() and said.isdigit() and len(said) < 7):
            self.wrong(column, "a whole number of at least 0")
            return 0
        return int(said)

    def facts(self) -> dict[str, Any]:
        """Facts of the machines: numbers, yes and no, words."""
        found: dict[str, Any] = {}
        for column, cell in self.cells.items():
            said = cell.strip()
            if column.startswith(FACT) and said:
                found[column.removeprefix(FACT)] = _fact(said)
        return found


def _fact(said: str) -> Any:
    return said.lower() == "yes" if said.lower() in ("yes", "no") else plain(fact_read(said))


def _parsed(
    data: bytes, needed: Sequence[str], more: Sequence[str], row: Callable[[Cells], Row], facts: bool = False
) -> list[Row]:
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise DocumentError([Fault("the file", "expected UTF-8 text")]) from error
    first = text.partition("\n")[0]
    lines = csv.reader(io.StringIO(text, newline=""), delimiter=";" if ";" in first and "," not in first else ",")
    faults: list[Fault] = []
    rows: list[Row] = []
    try:
        columns = [each.strip() for each in next(lines, [])]
        strange = [c for c in columns if c not in (*needed, *more) and not (facts and c.startswith(FACT))]
        missing = [c for c in needed if c not in columns]
        if missing or strange or len(set(columns)) < len(columns):
            told = f"expected the columns {', '.join(needed)}, and if wanted {', '.join(more) or 'none'}"
            raise DocumentError(
                [
                    Fault(
                        "line 1",
                        f"{told}; {'missing' if missing else 'not known'}: {(missing or strange or columns)[0]}",
                    )
                ]
            )
        for cells in lines:
            if not any(cells):
                continue
            if len(rows) >= MOST_ROWS:
                raise DocumentError([Fault(f"line {lines.line_num}", f"expected at most {MOST_ROWS} rows")])
            if len(cells) != len(columns):
                faults.append(Fault(f"line {lines.line_num}", f"expected {len(columns)} cells, found {len(cells)}"))
                continue
            rows.append(row(Cells(lines.line_num, dict(zip(columns, cells, strict=True)), faults)))
    except csv.Error as error:
        raise DocumentError([Fault(f"line {lines.line_num}", f"expected CSV: {error}")]) from error
    if faults:
        raise DocumentError(faults)
    return rows
