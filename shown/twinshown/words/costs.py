"""What a repair costs against calling a service, in words."""

from collections.abc import Mapping
from typing import Any

from twincore import choose
from twincore.choose import ASSUMPTIONS, Line
from twincore.job import State
from twinshown.words.schemas import CostLine, CostsShown

Offers = Mapping[str, Mapping[str, Any]]
"""What the parts desk said last, by part number."""


def costs_shown(
    state: State, assumptions: Mapping[str, Any], offers: Offers, part_number: str | None = None
) -> CostsShown:
    """Own repair with the chosen board (or another) against calling a service; `assumptions` are the depot's."""
    name = part_number or state["replacement"]
    changed = {**assumptions, **state["costs"]}
    offer = offers.get(name, {}) if name else {}
    price = changed.pop("price", offer.get("price") or 0.0)
    choice = state["choice"]
    stood = choice["alternatives"] if choice else []
    judged = next((each for each in stood if each["part_number"] == name), None)
    minutes = changed.pop("minutes", judged["minutes"] if judged else 45.0)
    days = changed.pop("days", 0.0 if offer.get("stock") else offer.get("days") or 0.0)
    total = choose.cost_sum(float(price), float(minutes), float(days), changed)
    told = "entered here" if "price" in state["costs"] else "parts desk" if offer.get("price") else "not known"
    return CostsShown(
        own=[cost_line(each) for each in total.own],
        service=[cost_line(each) for each in total.service],
        own_total=total.own_total,
        service_total=total.service_total,
        saved=total.saved,
        assumptions={**ASSUMPTIONS, **changed, "price": float(price), "minutes": float(minutes), "days": float(days)},
        changed=sorted(state["costs"]),
        price_from=told,
    )


FIGURES = {
    "trade_factor": "our mark-up", "retail_factor": "a contractor’s mark-up", "tax_percent": "tax", "hour_rate": "our hourly rate",
    "travel": "our travel", "lost_per_hour": "downtime cost per hour", "open_hours_per_day": "hours of production per day",
    "service_callout": "a contractor’s call-out charge", "service_hours": "a contractor’s hours",
    "service_hour_rate": "a contractor’s hourly rate", "service_days": "days until a contractor comes",
}  # fmt: skip
"""What a sum of costs is made from, in words."""


def not_entered(costs: Mapping[str, Any], assumptions: Mapping[str, Any]) -> list[str]:
    """The figures of a sum of costs that neither the depot nor anybody on the job entered, in words."""
    return [words for name, words in FIGURES.items() if name not in assumptions and name not in costs]


LINES = {"part": "Part", "work": "Work", "travel": "Way there", "tax": "Tax", "lost": "Lost production"}


def cost_line(line: Line) -> CostLine:
    """One amount of a sum, in words."""
    made = {
        "work": lambda f: f"{f['hours']:g} h",
        "tax": lambda f: f"{f['percent']:g} %",
        "lost": lambda f: f"{f['days']:g} days and the hours of work, {f['per_hour']:g} an hour",
    }
    detail = made[line.id](line.made_from) if line.id in made else ""
    return CostLine(id=line.id, amount=line.amount, words=f"{LINES[line.id]}{f' ({detail})' if detail else ''}")
