"""Keep what the parts desk said, or that it was away."""

from collections.abc import Iterable
from datetime import datetime
from typing import Any

from parts.desk import Answer
from parts.models import Offer


def keep_answer(part_number: str, answer: Answer | None, now: datetime) -> None:
    """Keep an answer; None: the desk does not know the part."""
    values: dict[str, Any] = {"unknown": answer is None, "answered_at": now, "asked_at": now, "fault": ""}
    if answer is not None:
        values |= {"price": answer.price, "stock": answer.stock, "on_van": answer.on_van, "days": answer.days}
    Offer.objects.update_or_create(part_number=part_number, defaults=values)


def keep_fault(part_numbers: Iterable[str], fault: str) -> None:
    """Note that the desk was away; what it said before stays, and ages."""
    Offer.objects.filter(part_number__in=list(part_numbers)).update(fault=fault[:200])
