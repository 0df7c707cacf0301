"""Copper wire: size by gauge, resistance, what it may carry, voltage drop there and back."""

from dataclasses import dataclass
from math import pi
from typing import Literal

from twincore.measure.constants import CONSTANTS

FEET_PER_KM = 3280.84


def gauge_diameter_mm(gauge: int) -> float:
    """The diameter of a solid wire by its AWG number (ASTM B258)."""
    awg = CONSTANTS["awg"]
    return float(awg["diameter_mm"] * awg["ratio"] ** ((awg["smallest"] - gauge) / awg["gauges"]))


def gauge_area_mm2(gauge: int) -> float:
    """The cross-section of a solid wire by its AWG number, in mm²."""
    return pi * gauge_diameter_mm(gauge) ** 2 / 4


def gauge_ohm_per_km(gauge: int) -> float:
    """Solid copper at 75 °C (NEC chapter 9 table 8). Raises ValueError for a gauge that the table has not."""
    values = CONSTANTS["solid_copper_ohm_per_1000_ft"]["values"]
    if str(gauge) not in values:
        raise ValueError(f"expected a gauge of {', '.join(values)}")
    return float(values[str(gauge)] * FEET_PER_KM / 1000)


def area_ohm_per_km(area_mm2: float) -> float:
    """Fine-stranded copper at 20 °C, the largest allowed (IEC 60228 class 5). Raises ValueError for other sizes."""
    values = CONSTANTS["class_5_copper_ohm_per_km"]["values"]
    found = values.get(f"{area_mm2:g}")
    if found is None:
        raise ValueError(f"expected a cross-section of {', '.join(values)} mm²")
    return float(found)


def voltage_drop_v(current_a: float, one_way_m: float, ohm_per_km: float) -> float:
    """Ohm's law over the way there and back."""
    return current_a * 2 * one_way_m / 1000 * ohm_per_km


def ampacity_a(area_mm2: float) -> float:
    """What a copper wire of a cross-section may carry for long, in ampere (IEC 60204-1 table 6, method B1, PVC, 40 °C).

    A size between two of the table counts as the smaller one. Raises ValueError for one that is thinner than the table's.
    """
    values = {float(size): float(amps) for size, amps in CONSTANTS["copper_ampacity_a"]["values"].items()}
    smaller = [size for size in values if size <= area_mm2]
    if not smaller:
        raise ValueError(f"expected a cross-section of at least {min(values):g} mm²")
    return values[max(smaller)]


def gauge_ampacity_a(gauge: int) -> float:
    """What a copper wire of an AWG number may carry, in ampere (NEC 240.4(D)). Raises ValueError for one not in the table."""
    values = CONSTANTS["gauge_ampacity_a"]["values"]
    if str(gauge) not in values:
        raise ValueError(f"expected a gauge of {', '.join(values)}")
    return float(values[str(gauge)])


@dataclass(frozen=True, slots=True)
class WireJudged:
    """A wire under a load: `thick enough`, `too thin`, `too long` (more is lost on the way than is allowed) or `not known`."""

    verdict: Literal["thick enough", "too thin", "too long", "not known"]
    allowed_a: float | None
    drop_v: float | None


def judge_wire(
    load_a: float, area_mm2: float | None, gauge: int | None, one_way_m: float | None, volts: float | None
) -> WireJudged:
    """Whether a wire, by cross-section or by gauge, carries a load; with its length and the supply, also over its way."""
    try:
        allowed = gauge_ampacity_a(gauge) if gauge is not None else ampacity_a(area_mm2 or 0)
    except ValueError:
        return WireJudged("not known", None, None)
    drop = None
    if one_way_m is not None:
        try:
            ohm = gauge_ohm_per_km(gauge) if gauge is not None else area_ohm_per_km(area_mm2 or 0)
            drop = voltage_drop_v(load_a, one_way_m, ohm)
        except ValueError:
            drop = None
    if load_a > allowed:
        return WireJudged("too thin", allowed, drop)
    far = drop is not None and volts is not None and drop > volts * CONSTANTS["voltage_drop"]["share"]
    return WireJudged("too long" if far else "thick enough", allowed, drop)
