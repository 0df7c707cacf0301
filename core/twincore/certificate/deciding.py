"""What a checker of certificates decides by itself: what each board's functions stand at, by its settings, and which numbers are replaced.

The standard library alone, and nothing of what found the certificate.
"""

from collections.abc import Collection, Iterator, Mapping, Sequence
from fractions import Fraction
from itertools import product
from math import prod
from typing import Any

MOST_COMBINED = 100_000
"""Combinations of positions that could not be read, and of a function's table, which are gone through."""
NUMBERS = ("duration", "number", "count")


class NotShown(Exception):
    """What a certificate does not show, in words."""


def decide(
    family: Mapping[str, Any],
    boards: Sequence[Mapping[str, Any]],
    positions: Sequence[Mapping[str, Any]],
    wished: Collection[str] = (),
) -> tuple[list[dict[str, Any]], list[dict[str, Any]]]:
    """The value of every function that is decided, for each board as it is compared; and what was replaced on the second board:
    numbers within tolerance, and functions that are wished otherwise.
    """
    found = [
        {name: value for name, value in _values(family, board, stands) if value is not None}
        for board, stands in zip(boards, positions, strict=True)
    ]
    replaced = []
    for each in family["functions"]:
        name = each["id"]
        one, other = found[0].get(name), found[1].get(name)
        if name in wished and one is not None:
            found[1][name] = one
        elif one is not None and other is not None and each["type"] in NUMBERS and _within(each, one, other):
            replaced.append({"id": name, "original": one, "replacement": other})
            found[1][name] = one
    return found, replaced


def _within(function: Mapping[str, Any], one: Any, other: Any) -> bool:
    """Whether a number differs from the original's, by no more than is allowed."""
    tolerance = function.get("tolerance", {})
    gap = as_fraction(other) - as_fraction(one)
    return gap != 0 and -as_fraction(tolerance.get("below", 0)) <= gap <= as_fraction(tolerance.get("above", 0))


def as_fraction(number: Any) -> Fraction:
    """A number of a document, exactly."""
    if isinstance(number, bool) or not isinstance(number, int | float | Fraction):
        raise NotShown(f"{number!r} is no number")
    return number if isinstance(number, Fraction) else Fraction(str(number))


def _values(
    family: Mapping[str, Any], board: Mapping[str, Any], positions: Mapping[str, Any]
) -> Iterator[tuple[str, Any]]:
    stands, domains = _stand(board, positions)
    for each in family["functions"]:
        name = each["id"]
        if name not in board["functions"]:
            yield name, each.get("if_absent")
            continue
        how = board["functions"][name]
        if "fixed" in how:
            yield name, how["fixed"]
        elif "table" in how:
            yield name, _looked_up(how["table"], stands, domains)
        else:
            yield name, _read(how, each["type"] in NUMBERS, stands)


def _stand(board: Mapping[str, Any], positions: Mapping[str, Any]) -> tuple[dict[str, Any], dict[str, Sequence[Any]]]:
    """How each point stands, None where nobody could read it; and where it may stand, in any order."""
    stands: dict[str, Any] = {}
    domains: dict[str, Sequence[Any]] = {}
    for each in board["settings"]:
        name, kind = each["id"], each["kind"]
        written = positions.get(name, "?")
        if kind in ("dip", "code", "thumbwheel"):
            symbols = {"dip": "01", "thumbwheel": "0123456789"}.get(kind) or each["symbols"]
            count = each.get("positions") or each.get("places") or each.get("wheels")
            for place in range(count):
                mark = written[place] if written != "?" else "?"
                if mark not in (*symbols, "?"):
                    raise NotShown(f"{name} cannot stand at {written!r}")
                point = f"{name}.{place + 1}"
                domains[point] = ("off", "on") if kind == "dip" else symbols
                stands[point] = None if mark == "?" else {"0": "off", "1": "on"}[mark] if kind == "dip" else mark
        else:
            values = _steps(each) if kind == "parameter" else each["values"]
            domains[name] = values
            stands[name] = written if _among(written, values) else None
            if stands[name] is None and written != "?":
                raise NotShown(f"{name} cannot stand at {written!r}")
    return stands, domains


def _steps(parameter: Mapping[str, Any]) -> list[Fraction]:
    low, high, step = (as_fraction(parameter[key]) for key in ("min", "max", "step"))
    return [low + step * number for number in range(int((high - low) / step) + 1)]


def _among(value: Any, values: Sequence[Any]) -> bool:
    return any(equal(value, each) for each in values)


def equal(one: Any, other: Any) -> bool:
    """Whether two values of a document are the same: numbers by what they are, and never a truth for a number."""
    numbers = [isinstance(each, int | float | Fraction) and not isinstance(each, bool) for each in (one, other)]
    if all(numbers):
        return as_fraction(one) == as_fraction(other)
    return numbers == [False, False] and type(one) is type(other) and bool(one == other)


def _looked_up(rows: Sequence[Mapping[str, Any]], stands: Mapping[str, Any], domains: Mapping[str, Any]) -> Any:
    """The value that every possible position gives; None where they give several, or one gives none."""
    scope = list(dict.fromkeys(point for row in rows for point in row["when"]))
    unread = [point for point in scope if stands[point] is None]
    if prod(len(domains[point]) for point in unread) * len(rows) > MOST_COMBINED:
        return None
    found: list[Any] = []
    for choice in product(*(domains[point] for point in unread)):
        at = {**stands, **dict(zip(unread, choice, strict=True))}
        value = next((r["value"] for r in rows if all(equal(at[p], wanted) for p, wanted in r["when"].items())), None)
        if value is None or (found and not equal(value, found[0])):
            return None
        found = [value]
    return found[0]


def _read(how: Mapping[str, Any], number: bool, stands: Mapping[str, Any]) -> Any:
    """The value that is read from one point, or from a row of thumbwheels; None where it could not be read."""
    wheels = [point for point in stands if point.rpartition(".")[0] == how["from"]] if how["from"] not in stands else []
    digits = [stands[point] for point in wheels or [how["from"]]]
    if None in digits:
        return None
    stand = "".join(digits) if wheels else digits[0]
    if not number:
        return stand if isinstance(stand, str) else f"{float(stand):g}"
    plain = Fraction(stand) if isinstance(stand, str) else as_fraction(stand)
    return plain * as_fraction(how.get("scale", 1)) + as_fraction(how.get("offset", 0))
