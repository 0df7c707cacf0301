"""Stored energy: how long a capacitor stays dangerous. The computed time never ends the wait: a reading does."""

from dataclasses import dataclass
from math import log

from twincore.measure.constants import CONSTANTS

TOUCH = CONSTANTS["touch_voltage"]


@dataclass(frozen=True, slots=True)
class StoredEnergy:
    """`decay_s` is the time to the touch limit through the bleeder; None where there is no bleeder."""

    decay_s: float | None
    energy_j: float
    charge_uc: float
    exempt: bool
    within_limit: bool
    wait_s: float


def discharge_s(capacitance_uf: float, volts: float, bleed_kohm: float, limit_v: float = TOUCH["limit_v"]) -> float:
    """Time for a capacitor to fall to a voltage through its bleeder: t = R·C·ln(V0/V)."""
    if min(capacitance_uf, bleed_kohm) < 0 or limit_v <= 0:
        raise ValueError("expected a capacitance and resistance of at least 0 and a limit above 0 V")
    return bleed_kohm * 1e3 * capacitance_uf * 1e-6 * log(volts / limit_v) if volts > limit_v else 0.0


def largest_bleed_kohm(capacitance_uf: float, volts: float, within_s: float = TOUCH["within_s"]) -> float:
    """The largest bleeder that brings a capacitor to the touch limit in time."""
    return within_s / (capacitance_uf * 1e-6 * log(volts / TOUCH["limit_v"])) / 1e3


def stored_energy(
    capacitance_uf: float, volts: float, bleed_kohm: float | None, maker_wait_s: float | None = None
) -> StoredEnergy:
    """Energy in joules, charge in µC, and the wait: the longer of the computed time and the maker's.

    Where neither is known the wait is ten minutes (common practice, no source). Limits: IEC 60204-1, 6.2.4.
    """
    decay = None if bleed_kohm is None else discharge_s(capacitance_uf, volts, bleed_kohm)
    charge_uc = capacitance_uf * volts
    known = [each for each in (decay, maker_wait_s) if each is not None]
    return StoredEnergy(
        decay_s=decay,
        energy_j=capacitance_uf * 1e-6 * volts**2 / 2,
        charge_uc=charge_uc,
        exempt=charge_uc <= TOUCH["exempt_uc"],
        within_limit=decay is not None and decay <= TOUCH["within_s"],
        wait_s=max(known) if known else CONSTANTS["drive_wait"]["wait_s"],
    )
