"""A function as a family defines it: what its values can be, how far they may differ, and when it means anything."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from twincore.profile.faults import FaultList, known
from twincore.profile.values import Number, Value, as_number, is_number, same

NUMERIC = ("duration", "number", "count")


@dataclass(frozen=True, slots=True)
class FunctionDef:
    """A function in shared terms; tolerances in the function's unit (seconds for a duration)."""

    id: str
    title: str
    type: str
    unit: str
    choices: tuple[str, ...]
    importance: str
    below: Number
    above: Number
    if_absent: Value | None
    safer: tuple[Value, ...] | str | None = None
    """Which side is the safer one where nobody can tell: "lower", "higher", or every choice with the safest first."""
    matters_if: tuple[tuple[str, tuple[Value, ...]], ...] = ()
    """When it means anything at all: for each function named, the values of which that must be able to have one."""

    @property
    def numeric(self) -> bool:
        """Whether its values are numbers."""
        return self.type in NUMERIC

    def wanted_value(self) -> str:
        """What a value of this function must be, in words."""
        match self.type:
            case "choice":
                return "one of " + known(self.choices)
            case "flag":
                return "true or false"
            case "count":
                return "a whole number of at least 0"
            case "duration":
                return "seconds of at least 0"
        return "a number"

    def accepts(self, value: object) -> bool:
        """Whether a value is of this function's type."""
        match self.type:
            case "choice":
                return value in self.choices
            case "flag":
                return isinstance(value, bool)
            case "count":
                return isinstance(value, int) and not isinstance(value, bool) and value >= 0
            case "duration":
                return is_number(value) and value >= 0
        return is_number(value)

    def is_safer(self, one: Value, other: Value) -> bool:
        """Whether one value lies on the safer side of another; never, where the family does not say which side that is."""
        match self.safer:
            case None:
                return False
            case "lower":
                return as_number(one) < as_number(other)
            case "higher":
                return as_number(one) > as_number(other)
        assert isinstance(self.safer, tuple)  # checked when the family was read
        return self.safer.index(one) < self.safer.index(other)

    def within(self, original: Value, replacement: Value) -> bool:
        """Whether the replacement's value is the original's, or lies within tolerance of it."""
        if self.numeric:
            aim = as_number(original)
            return aim - self.below <= as_number(replacement) <= aim + self.above
        return same(original, replacement)


def build_functions(nodes: list[dict[str, Any]], faults: FaultList) -> tuple[FunctionDef, ...]:
    """The functions of a family whose structure was checked."""
    functions = tuple(_function(each, f"functions[{i}]", faults) for i, each in enumerate(nodes))
    faults.unique([each.id for each in functions], "functions[{}].id", "name")
    _check_matters_if({each.id: each for each in functions}, faults)
    return functions


def _function(node: dict[str, Any], place: str, faults: FaultList) -> FunctionDef:
    tolerance = node.get("tolerance", {})
    function = FunctionDef(
        id=node["id"],
        title=node.get("title", node["id"]),
        type=node["type"],
        unit=node.get("unit", "s" if node["type"] == "duration" else ""),
        choices=tuple(node.get("choices", ())),
        importance=node["importance"],
        below=tolerance.get("below", 0),
        above=tolerance.get("above", 0),
        if_absent=node.get("if_absent"),
        safer=_safer(node.get("safer")),
        matters_if=tuple(
            (name, tuple(each) if isinstance(each, list) else (each,))
            for name, each in node.get("matters_if", {}).items()
        ),
    )
    if (function.type == "choice") != bool(function.choices):
        expected = "a list of choices" if function.type == "choice" else "no choices, for the type is not choice"
        faults.add(f"{place}.choices", f"expected {expected}")
    elif function.if_absent is not None and not function.accepts(function.if_absent):
        faults.add(f"{place}.if_absent", f"expected {function.wanted_value()}")
    if tolerance and not function.numeric:
        faults.add(f"{place}.tolerance", "expected no tolerance, for the values are not numbers")
    _check_safer(function, f"{place}.safer", faults)
    if function.type == "duration" and function.unit != "s":
        faults.add(f"{place}.unit", 'expected "s", for durations are in seconds')
    return function


def _safer(node: Any) -> tuple[Value, ...] | str | None:
    return tuple(node) if isinstance(node, list) else node


def _check_safer(function: FunctionDef, place: str, faults: FaultList) -> None:
    if function.safer is None:
        return
    if function.numeric:
        if function.safer not in ("lower", "higher"):
            faults.add(place, 'expected "lower" or "higher", for the values are numbers')
        return
    wanted: tuple[Value, ...] = function.choices if function.type == "choice" else (True, False)
    listed = function.safer if isinstance(function.safer, tuple) else ()
    if len(listed) != len(wanted) or set(map(str, listed)) != set(map(str, wanted)):
        named = known([str(each).lower() if isinstance(each, bool) else str(each) for each in wanted])
        faults.add(place, f"expected every value once, the safest first ({named})")


def _check_matters_if(functions: Mapping[str, FunctionDef], faults: FaultList) -> None:
    """Refuse conditions on anything but other functions, on values that those cannot have, and circles of conditions."""
    for index, function in enumerate(functions.values()):
        for name, values in function.matters_if:
            place = f"functions[{index}].matters_if.{name}"
            if name == function.id or name not in functions:
                others = known(each for each in functions if each != function.id)
                faults.add(place, f"expected another function of the family ({others})")
            elif not all(map(functions[name].accepts, values)):
                faults.add(place, f"expected {functions[name].wanted_value()}")
        if function.id in _behind(function, functions):
            faults.add(f"functions[{index}].matters_if", "expected conditions that do not lead back to this function")


def _behind(function: FunctionDef, functions: Mapping[str, FunctionDef]) -> set[str]:
    """The functions on which it depends, at whatever distance, whether a function matters."""
    found: set[str] = set()
    waiting = [function]
    while waiting:
        more = {name for name, _ in waiting.pop().matters_if if name in functions} - found
        found |= more
        waiting += [functions[name] for name in more]
    return found
