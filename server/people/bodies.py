"""How large a body may be: limited before it is read, by the kind of request and by who sends it."""

import re
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime

from django.db.models import F
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from config.problems import problem
from people.models import Person, Sent


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of request: its addresses, the most bytes of its body, and whether only a parts lead sends it."""

    address: re.Pattern[str]
    most: int
    leads_only: bool = False


MB = 1_000_000
OF_NOBODY = 10_000
"""The most that somebody sends who is not signed in: a name and a password."""
OTHERWISE = 2_500_000
"""Entries, questions, and documents in the product's own formats."""
UPLOADS = (
    Kind(re.compile(r"/api/packages$"), 400 * MB, leads_only=True),
    Kind(re.compile(r"/api/imports$"), 600 * MB + MB, leads_only=True),
    Kind(re.compile(r"/api/jobs/[^/]+/pictures/[^/]+/chunks$"), MB),
    Kind(re.compile(r"/api/(pictures/|board-picture/|jobs/[^/]+/pictures/[^/]+$)"), 12 * MB),
)
AN_HOUR = {Person.Role.TECHNICIAN: 600 * MB, Person.Role.PARTS_LEAD: 3000 * MB}
"""What one person uploads in an hour, all together."""


def limited(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware, after those that know who asks: what is too large is refused with nothing of it read."""

    def middleware(request: HttpRequest) -> HttpResponse:
        return refused(request, timezone.now()) or get_response(request)

    return middleware


def refused(request: HttpRequest, now: datetime) -> HttpResponse | None:
    """The answer where a body is not read at all."""
    size = _size(request)
    if size == 0:
        return None
    person = request.user if isinstance(request.user, Person) else None
    if person is None:
        return _too_large(OF_NOBODY) if size > OF_NOBODY else None
    kind = next((each for each in UPLOADS if each.address.match(request.path)), None)
    if kind is None:
        return _too_large(OTHERWISE) if size > OTHERWISE else None
    if kind.leads_only and not person.keeps_catalogue:
        return problem(403, "Not allowed", "Only a parts lead may send this. Send the file to the depot.")
    if size > kind.most:
        return _too_large(kind.most)
    if not _within_the_hour(person, size, now):
        most = AN_HOUR[Person.Role(person.role)] // MB
        return problem(
            429, "Too much at once", f"Expected at most {most:,} MB an hour from one person. Send the rest later."
        )
    return None


def _size(request: HttpRequest) -> int:
    try:
        return max(0, int(request.headers.get("Content-Length") or 0))
    except ValueError:
        return 0


def _within_the_hour(person: Person, size: int, now: datetime) -> bool:
    """Count what a person sends; whether it is still within what is allowed."""
    hour = now.replace(minute=0, second=0, microsecond=0)
    Sent.objects.get_or_create(person=person, defaults={"hour": hour})
    Sent.objects.filter(person=person, hour__lt=hour).update(hour=hour, bytes=0)
    most = AN_HOUR[Person.Role(person.role)]
    return bool(Sent.objects.filter(person=person, bytes__lte=most - size).update(bytes=F("bytes") + size))


def _too_large(most: int) -> HttpResponse:
    told = f"{most // MB} MB" if most >= MB else f"{most // 1000} kB"
    return problem(413, "Too large", f"Expected at most {told}.")
