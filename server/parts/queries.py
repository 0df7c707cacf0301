"""Reading what the parts desk said."""

from collections.abc import Iterable
from datetime import datetime
from typing import Any

from parts.models import Offer


def offers(part_numbers: Iterable[str], now: datetime) -> dict[str, dict[str, Any]]:
    """The last known answer about each part, with its age in seconds; parts that nobody asked about are not there."""
    found = {}
    for row in Offer.objects.filter(part_number__in=list(part_numbers)):
        if row.answered_at is None:
            if row.fault:
                found[row.part_number] = {"unknown": False, "silent": True, "fault": row.fault}
            continue
        found[row.part_number] = {
            "unknown": row.unknown,
            "price": float(row.price) if row.price is not None else None,
            "stock": row.stock or 0,
            "on_van": row.on_van,
            "days": row.days,
            "age_s": (now - row.answered_at).total_seconds(),
            "fault": row.fault,
        }
    return found
