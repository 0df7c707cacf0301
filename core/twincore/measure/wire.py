"""Copper wire: size by gauge, resistance, voltage drop there and back."""

from math import pi

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
