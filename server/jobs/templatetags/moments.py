"""Times, names and money as a printed page says them."""

from datetime import datetime

from django import template
from django.utils.dateformat import format as written
from django.utils.timezone import localtime

from config.money import money
from people.models import Depot

register = template.Library()


@register.filter
def as_words(name: str) -> str:
    """A name as words."""
    return name.replace("_", " ")


@register.filter
def money_of(amount: float, depot: Depot) -> str:
    """An amount as the depot writes it."""
    return money(amount, depot.currency, depot.locale)


@register.filter
def said_at(at: str) -> str:
    """A time from a record, to the minute, in the depot's time like every other on the page; what is none as it stands."""
    try:
        return written(localtime(datetime.fromisoformat(at)), "j F Y, H:i")
    except (TypeError, ValueError):
        return str(at)
