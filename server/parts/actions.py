"""Use case of the parts desk: have it asked, in the background."""

from collections.abc import Iterable
from datetime import datetime, timedelta

from procrastinate import exceptions

from parts.models import Offer
from parts.tasks import ask_parts_desk

FRESH = timedelta(minutes=10)
REST = timedelta(seconds=20)
"""How long a question that nobody answered is left alone."""
MOST_AT_ONCE = 25


def want_offers(part_numbers: Iterable[str], now: datetime) -> None:
    """Have the desk asked about parts whose answer is old; returns at once, whatever the desk does."""
    wanted = list(dict.fromkeys(part_numbers))[:MOST_AT_ONCE]
    known = {each.part_number: each for each in Offer.objects.filter(part_number__in=wanted)}
    stale = [name for name in wanted if _stale(known.get(name), now)]
    if not stale:
        return
    Offer.objects.bulk_create(
        [Offer(part_number=name, asked_at=now) for name in stale],
        update_conflicts=True, unique_fields=["part_number"], update_fields=["asked_at"],
    )  # fmt: skip
    try:
        ask_parts_desk.defer(part_numbers=stale)
    except exceptions.ConnectorException:
        # the page is shown with what is known; the next look asks again
        Offer.objects.filter(part_number__in=stale).update(asked_at=None)


def _stale(offer: Offer | None, now: datetime) -> bool:
    if offer is None or offer.asked_at is None:
        return True
    if offer.answered_at is not None and now - offer.answered_at < FRESH:
        return False
    return now - offer.asked_at > REST
