"""Times as a printed page says them."""

from datetime import datetime

from django import template
from django.utils.dateformat import format as written

register = template.Library()


@register.filter
def said_at(at: str) -> str:
    """A time from a record, to the minute, UTC; what is none is shown as it stands."""
    try:
        return written(datetime.fromisoformat(at), "j F Y, H:i")
    except (TypeError, ValueError):
        return str(at)
