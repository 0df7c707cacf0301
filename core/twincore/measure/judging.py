"""A reading with its uncertainty against a band: inside, outside, or cannot tell, with the margin."""

from dataclasses import dataclass
from math import inf


@dataclass(frozen=True, slots=True)
class Band:
    """What is expected, in the unit of the reading; an open end is infinite."""

    low: float = -inf
    high: float = inf

    def __post_init__(self) -> None:
        if not self.low <= self.high:
            raise ValueError(
                f"expected a band whose low end is not above its high end, found {self.low} to {self.high}"
            )


@dataclass(frozen=True, slots=True)
class Judgement:
    """`verdict` is inside, outside or cannot tell; `side` says below or above where it is outside.

    `margin` is the distance to the nearest end of the band, negative beyond it; None where the band has no end.
    """

    verdict: str
    side: str
    margin: float | None
    band: Band
    value: float
    uncertainty: float


def judge(value: float, band: Band, uncertainty: float = 0.0) -> Judgement:
    """Where a reading lies. It cannot tell where its uncertainty reaches across an end of the band.

    Raises ValueError for a negative uncertainty.
    """
    if uncertainty < 0:
        raise ValueError("expected an uncertainty of at least 0")
    to_low, to_high = value - band.low, band.high - value
    nearest = min(to_low, to_high)
    side = ""
    if to_low >= uncertainty and to_high >= uncertainty:
        verdict = "inside"
    elif to_low < -uncertainty or to_high < -uncertainty:
        verdict, side = "outside", "below" if to_low < 0 else "above"
    else:
        verdict = "cannot tell"
    return Judgement(verdict, side, None if nearest == inf else nearest, band, value, uncertainty)
