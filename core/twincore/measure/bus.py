"""Bus termination: how many terminators a resistance along the line speaks of."""

from dataclasses import dataclass
from math import inf

from twincore.measure.constants import CONSTANTS
from twincore.measure.judging import Band, Judgement, judge

TERMINATOR = CONSTANTS["bus_terminator"]
MOST = 4


@dataclass(frozen=True, slots=True)
class Termination:
    """How many terminators were read (None: cannot tell), and the reading against the two that belong there."""

    terminators: int | None
    judgement: Judgement


def terminated_band(terminators: int) -> Band:
    """The resistance between the two lines of a bus with so many terminators, in ohm (ISO 11898-2)."""
    if terminators == 0:
        return Band(TERMINATOR["ohm"] * 5, inf)
    ohm = TERMINATOR["ohm"] / terminators
    return Band(ohm * (1 - TERMINATOR["tolerance"]), ohm * (1 + TERMINATOR["tolerance"]))


def count_terminators(resistance_ohm: float, uncertainty_ohm: float = 0.0) -> Termination:
    """Count terminators from the resistance measured along a CAN or RS-485 line without power."""
    inside = [
        n for n in range(MOST + 1) if judge(resistance_ohm, terminated_band(n), uncertainty_ohm).verdict == "inside"
    ]
    return Termination(
        inside[0] if len(inside) == 1 else None, judge(resistance_ohm, terminated_band(2), uncertainty_ohm)
    )
