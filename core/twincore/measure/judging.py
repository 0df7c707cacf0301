"""A reading with its uncertainty against a band: inside, outside, or cannot tell, with the margin."""

from dataclasses import dataclass
from math import inf
from typing import Literal

Side = Literal["above", "below"]


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


def reading_words(value: float | None, side: str | None, unit: str) -> str:
    """A reading as people say it: "0.4 Ω", "more than 2000 Ω", "more than the meter reads (OL)"."""
    if value is None:
        return "more than the meter reads (OL)" if side == "above" else "nothing that the meter reads"
    told = f"{value:.10g} {unit}".rstrip()
    return f"{'more' if side == 'above' else 'less'} than {told}" if side else told


def judge_beyond(side: Side, limit: float | None, band: Band) -> Judgement:
    """Where a reading lies of which the meter says only that it is above, or below, a limit: "> 2000", "< 1".

    "OL" and "open" are above with no limit: more than the meter reads in any of its ranges. Below a limit above 0 nothing
    negative is meant. It cannot tell where an end of the band lies among what the reading may be.
    """
    if side == "above":
        low, high = inf if limit is None else limit, inf
        worst = None if limit is None or band.high == inf else band.high - limit
        outside = band.high < inf if limit is None else band.high <= limit
    else:
        high = 0.0 if limit is None else limit
        low = 0.0 if high >= 0 else -inf
        worst = None if band.low <= low else high - band.low
        outside = band.low >= high and band.low > 0
    inside = band.low <= low and high <= band.high
    verdict = "outside" if outside else "inside" if inside else "cannot tell"
    value = limit if limit is not None else inf if side == "above" else 0.0
    return Judgement(verdict, side if outside else "", worst if outside else None, band, value, 0.0)
