"""Elements and points: what can be set on a board, and what each setting may be."""

from dataclasses import dataclass
from typing import Any, Literal

from twincore.profile.faults import FaultList, known
from twincore.profile.values import Value, tidy

LARGEST_DOMAIN = 100_000
ON_OFF: dict[str, Value] = {"0": "off", "1": "on"}
DIGITS: dict[str, Value] = {digit: digit for digit in "0123456789"}

ElementKind = Literal[
    "dip", "rotary", "jumper", "program", "trimmer", "link", "memory", "parameter", "code", "thumbwheel"
]
Coding = Literal["bcd", "complement"]
"""What a thumbwheel's contacts give for each digit: its four bits, or each of them the other way round."""
WHEEL_BITS, WHEEL_MASK = 4, 0xF
"""A wheel's contacts weigh 8, 4, 2 and 1 (common practice, no source)."""
PLACED: tuple[ElementKind, ...] = ("dip", "code", "thumbwheel")
"""Kinds with a point a place, which a record writes as one text."""


@dataclass(frozen=True, slots=True)
class Point:
    """One thing that can be set; `domain` in the order in which carry-over prefers."""

    id: str
    domain: tuple[Value, ...]
    factory: Value
    locked: bool


@dataclass(frozen=True, slots=True)
class Element:
    """A switch bank, row of thumbwheels, rotary, jumper, trimmer, program number, parameter or code."""

    id: str
    kind: ElementKind
    title: str
    unit: str
    points: tuple[Point, ...]
    coding: Coding | None = None

    @property
    def placed(self) -> bool:
        """Whether it has a point a place, written as one text."""
        return self.kind in PLACED

    def symbols(self) -> dict[str, Value]:
        """What each written symbol means; the same for every place of a bank or code."""
        if self.kind == "dip":
            return ON_OFF
        return {str(value): value for value in self.points[0].domain}

    def write(self, values: list[Value | None]) -> Value:
        """The element as a record writes it; None is unreadable."""
        if self.kind == "dip":
            return "".join("?" if value is None else "1" if value == "on" else "0" for value in values)
        if self.placed:
            return "".join("?" if value is None else str(value) for value in values)
        return "?" if values[0] is None else values[0]

    def contacts(self, digit: str) -> int:
        """The contacts that are closed on a wheel that shows a digit, as their weights (8 4 2 1) add up."""
        return int(digit) ^ (WHEEL_MASK if self.coding == "complement" else 0)

    def shown(self, contacts: int) -> str | None:
        """The digit of a wheel with these contacts closed; None for a wheel between two digits."""
        digit = str(contacts ^ (WHEEL_MASK if self.coding == "complement" else 0))
        return digit if digit in DIGITS else None

    def wanted(self) -> str:
        """What a position of this element must be, in words."""
        domain: tuple[Any, ...] = self.points[0].domain
        if self.kind == "parameter":
            step = float(domain[1] - domain[0]) if len(domain) > 1 else 0
            return f"a number from {float(domain[0]):g} to {float(domain[-1]):g} in steps of {step:g}"
        return "one of " + known(domain)


def build_element(node: dict[str, Any], place: str, faults: FaultList) -> Element | None:
    """An element from a part of a board whose structure was checked; None where it is faulty."""
    match node["kind"]:
        case "dip":
            points = _bank(node, place, node["positions"], ON_OFF, faults)
        case "code":
            symbols = node["symbols"]
            if "?" in symbols or len(set(symbols)) != len(symbols):
                faults.add(f"{place}.symbols", "expected every symbol once, and no ?")
                return None
            points = _bank(node, place, node["places"], {symbol: symbol for symbol in symbols}, faults)
        case "thumbwheel":
            points = _bank(node, place, node["wheels"], DIGITS, faults)
        case "parameter":
            points = _parameter(node, place, faults)
        case _:
            points = (Point(node["id"], tuple(node["values"]), node["factory"], node.get("locked") is True),)
    if not points:
        return None
    if points[0].factory not in points[0].domain:
        faults.add(f"{place}.factory", f"expected one of {known(points[0].domain)}")
        return None
    return Element(node["id"], node["kind"], node.get("title", ""), node.get("unit", ""), points, _coding(node))


def _coding(node: dict[str, Any]) -> Coding | None:
    return node.get("coding", "bcd") if node["kind"] == "thumbwheel" else None


def _bank(
    node: dict[str, Any], place: str, places: int, symbols: dict[str, Value], faults: FaultList
) -> tuple[Point, ...]:
    factory, locked = node["factory"], node.get("locked", [])
    if len(factory) != places or any(mark not in symbols for mark in factory):
        faults.add(f"{place}.factory", f"expected {places} places of {known(symbols)}")
        return ()
    for index, number in enumerate(locked if isinstance(locked, list) else ()):
        if number > places:
            faults.add(f"{place}.locked[{index}]", f"expected a place from 1 to {places}")
    return tuple(
        Point(
            f"{node['id']}.{number}",
            tuple(symbols.values()),
            symbols[mark],
            locked is True or (isinstance(locked, list) and number in locked),
        )
        for number, mark in enumerate(factory, 1)
    )


def _parameter(node: dict[str, Any], place: str, faults: FaultList) -> tuple[Point, ...]:
    low, high, step = node["min"], node["max"], node["step"]
    if high < low:
        faults.add(f"{place}.max", f"expected a number of at least min, {float(low):g}")
        return ()
    count = (high - low) // step + 1
    if count > LARGEST_DOMAIN:
        faults.add(f"{place}.step", f"expected at most {LARGEST_DOMAIN:,} settings from min to max")
        return ()
    domain = tuple(tidy(low + step * index) for index in range(count))
    if node["factory"] not in domain:
        faults.add(f"{place}.factory", f"expected a number that min and step reach, found {float(node['factory']):g}")
        return ()
    return (Point(node["id"], domain, node["factory"], node.get("locked") is True),)
