"""A number in a menu."""

from collections.abc import Sequence
from fractions import Fraction
from typing import Any

from twincore.profile.faults import FaultList
from twincore.profile.kinds.base import Built, Kind, Point, Sketched
from twincore.profile.values import Value, as_number, tidy

LARGEST_DOMAIN = 100_000


class Parameter(Kind):
    """A menu value: a number from a lowest to a highest, in steps."""

    name, notation, powered, ranged = "parameter", "number", True, True
    panels = ("menu", "dial", "guided")

    def points(self, node: dict[str, Any], place: str, faults: FaultList) -> tuple[Point, ...]:
        """One point with every number that its steps reach."""
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
            faults.add(
                f"{place}.factory", f"expected a number that min and step reach, found {float(node['factory']):g}"
            )
            return ()
        return (Point(node["id"], domain, node["factory"], node.get("locked") is True),)

    def is_written_as(self, written: Any) -> bool:
        """As a number."""
        return not isinstance(written, str)

    def wanted(self, domain: Sequence[Any]) -> str:
        """The range and the step."""
        step = float(domain[1] - domain[0]) if len(domain) > 1 else 0
        return f"a number from {float(domain[0]):g} to {float(domain[-1]):g} in steps of {step:g}"

    def register_bits(self, element: Built, scale: Fraction) -> int:
        """In two's complement the sign takes a bit."""
        low, high = (round(Fraction(as_number(element.domain[end])) / scale) for end in (0, -1))
        return max(high.bit_length(), (-low - 1).bit_length()) + 1 if low < 0 else high.bit_length()

    def to_register(self, element: Built, values: Sequence[Value], scale: Fraction) -> int:
        """The number in units of the scale."""
        return round(Fraction(as_number(values[0])) / scale)

    def from_register(self, element: Built, raw: int, scale: Fraction, bits: int) -> list[Value | None] | None:
        """The number, signed where the lowest is; None where it is none of the settings."""
        signed = raw - (1 << bits) if as_number(element.domain[0]) < 0 and raw >> bits - 1 else raw
        value = tidy(signed * scale)
        return [value] if value in element.domain else None

    def setting(self, sketched: Sketched) -> dict[str, Any]:
        """What a board's document says of one that was sketched."""
        assert sketched.span is not None  # a parameter is read with one
        low, high, step = (int(each) if each == int(each) else each for each in sketched.span)
        unit = {"unit": sketched.unit} if sketched.unit else {}
        return {
            "id": sketched.id, "kind": self.name, "min": low, "max": high, "step": step, "factory": low, **unit
        }  # fmt: skip

    def sketch_words(self, sketched: Sketched) -> str:
        """The range and the step, in words."""
        low, high, step = sketched.span or (0, 0, 1)
        unit = f" {sketched.unit}" if sketched.unit else ""
        return f"a number from {low:g} to {high:g}{unit} in steps of {step:g}"
