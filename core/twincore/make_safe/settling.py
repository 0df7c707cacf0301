"""Whether what a person says of a hold point makes it hold."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from twincore.make_safe.points import FLAGS, HoldPoint
from twincore.measure.constants import CONSTANTS

INDUCED_V: float = CONSTANTS["induced"]["below_v"]


@dataclass(frozen=True, slots=True)
class Fault:
    """What is missing or wrong: "missing", "not confirmed", "no number", "not below", "perhaps induced", "not asked" or "too early" (seconds left).
    Of a reading between terminals `name` is their pair, and `reading` what was read.
    """

    code: str
    name: str
    left_s: float = 0.0
    reading: float | None = None


def fault_of(point: HoldPoint, said: Mapping[str, Any], since_s: float | None) -> Fault | None:
    """None where the hold point holds; `since_s` is the time since the supply was locked off, None where it is not.

    The clock alone never ends a wait, and no reading does before the clock: what is measured may not be what is
    charged. Every pair of terminals has a reading of its own, and each must be below the limit.
    """
    for name in point.asks:
        value = said.get(name)
        if name in FLAGS:
            if value is not True:
                return Fault("not confirmed", name)
        elif name == "readings":
            continue
        elif value is None or value == "":
            return Fault("missing", name)
    if strange := sorted({*(said.get("readings") or ())} - {pair.id for pair in point.pairs}):
        return Fault("not asked", strange[0])
    for name, reading in _readings(point, said):
        if reading is None or reading == "":
            return Fault("missing", name)
        if (
            isinstance(reading, bool)
            or not isinstance(reading, int | float | Fraction)
            or not 0 <= reading < float("inf")
        ):
            return Fault("no number", name)
    if point.wait_s and (since_s is None or since_s < point.wait_s):
        return Fault("too early", "reading", point.wait_s - (since_s or 0.0))
    return above_limit(point, said)


def above_limit(point: HoldPoint, said: Mapping[str, Any]) -> Fault | None:
    """The first reading that is not below the limit of a hold point, among all that were said of it."""
    every = [("reading", said.get("reading")), *said.get("readings", {}).items()]
    for name, reading in every if point.limit is not None else ():
        if reading is not None and not reading < point.limit:
            induced = point.kind == "prove dead" and reading < INDUCED_V
            return Fault("perhaps induced" if induced else "not below", name, reading=float(reading))
    return None


def _readings(point: HoldPoint, said: Mapping[str, Any]) -> Iterator[tuple[str, Any]]:
    """The readings that a hold point asks for, by what they are of."""
    if "reading" in point.asks:
        yield "reading", said.get("reading")
    if "readings" in point.asks:
        readings = said.get("readings")
        for pair in point.pairs:
            yield pair.id, readings.get(pair.id) if isinstance(readings, Mapping) else None
