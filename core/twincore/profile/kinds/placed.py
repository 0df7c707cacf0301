"""Elements of several places, written as one text: switch banks, codes, rows of thumbwheels."""

from collections.abc import Mapping, Sequence
from fractions import Fraction
from typing import Any

from twincore.profile.faults import FaultList, known
from twincore.profile.kinds.base import Built, Coding, Kind, Point, Sketched
from twincore.profile.values import Value

ON_OFF: dict[str, Value] = {"0": "off", "1": "on"}
DIGITS: dict[str, Value] = {digit: digit for digit in "0123456789"}
WHEEL_BITS, WHEEL_MASK = 4, 0xF
"""A wheel's contacts weigh 8, 4, 2 and 1 (common practice, no source)."""
MOST_PLACES, MOST_WHEELS = 16, 4
"""Of a bank or code, and of a row of wheels, that is sketched."""
BANK_ENDS_MM, SLOT_MM, BANK_DEEP_MM, WHEEL_MM, WHEEL_DEEP_MM = 4.0, 5.0, 12.0, 8.0, 12.0


class Placed(Kind):
    """One with a point a place."""

    placed = True

    def marks(self, node: dict[str, Any]) -> dict[str, Value]:
        """What each mark that a place may show means."""
        return DIGITS

    def points(self, node: dict[str, Any], place: str, faults: FaultList) -> tuple[Point, ...]:
        """A point a place, numbered from 1."""
        return _points(node, place, node[self.places_key], self.marks(node), faults)

    def setting(self, sketched: Sketched) -> dict[str, Any]:
        """What a board's document says of one that was sketched."""
        return {
            "id": sketched.id, "kind": self.name, self.places_key: sketched.places, "factory": "0" * sketched.places
        }  # fmt: skip


def _points(
    node: dict[str, Any], place: str, places: int, marks: Mapping[str, Value], faults: FaultList
) -> tuple[Point, ...]:
    factory, locked = node["factory"], node.get("locked", [])
    if len(factory) != places or any(mark not in marks for mark in factory):
        faults.add(f"{place}.factory", f"expected {places} places of {known(marks)}")
        return ()
    for index, number in enumerate(locked if isinstance(locked, list) else ()):
        if number > places:
            faults.add(f"{place}.locked[{index}]", f"expected a place from 1 to {places}")
    return tuple(
        Point(
            f"{node['id']}.{number}",
            tuple(marks.values()),
            marks[mark],
            locked is True or (isinstance(locked, list) and number in locked),
        )
        for number, mark in enumerate(factory, 1)
    )


class Dip(Placed):
    """A row of small switches."""

    name, places_key, on_off, readable = "dip", "positions", True, True
    notation, most_places = "bank", MOST_PLACES
    chart_words = ("switches", "bank", "dip", "switch bank")

    def marks(self, node: dict[str, Any]) -> dict[str, Value]:
        """0 is off, 1 is on."""
        return ON_OFF

    def symbols(self, domain: Sequence[Value]) -> dict[str, Value]:
        """0 is off, 1 is on."""
        return ON_OFF

    def write(self, values: Sequence[Value | None]) -> Value:
        """0, 1 or ? a switch."""
        return "".join("?" if value is None else "1" if value == "on" else "0" for value in values)

    def to_register(self, element: Built, values: Sequence[Value], scale: Fraction) -> int:
        """A bit a switch, the first weighing least."""
        return sum((value == "on") << index for index, value in enumerate(values))

    def from_register(self, element: Built, raw: int, scale: Fraction, bits: int) -> list[Value | None] | None:
        """A bit a switch, the first weighing least."""
        count = len(element.points)
        return None if raw >> count else ["on" if raw >> index & 1 else "off" for index in range(count)]

    def sketch_words(self, sketched: Sketched) -> str:
        """A bank, with what nobody could tell."""
        on = f"on is {sketched.on}" if sketched.on else "nobody could tell which way is on"
        first = f"number 1 is at the {sketched.first}" if sketched.first else "nobody could tell where number 1 is"
        return f"a bank of {sketched.places} switches; {on}, {first}"

    def size_mm(self, sketched: Sketched) -> tuple[float, float]:
        """As long as it has switches."""
        long = BANK_ENDS_MM + SLOT_MM * sketched.places
        return (BANK_DEEP_MM, long) if sketched.upright else (long, BANK_DEEP_MM)


