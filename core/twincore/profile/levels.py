"""Levels: inputs that have a value, and guards that read whether it lies above or below a threshold."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from twincore.profile.faults import FaultList, known
from twincore.profile.values import Number, Value, as_number, is_number


@dataclass(frozen=True, slots=True)
class Level:
    """An input that has a value, in its unit, from the lowest to the highest that can be."""

    id: str
    unit: str
    low: Number
    high: Number

    def wanted(self) -> str:
        """What a value of this level must be, in words."""
        return f"a number from {float(self.low):g} to {float(self.high):g} {self.unit}".rstrip()

    def accepts(self, value: object) -> bool:
        """Whether a value can be one of this level."""
        return is_number(value) and self.low <= value <= self.high


@dataclass(frozen=True, slots=True)
class Limit:
    """A threshold as a guard writes it: a number, or a function's value and what is added to it."""

    number: Number
    function: str = ""

    def at(self, values: Mapping[str, Value]) -> Number:
        """The threshold where the board's functions have these values."""
        return self.number + as_number(values[self.function]) if self.function else self.number


@dataclass(frozen=True, slots=True)
class Band:
    """What a guard asks of a level: at `low` or above, below `high`; None where it asks nothing on that side."""

    low: Limit | None
    high: Limit | None

    @property
    def limits(self) -> dict[str, Limit]:
        """Its thresholds, by how the document writes them."""
        return {key: each for key, each in (("from", self.low), ("below", self.high)) if each is not None}


Condition = tuple[str, bool | Band]
"""What a guard asks of an input or a signal."""
Inputs = Mapping[str, Level | None]
"""The inputs of a family in their order; None for one that is true or false."""


def build_conditions(node: Mapping[str, Any]) -> tuple[Condition, ...]:
    """The conditions of a guard."""
    return tuple((name, _band(value) if isinstance(value, dict) else value) for name, value in node.items())


def _band(node: Mapping[str, Any]) -> Band:
    return Band(_limit(node.get("from")), _limit(node.get("below")))


def _limit(node: Any) -> Limit | None:
    if node is None:
        return None
    if isinstance(node, str):
        return Limit(0, node)
    if isinstance(node, dict):
        return Limit(node.get("plus", 0), node["function"])
    return Limit(node)


def build_inputs(nodes: list[dict[str, Any]], faults: FaultList) -> dict[str, Level | None]:
    """The inputs of a family, levels among them."""
    inputs: dict[str, Level | None] = {}
    for index, node in enumerate(nodes):
        inputs[node["id"]] = _level(node, f"inputs[{index}]", faults)
    return inputs


def _level(node: Mapping[str, Any], place: str, faults: FaultList) -> Level | None:
    bounds = [key for key in ("unit", "from", "to") if key in node]
    if not node.get("level"):
        for key in bounds:
            faults.add(f"{place}.{key}", 'expected "level": true beside it')
        return None
    if node["id"] == "power":
        faults.add(f"{place}.level", "expected power to be on or off")
    for key in ("from", "to"):
        if key not in node:
            faults.add(place, f'expected "{key}": how low and how high a level can be')
            return None
    if node["from"] >= node["to"]:
        faults.add(f"{place}.to", f"expected a number above {float(node['from']):g}")
    return Level(node["id"], node.get("unit", ""), node["from"], node["to"])


def check_change(name: str, value: object, inputs: Inputs, place: str, faults: FaultList) -> None:
    """A change of an input to a value: the input must be one, and the value one that it can have."""
    level = inputs.get(name)
    if name not in inputs:
        faults.add(place, f"expected an input of the family ({known(inputs)})")
    elif level is None and not isinstance(value, bool):
        faults.add(place, "expected true or false")
    elif level is not None and not level.accepts(value):
        faults.add(place, f"expected {level.wanted()}")
