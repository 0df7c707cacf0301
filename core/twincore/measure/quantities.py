"""Simple quantities that a test reads: resistance by Ohm's law, flame current, insulation, a fuse."""

from math import inf

from twincore.measure.judging import Band

FUSE_OHM = 2.0
"""A fuse or closed contact that reads more is suspect (common practice, no source)."""
INSULATION_MOHM = 1.0
"""The least insulation resistance of a machine's circuit to earth (IEC 60204-1, 18.3: 1 MΩ at 500 V; from memory)."""


def resistance_ohm(volts: float, amperes: float) -> float:
    """Ohm's law. Raises ValueError where no current flows."""
    if amperes == 0:
        raise ValueError("expected a current other than 0 A")
    return volts / amperes


def heater_ohm(volts: float, watts: float) -> float:
    """The resistance of a heating element or coil by its plate: R = U² / P."""
    if watts <= 0:
        raise ValueError("expected a power above 0 W")
    return volts * volts / watts


def closed_band() -> Band:
    """What a whole fuse, a closed contact or an unbroken lead reads, in ohm (common practice, no source)."""
    return Band(0.0, FUSE_OHM)


def insulation_band() -> Band:
    """What the insulation of a circuit to earth reads at least, in megohm."""
    return Band(INSULATION_MOHM, inf)