class Code(Placed):
    """A code of some places that a board shows, each one of its symbols."""

    name, places_key, powered = "code", "places", True
    panels, chart_words = ("digits",), ("code",)
    notation, most_places = "code", MOST_PLACES

    def marks(self, node: dict[str, Any]) -> dict[str, Value]:
        """Its own symbols."""
        return {symbol: symbol for symbol in node["symbols"]}

    def points(self, node: dict[str, Any], place: str, faults: FaultList) -> tuple[Point, ...]:
        """A point a place."""
        symbols = node["symbols"]
        if "?" in symbols or len(set(symbols)) != len(symbols):
            faults.add(f"{place}.symbols", "expected every symbol once, and no ?")
            return ()
        return super().points(node, place, faults)

    def setting(self, sketched: Sketched) -> dict[str, Any]:
        """A code of digits."""
        return super().setting(sketched) | {"symbols": "".join(DIGITS)}

    def sketch_words(self, sketched: Sketched) -> str:
        """A code, in words."""
        return f"a code of {sketched.places} digits"


class Thumbwheel(Placed):
    """A row of thumbwheels, that spells a number."""

    name, places_key, spells_number, readable = "thumbwheel", "wheels", True, True
    seen, chart_words = ("row of thumbwheels", "rows of thumbwheels"), ("wheels", "thumbwheels")
    notation, most_places = "wheels", MOST_WHEELS

    def coding(self, node: dict[str, Any]) -> Coding | None:
        """Binary coded decimals where nothing is said."""
        found: Coding = node.get("coding", "bcd")
        return found

    def register_bits(self, element: Built, scale: Fraction) -> int:
        """Four bits a wheel."""
        return WHEEL_BITS * len(element.points)

    def to_register(self, element: Built, values: Sequence[Value], scale: Fraction) -> int:
        """The contacts of each wheel, the first weighing most."""
        raw = 0
        for value in values:
            raw = raw << WHEEL_BITS | contacts_closed(str(value), element.coding)
        return raw

    def from_register(self, element: Built, raw: int, scale: Fraction, bits: int) -> list[Value | None] | None:
        """A wheel between two digits gives no digit: that wheel is unreadable, not the whole row."""
        count = len(element.points)
        places: list[Value | None] = [
            digit_shown(raw >> WHEEL_BITS * index & WHEEL_MASK, element.coding) for index in reversed(range(count))
        ]
        return None if raw >> WHEEL_BITS * count or not any(places) else places

    def sketch_words(self, sketched: Sketched) -> str:
        """A row of wheels, in words."""
        return f"{sketched.places} thumbwheel{'s' if sketched.places > 1 else ''}, 0 to 9 each"

    def size_mm(self, sketched: Sketched) -> tuple[float, float]:
        """As wide as it has wheels."""
        return WHEEL_MM * sketched.places, WHEEL_DEEP_MM


def contacts_closed(digit: str, coding: Coding | None) -> int:
    """The contacts that are closed on a wheel that shows a digit, as their weights (8 4 2 1) add up."""
    return int(digit) ^ (WHEEL_MASK if coding == "complement" else 0)


def digit_shown(contacts: int, coding: Coding | None) -> str | None:
    """The digit of a wheel with these contacts closed; None for a wheel between two digits."""
    digit = str(contacts ^ (WHEEL_MASK if coding == "complement" else 0))
    return digit if digit in DIGITS else None
