"""Elements and points: what can be set on a board, and what each setting may be."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from twincore.profile.faults import FaultList, known
from twincore.profile.kinds import KINDS, Coding, Kind, Point
from twincore.profile.kinds.placed import contacts_closed
from twincore.profile.values import Value

__all__ = ["Coding", "Element", "Point", "build_element"]


@dataclass(frozen=True, slots=True)
class Element:
    """A switch bank, row of thumbwheels, rotary, jumper, trimmer, program number, parameter or code."""

    id: str
    kind: str
    title: str
    unit: str
    points: tuple[Point, ...]
    coding: Coding | None = None

    @property
    def rules(self) -> Kind:
        """All that is particular to its kind."""
        return KINDS[self.kind]

    @property
    def placed(self) -> bool:
        """Whether it has a point a place, written as one text."""
        return self.rules.placed

    @property
    def domain(self) -> tuple[Value, ...]:
        """What its point, or each of its places, may be."""
        return self.points[0].domain

    def symbols(self) -> dict[str, Value]:
        """What each written symbol means; the same for every place of a bank or code."""
        return self.rules.symbols(self.domain)

    def write(self, values: Sequence[Value | None]) -> Value:
        """The element as a record writes it; None is unreadable."""
        return self.rules.write(values)

    def contacts(self, digit: str) -> int:
        """The contacts that are closed on a wheel that shows a digit, as their weights (8 4 2 1) add up."""
        return contacts_closed(digit, self.coding)

    def wanted(self) -> str:
        """What a position of this element must be, in words."""
        return self.rules.wanted(self.domain)


def build_element(node: dict[str, Any], place: str, faults: FaultList) -> Element | None:
    """An element from a part of a board whose structure was checked; None where it is faulty."""
    kind = KINDS[node["kind"]]
    points = kind.points(node, place, faults)
    if not points:
        return None
    if points[0].factory not in points[0].domain:
        faults.add(f"{place}.factory", f"expected one of {known(points[0].domain)}")
        return None
    return Element(node["id"], kind.name, node.get("title", ""), node.get("unit", ""), points, kind.coding(node))
