"""Resistance of temperature sensors over temperature, and back."""

from bisect import bisect_right
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import exp, log

from twincore.measure.constants import CONSTANTS
from twincore.measure.judging import Band

ZERO_C = 273.15
PLATINUM = CONSTANTS["platinum"]


@dataclass(frozen=True, slots=True)
class Curve:
    """A sensor's resistance in ohm over its temperature in °C, monotone between `lowest_c` and `highest_c`."""

    resistance_ohm: Callable[[float], float]
    lowest_c: float
    highest_c: float

    def temperature_c(self, resistance_ohm: float) -> float:
        """The temperature at which the sensor has a resistance; raises ValueError outside the curve.

        By halving the interval until it is a millionth of a degree wide.
        """
        low, high = self.lowest_c, self.highest_c
        rising = self.resistance_ohm(high) > self.resistance_ohm(low)
        ends = sorted((self.resistance_ohm(low), self.resistance_ohm(high)))
        if not ends[0] <= resistance_ohm <= ends[1]:
            raise ValueError(f"expected a resistance from {ends[0]:.4g} to {ends[1]:.4g} Ω, found {resistance_ohm:g}")
        while high - low > 1e-6:
            middle = (low + high) / 2
            if (self.resistance_ohm(middle) < resistance_ohm) == rising:
                low = middle
            else:
                high = middle
        return (low + high) / 2

    def band_at(self, temperature_c: float, within_c: float, within: float = 0.0) -> Band:
        """The resistances to expect when the temperature is known to ±`within_c`, the sensor to ±`within` (a fraction)."""
        if not self.lowest_c <= temperature_c <= self.highest_c:
            raise ValueError(f"expected a temperature from {self.lowest_c:g} to {self.highest_c:g} °C")
        ends = [
            self.resistance_ohm(min(max(t, self.lowest_c), self.highest_c))
            for t in (temperature_c - within_c, temperature_c + within_c)
        ]
        return Band(min(ends) * (1 - within), max(ends) * (1 + within))


def beta_curve(r25_ohm: float, beta_k: float) -> Curve:
    """NTC by its beta value: R = R25 · exp(B · (1/T − 1/298.15 K)). Source: the definition of the B value (IEC 60539-1)."""
    return Curve(lambda t: r25_ohm * exp(beta_k * (1 / (t + ZERO_C) - 1 / (25 + ZERO_C))), -55.0, 200.0)


def steinhart_hart_curve(a: float, b: float, c: float) -> Curve:
    """NTC by 1/T = A + B·ln R + C·(ln R)³ (Steinhart and Hart, Deep-Sea Research 15, 1968), solved for R in closed form."""

    def resistance_ohm(temperature_c: float) -> float:
        x = (a - 1 / (temperature_c + ZERO_C)) / c
        y = ((b / (3 * c)) ** 3 + x * x / 4) ** 0.5
        return exp((y - x / 2) ** (1 / 3) - (y + x / 2) ** (1 / 3))

    return Curve(resistance_ohm, -55.0, 200.0)


def table_curve(points: Sequence[tuple[float, float]]) -> Curve:
    """A sensor by its leaflet's table of (°C, Ω); between two lines the logarithm of R is straight over temperature."""
    rows = sorted(points)
    if len(rows) < 2:
        raise ValueError("expected at least two lines in the table")
    temperatures = [t for t, _ in rows]

    def resistance_ohm(temperature_c: float) -> float:
        index = min(max(bisect_right(temperatures, temperature_c), 1), len(rows) - 1)
        (t0, r0), (t1, r1) = rows[index - 1], rows[index]
        share = (temperature_c - t0) / (t1 - t0)
        return exp(log(r0) + share * (log(r1) - log(r0)))

    return Curve(resistance_ohm, temperatures[0], temperatures[-1])


def platinum_curve(r0_ohm: float = 100.0) -> Curve:
    """Pt100, Pt1000 by Callendar–Van Dusen (IEC 60751): R0·(1 + A·t + B·t² [+ C·(t − 100)·t³ below 0 °C])."""

    def resistance_ohm(t: float) -> float:
        below = PLATINUM["c"] * (t - 100) * t**3 if t < 0 else 0.0
        return float(r0_ohm * (1 + PLATINUM["a"] * t + PLATINUM["b"] * t * t + below))

    return Curve(resistance_ohm, PLATINUM["lowest_c"], PLATINUM["highest_c"])


def platinum_tolerance_c(temperature_c: float, tolerance_class: str) -> float:
    """What a platinum sensor may be off, in °C: class A ±(0.15 + 0.002·|t|), class B ±(0.30 + 0.005·|t|) (IEC 60751)."""
    base, slope = PLATINUM["classes"][tolerance_class]
    return float(base + slope * abs(temperature_c))
