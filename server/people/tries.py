"""How often a password may be tried: axes counts by name and address together; here by each of them alone."""

from datetime import datetime, timedelta

from axes.models import AccessFailureLog, AccessLog
from django.conf import settings
from django.db.models import Max
from django.http import HttpRequest

from people.models import Person

A_WHILE, A_DAY = timedelta(minutes=15), timedelta(days=1)
MOST_FROM_ONE_ADDRESS = 40
"""Wrong passwords from one address, whatever the names: a depot behind one address has people who mistype."""
MOST_FOR_ONE_NAME = 100
"""Wrong passwords for one name, from wherever, since it last signed in (NIST SP 800-63B, 5.2.2: at most 100); within a day, so
that nobody outside shuts a depot's only lead out for good.
"""


def address_of(request: HttpRequest) -> str:
    """The address that a request comes from: what the outermost of our own proxies saw."""
    told = request.META.get("HTTP_X_FORWARDED_FOR", "").split(",") if settings.PROXIES else []
    if len(told) >= settings.PROXIES > 0:
        return str(told[-settings.PROXIES]).strip()
    return str(request.META.get("REMOTE_ADDR", ""))


def too_many(request: HttpRequest, username: str, now: datetime) -> bool:
    """Whether wrong passwords were tried too often: from this address lately, or for this name since it signed in."""
    wrong = AccessFailureLog.objects.all()
    lately = wrong.filter(ip_address=address_of(request) or None, attempt_time__gt=now - A_WHILE)
    if lately.count() >= MOST_FROM_ONE_ADDRESS:
        return True
    for_name = wrong.filter(username=username)
    since = [
        now - A_DAY,
        AccessLog.objects.filter(username=username).aggregate(at=Max("attempt_time"))["at"],
        Person.objects.filter(username=username).aggregate(at=Max("tries_from"))["at"],
    ]
    return for_name.filter(attempt_time__gt=max(each for each in since if each)).count() >= MOST_FOR_ONE_NAME


def open_again(person: Person, now: datetime) -> None:
    """Count the wrong passwords tried for a name no more: its parts lead gave it another one."""
    person.tries_from = now
    person.save(update_fields=["tries_from"])
