"""Meanings as a grid: every combination of the positions that matter is a row, with a cell for the value."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from math import prod
from typing import Any

from twincore.errors import Fault, WrongValue
from twincore.profile import FunctionDef, Point, Value
from twincore.profile.values import Number, same, tidy
from twincore.workshop.values import read_value, value_text

MOST_ROWS = 256


@dataclass(frozen=True, slots=True)
class Cell:
    """A row of a grid: where the points stand, what the cell says, and what is wrong with it (empty where nothing is)."""

    at: tuple[Value, ...]
    text: str
    wrong: str = ""


@dataclass(frozen=True, slots=True)
class Grid:
    """What a function's value hangs on, and every combination with its value.

    `points` is empty for a value that is always the same (one row). `reads` is the point whose number is read as the
    value, times `scale` plus `offset`. `too_large` says that there are more combinations than anybody fills in.
    """

    function: str
    points: tuple[str, ...]
    cells: tuple[Cell, ...]
    reads: str = ""
    scale: Number = 1
    offset: Number = 0
    too_large: bool = False
    notes: tuple[str, ...] = ()


def grid_of(definition: FunctionDef, node: Mapping[str, Any] | None, points: Mapping[str, Point]) -> Grid:
    """A function's part of a board document as a grid; an empty one where nobody said anything."""
    if node is None:
        return Grid(definition.id, (), ())
    if "from" in node:
        return Grid(definition.id, (), (), node["from"], node.get("scale", 1), node.get("offset", 0))
    if "fixed" in node:
        return Grid(definition.id, (), (_cell((), node["fixed"], definition),))
    rows: Sequence[Mapping[str, Any]] = node["table"]
    scope = _in_order({name for row in rows for name in row["when"]} & points.keys(), points)
    if prod(len(points[name].domain) for name in scope) > MOST_ROWS:
        return Grid(definition.id, tuple(scope), (), too_large=True)
    cells = []
    for at in combinations_of(scope, points):
        stands = dict(zip(scope, at, strict=True))
        row = next((r for r in rows if all(same(stands.get(n), v) for n, v in r["when"].items())), None)
        cells.append(Cell(at, "") if row is None else _cell(at, row["value"], definition))
    return Grid(definition.id, tuple(scope), tuple(cells), notes=_notes(definition, cells))


def node_of(definition: FunctionDef, scope: Sequence[str], texts: Sequence[str], points: Mapping[str, Point]) -> Any:
    """What a filled grid is in a board document; None where every cell is empty.

    `texts` are the cells in the order of `combinations_of`. A text that is no value of the function stays in its cell
    as it was typed, to be shown there as wrong. Raises WrongValue where points or cells do not fit the board.
    """
    if unknown := [name for name in scope if name not in points]:
        raise WrongValue("This board has no such point.", [Fault("points", f'found "{unknown[0]}"')])
    if prod(len(points[name].domain) for name in scope) > MOST_ROWS:
        raise WrongValue(
            f"These points have more than {MOST_ROWS} combinations. Take fewer, or read a number from one."
        )
    every = combinations_of(scope, points)
    if len(texts) != len(every):
        raise WrongValue(
            "The grid does not fit its points.", [Fault("cells", f"expected {len(every)}, found {len(texts)}")]
        )
    filled = [(at, text.strip()) for at, text in zip(every, texts, strict=True) if text.strip()]
    if not filled:
        return None
    if not scope:
        return {"fixed": _value(filled[0][1], definition)}
    return {"table": [{"when": dict(zip(scope, at, strict=True)), "value": _value(t, definition)} for at, t in filled]}


def combinations_of(scope: Sequence[str], points: Mapping[str, Point]) -> list[tuple[Value, ...]]:
    """Every combination of positions, the last point changing fastest, as a leaflet prints its rows."""
    return list(product(*(points[name].domain for name in scope)))


def filled_by_rule(count: int, start: Number, step: Number) -> list[str]:
    """The cells of a grid that goes up by equal steps: "15 s a step from 0"."""
    return [value_text(tidy(start + step * index)) for index in range(count)]


def _value(text: str, definition: FunctionDef) -> Value:
    value = read_value(text, definition)
    return text if value is None else value


def _cell(at: tuple[Value, ...], value: Any, definition: FunctionDef) -> Cell:
    if definition.accepts(value):
        return Cell(at, value_text(value))
    return Cell(at, value_text(value), f"expected {definition.wanted_value()}")


def _in_order(names: set[str], points: Mapping[str, Point]) -> list[str]:
    return [name for name in points if name in names]


def _notes(definition: FunctionDef, cells: Sequence[Cell]) -> tuple[str, ...]:
    """What looks like a slip in a grid without being wrong: cells left empty, choices that no position gives."""
    found = []
    empty = sum(not cell.text for cell in cells)
    if empty:
        found.append(f"{empty} of {len(cells)} rows are empty: positions that nobody may set")
    said = {cell.text for cell in cells}
    wanted = definition.choices if definition.type == "choice" else ("yes", "no") if definition.type == "flag" else ()
    if missing := [each for each in wanted if each not in said]:
        found.append("no position gives " + ", ".join(missing))
    return tuple(found)
