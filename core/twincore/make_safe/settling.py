"""Whether what a person says of a hold point makes it hold."""

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from twincore.make_safe.points import FLAGS, HoldPoint


@dataclass(frozen=True, slots=True)
class Fault:
    """What is missing or wrong: "missing", "not confirmed", "no number", "not below" or "too early" (seconds left)."""

    code: str
    name: str
    left_s: float = 0.0


def fault_of(point: HoldPoint, said: Mapping[str, Any], since_s: float | None) -> Fault | None:
    """None where the hold point holds; `since_s` is the time since the supply was locked off, None where it is not.

    The clock alone never ends a wait, and no reading does before the clock: what is measured may not be what is
    charged.
    """
    for name in point.asks:
        value = said.get(name)
        if name in FLAGS:
            if value is not True:
                return Fault("not confirmed", name)
        elif value is None or value == "":
            return Fault("missing", name)
        elif name == "reading" and (
            isinstance(value, bool) or not isinstance(value, int | float | Fraction) or value < 0
        ):
            return Fault("no number", name)
    if point.wait_s and (since_s is None or since_s < point.wait_s):
        return Fault("too early", "reading", point.wait_s - (since_s or 0.0))
    reading = said.get("reading")
    if point.limit is not None and reading is not None and not reading < point.limit:
        return Fault("not below", "reading")
    return None
