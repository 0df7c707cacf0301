"""Supply and control voltages: the bands to expect."""

from twincore.measure.constants import CONSTANTS
from twincore.measure.judging import Band


def supply_band(nominal_v: float) -> Band:
    """The band of a mains supply in volts by its nominal value (IEC 60038; ANSI C84.1 range A). Raises ValueError if unknown."""
    bands = CONSTANTS["nominal_supplies"]["bands_v"]
    found = bands.get(f"{nominal_v:g}")
    if found is None:
        raise ValueError(f"expected a nominal supply of {', '.join(bands)} V")
    return Band(*found)


def control_band(rated_v: float = CONSTANTS["control_supply"]["rated_v"]) -> Band:
    """A control supply under load: 0.85 to 1.10 times its rated voltage (common practice, no source)."""
    control = CONSTANTS["control_supply"]
    return Band(rated_v * control["lowest"], rated_v * control["highest"])


def is_class_2(volts: float, volt_amperes: float) -> bool:
    """Whether a transformer stays within class 2: at most 30 V and 100 VA (NEC article 725)."""
    limits = CONSTANTS["class_2_transformer"]
    return bool(volts <= limits["most_v"] and volt_amperes <= limits["most_va"])
