"""What a function of a board stands at, read straight from the document's rows: another way than the decoder's, for tests."""

from collections.abc import Iterator, Mapping
from fractions import Fraction
from itertools import product
from random import Random
from typing import Any

UNREADABLE = "?"
PLACED = ("dip", "code", "thumbwheel")
"""What is written as one text, a mark a place."""


def points_of(board: Mapping[str, Any], positions: Mapping[str, Any]) -> dict[str, Any]:
    """Every point of a board as its document names them, and how it stands; None where that could not be read."""
    found: dict[str, Any] = {}
    for element in board["settings"]:
        name, written = element["id"], positions.get(element["id"])
        if element["kind"] in PLACED:
            marks = str(written) if written is not None else UNREADABLE * len(element["factory"])
            words = {"0": "off", "1": "on"} if element["kind"] == "dip" else {}
            found |= {
                f"{name}.{place}": None if mark == UNREADABLE else words.get(mark, mark)
                for place, mark in enumerate(marks, 1)
            }
        else:
            found[name] = None if written in (None, UNREADABLE) else written
    return found


def any_positions(rng: Random, board: Mapping[str, Any], unreadable: float = 0.0) -> dict[str, Any]:
    """How the elements of a board may stand, anywhere in their range, as a record writes it; some of them unreadable."""
    found: dict[str, Any] = {}
    for node in board["settings"]:
        if node["kind"] in PLACED:
            marks = [rng.choice(list(_marks(node))) for _ in node["factory"]]
            found[node["id"]] = "".join(UNREADABLE if rng.random() < unreadable else mark for mark in marks)
        else:
            value = rng.choice(list(_values(node)))
            value = float(value) if isinstance(value, Fraction) and value.denominator > 1 else value
            value = int(value) if isinstance(value, Fraction) else value
            found[node["id"]] = UNREADABLE if rng.random() < unreadable else value
    return found


def value_by_hand(board: Mapping[str, Any], positions: Mapping[str, Any], function: str) -> Any:
    """What a function stands at where one value only is possible; None where it is not decided, or the board does not have it."""
    node = board["functions"].get(function)
    if node is None:
        return None
    if "fixed" in node:
        return node["fixed"]
    points = points_of(board, positions)
    if "from" in node:
        stands = points[node["from"]] if node["from"] in points else _spelled(points, node["from"])
        if stands is None:
            return None
        try:
            return Fraction(str(stands)) * Fraction(str(node.get("scale", 1))) + Fraction(str(node.get("offset", 0)))
        except ValueError:
            return stands
    rows = node["table"]
    scope = sorted({point for row in rows for point in row["when"]})
    every = [[points[each]] if points[each] is not None else _domain(board, each) for each in scope]
    values = {str(_row(rows, dict(zip(scope, each, strict=True)))): None for each in product(*every)}
    holding = [_row(rows, dict(zip(scope, each, strict=True))) for each in product(*every)]
    return holding[0] if len(values) == 1 else None


def _spelled(points: Mapping[str, Any], wheels: str) -> str | None:
    """The number that a row of thumbwheels spells."""
    digits = [at for name, at in points.items() if name.startswith(f"{wheels}.")]
    return None if None in digits else "".join(digits)


def _marks(element: Mapping[str, Any]) -> str:
    match element["kind"]:
        case "dip":
            return "01"
        case "code":
            return str(element["symbols"])
    return "0123456789"


def _row(rows: list[dict[str, Any]], points: Mapping[str, Any]) -> Any:
    return next(
        (row["value"] for row in rows if all(str(points[point]) == str(at) for point, at in row["when"].items())), None
    )


def _domain(board: Mapping[str, Any], point: str) -> list[Any]:
    element = next(each for each in board["settings"] if each["id"] in (point, point.rpartition(".")[0]))
    return list(_values(element))


def _values(element: Mapping[str, Any]) -> Iterator[Any]:
    match element["kind"]:
        case "dip":
            yield from ("off", "on")
        case "code" | "thumbwheel":
            yield from _marks(element)
        case "parameter":
            at, last, step = (Fraction(str(element[name])) for name in ("min", "max", "step"))
            while at <= last:
                yield at
                at += step
        case _:
            yield from element["values"]
