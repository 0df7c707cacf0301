"""Function maps: how the positions of a board give the value of a function."""

from dataclasses import dataclass
from itertools import combinations, product
from typing import Any

from twincore.profile.elements import Element, Point
from twincore.profile.faults import FaultList, known
from twincore.profile.values import Number, Value, exact, is_number, same, tidy

MOST_SCOPES = 40


@dataclass(frozen=True, slots=True)
class Row:
    """One row of a table: the value where every named point stands so."""

    when: dict[str, Value]
    value: Value


@dataclass(frozen=True, slots=True)
class FunctionMap:
    """Fixed (no scope), read from one point, or by a table; `scope` are the points on which it hangs."""

    id: str
    scope: tuple[str, ...]
    fixed: Value | None = None
    scale: Number = 1
    offset: Number = 0
    rows: tuple[Row, ...] = ()

    def read(self, position: Value, numeric: bool) -> Value:
        """The value of a function that is read from one point standing at `position`."""
        if not numeric:
            return f"{float(position):g}" if is_number(position) else position
        number = exact(position) if isinstance(position, str) else position
        return tidy(number * self.scale + self.offset)


def build_function(
    name: str,
    node: dict[str, Any],
    elements: tuple[Element, ...],
    points: dict[str, Point],
    place: str,
    faults: FaultList,
) -> FunctionMap:
    """A function map from a part of a board whose structure was checked."""
    if "fixed" in node:
        return FunctionMap(name, (), fixed=node["fixed"])
    if "from" in node:
        wheels = next((each for each in elements if each.id == node["from"] and each.kind == "thumbwheel"), None)
        if wheels:
            return _spelled(name, wheels, node.get("scale", 1), node.get("offset", 0))
        if node["from"] not in points:
            faults.add(f"{place}.from", f"expected a point or thumbwheels of this board ({known(points)})")
            return FunctionMap(name, ())
        return FunctionMap(name, (node["from"],), scale=node.get("scale", 1), offset=node.get("offset", 0))
    rows = tuple(Row(row["when"], row["value"]) for row in node["table"])
    domains = {point: set(points[point].domain) for row in rows for point in row.when if point in points}
    for index, row in enumerate(rows):
        for point, value in row.when.items():
            if point not in points:
                faults.add(f"{place}.table[{index}].when.{point}", f"expected a point of this board ({known(points)})")
            elif isinstance(value, bool) or value not in domains[point]:
                faults.add(f"{place}.table[{index}].when.{point}", f"expected one of {known(points[point].domain)}")
    _check_one_row_at_a_time(rows, place, faults)
    return FunctionMap(name, tuple(dict.fromkeys(point for row in rows for point in row.when)), rows=rows)


def _spelled(name: str, wheels: Element, scale: Number, offset: Number) -> FunctionMap:
    """The number that a row of thumbwheels shows, the first wheel weighing most: a table of all that it can show."""
    scope = tuple(point.id for point in wheels.points)
    rows = tuple(
        Row(dict(zip(scope, digits, strict=True)), tidy(exact("".join(map(str, digits))) * scale + offset))
        for digits in product(*(point.domain for point in wheels.points))
    )
    return FunctionMap(name, scope, rows=rows)


def _check_one_row_at_a_time(rows: tuple[Row, ...], place: str, faults: FaultList) -> None:
    """Two rows that can hold at once make a file invalid. Rows over the same points are told apart by a key."""
    groups: dict[tuple[str, ...], dict[tuple[Value, ...], int]] = {}
    for index, row in enumerate(rows):
        scope = tuple(sorted(row.when))
        key = tuple(row.when[point] for point in scope)
        group = groups.setdefault(scope, {})
        if key in group:
            faults.add(
                f"{place}.table[{index}].when", f"expected a row that cannot hold together with table[{group[key]}]"
            )
            return
        group[key] = index
    if len(groups) > MOST_SCOPES:
        faults.add(f"{place}.table", f"expected rows over at most {MOST_SCOPES} different sets of points")
        return
    for one, other in combinations(groups, 2):
        shared = [point for point in one if point in other]
        known_keys = {tuple(key[one.index(p)] for p in shared): index for key, index in groups[one].items()}
        for key, index in groups[other].items():
            clash = known_keys.get(tuple(key[other.index(p)] for p in shared))
            if clash is not None:
                first, second = sorted((clash, index))
                faults.add(
                    f"{place}.table[{second}].when", f"expected a row that cannot hold together with table[{first}]"
                )
                return


def same_meaning(one: FunctionMap, other: FunctionMap) -> bool:
    """Whether two maps give the same value for every position, written in whatever order."""
    if (one.fixed is None) != (other.fixed is None) or not same(one.fixed, other.fixed):
        return False
    if (one.scale, one.offset) != (other.scale, other.offset) or set(one.scope) != set(other.scope):
        return False
    table = {frozenset(row.when.items()): row.value for row in one.rows}
    return len(one.rows) == len(other.rows) and all(
        same(table.get(frozenset(row.when.items())), row.value) for row in other.rows
    )
