"""What a replacement costs against other ways out: a plain sum of named amounts, each of which can be changed."""

from collections.abc import Mapping
from dataclasses import dataclass

ASSUMPTIONS: dict[str, float] = {
    "trade_factor": 1.0, "retail_factor": 1.8, "tax_percent": 20.0, "hour_rate": 65.0, "travel": 45.0,
    "lost_per_hour": 40.0, "open_hours_per_day": 8.0, "service_callout": 180.0, "service_hours": 2.0,
    "service_hour_rate": 95.0, "service_days": 3.0,
}  # fmt: skip
"""Invented figures in the demo world's money; every depot enters its own."""


@dataclass(frozen=True, slots=True)
class Line:
    """One amount of a sum, with the figures it is made from."""

    id: str
    amount: float
    made_from: dict[str, float]


@dataclass(frozen=True, slots=True)
class CostSum:
    """Own repair and calling somebody else's service, line by line; `saved` is the difference."""

    own: tuple[Line, ...]
    service: tuple[Line, ...]

    @property
    def own_total(self) -> float:
        """What the own repair costs."""
        return round(sum(each.amount for each in self.own), 2)

    @property
    def service_total(self) -> float:
        """What the service would cost."""
        return round(sum(each.amount for each in self.service), 2)

    @property
    def saved(self) -> float:
        """What is saved (negative: what it costs more)."""
        return round(self.service_total - self.own_total, 2)


def cost_sum(price: float, minutes: float, days: float, changed: Mapping[str, float]) -> CostSum:
    """Add up both ways: part, work, travel, tax, and the production lost until the machine runs again.

    `price` is the trade price of the part; money in the depot's currency; `changed` are assumptions set otherwise.
    """
    a = {**ASSUMPTIONS, **changed}
    tax = a["tax_percent"] / 100

    def lines(part: float, work: float, way: float, waiting_days: float, hours: float) -> tuple[Line, ...]:
        lost = a["lost_per_hour"] * (waiting_days * a["open_hours_per_day"] + hours)
        net = part + work + way
        return (
            Line("part", round(part, 2), {"price": price}),
            Line("work", round(work, 2), {"hours": round(hours, 2)}),
            Line("travel", round(way, 2), {}),
            Line("tax", round(net * tax, 2), {"percent": a["tax_percent"]}),
            Line("lost", round(lost, 2), {"days": waiting_days, "per_hour": a["lost_per_hour"]}),
        )

    own_hours = minutes / 60
    return CostSum(
        lines(price * a["trade_factor"], own_hours * a["hour_rate"], a["travel"], days, own_hours),
        lines(
            price * a["retail_factor"], a["service_hours"] * a["service_hour_rate"], a["service_callout"],
            a["service_days"], a["service_hours"],
        ),
    )  # fmt: skip
