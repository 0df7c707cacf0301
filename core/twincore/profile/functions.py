"""Function maps: how the positions of a board give the value of a function."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations, product
from math import prod
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

    @property
    def from_a_point(self) -> bool:
        """Whether its value is read from where one point stands."""
        return bool(self.scope) and not self.rows

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
        wheels = next((each for each in elements if each.id == node["from"] and each.rules.spells_number), None)
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


def same_meaning(one: FunctionMap, other: FunctionMap, points: Mapping[str, Point]) -> bool:
    """Whether two maps give the same value for every position of these points, however their tables are split into rows."""
    if one.from_a_point or other.from_a_point:
        return (one.scope, one.scale, one.offset, one.rows) == (other.scope, other.scale, other.offset, other.rows)
    sides = [_by_scope(each) for each in (one, other)]
    sizes = {name: len(points[name].domain) for each in (one, other) for name in each.scope}
    both = 0
    for scope, keys in sides[0].items():
        for other_scope, other_keys in sides[1].items():
            shared = [name for name in scope if name in other_scope]
            free = prod(size for name, size in sizes.items() if name not in (*scope, *other_scope))
            met = _by_shared(other_scope, other_keys, shared)
            for key, mine in _by_shared(scope, keys, shared).items():
                theirs = met.get(key, {})
                if any(not same(a, b) for a in mine for b in theirs):
                    return False
                both += free * sum(mine.values()) * sum(theirs.values())
    # rows of one table never hold together: where as many positions have rows on both as on each, they are the same positions
    return all(_covered(each, sizes) == both for each in sides)


Scope = tuple[str, ...]
Keys = dict[tuple[Value, ...], Value]
"""For the positions of some points, in order, the value."""


def _by_scope(function: FunctionMap) -> dict[Scope, Keys]:
    """The rows of a table by the points that they name; what is fixed is one row that names none."""
    if not function.rows:
        return {(): {} if function.fixed is None else {(): function.fixed}}
    found: dict[Scope, Keys] = {}
    for row in function.rows:
        scope = tuple(sorted(row.when))
        found.setdefault(scope, {})[tuple(row.when[name] for name in scope)] = row.value
    return found


def _by_shared(scope: Scope, keys: Keys, shared: Sequence[str]) -> dict[tuple[Value, ...], dict[Value, int]]:
    """For the positions of shared points, how many rows give each value."""
    places = [scope.index(name) for name in shared]
    found: dict[tuple[Value, ...], dict[Value, int]] = {}
    for key, value in keys.items():
        counts = found.setdefault(tuple(key[place] for place in places), {})
        counts[value] = counts.get(value, 0) + 1
    return found


def _covered(side: Mapping[Scope, Keys], sizes: Mapping[str, int]) -> int:
    """How many combinations of positions have a row."""
    return sum(
        len(keys) * prod(size for name, size in sizes.items() if name not in scope) for scope, keys in side.items()
    )
