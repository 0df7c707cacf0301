"""What a depot's lead sees of its people: who signed in, whose sign-in failed, and which files were taken away."""

from collections.abc import Callable
from typing import Any

from axes.models import AccessFailureLog, AccessLog
from django.db.models import F, QuerySet, Value
from django.db.models.expressions import Combinable
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from people.access import depot_of, require_parts_lead
from people.models import Person, Taken
from people.tries import address_of

SIGNED_IN, FAILED, TOOK = "signed in", "could not sign in", "took away"


def told(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware, after those that know who asks: a file that is handed out is written down."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        name = response.get("Content-Disposition", "").partition('filename="')[2].rstrip('"')
        if name and response.status_code == 200 and isinstance(request.user, Person):
            Taken.objects.create(
                person=request.user, at=timezone.now(), name=name[:200], address=address_of(request) or None
            )
        return response

    return middleware


def happened(lead: Person) -> QuerySet[Any, dict[str, Any]]:
    """What happened in the lead's depot, the newest first: `moment`, `who` by username, `what`, `came_from`, and which `file`."""
    require_parts_lead(lead)
    depot = depot_of(lead)
    names = Person.objects.filter(depot=depot).values("username")
    signed_in = AccessLog.objects.filter(username__in=names)
    failed = AccessFailureLog.objects.filter(username__in=names)
    taken = Taken.objects.filter(person__depot=depot)
    return (
        _rows(signed_in, "attempt_time", "username", SIGNED_IN, "ip_address", Value(""))
        .union(
            _rows(failed, "attempt_time", "username", FAILED, "ip_address", Value("")),
            _rows(taken, "at", "person__username", TOOK, "address", F("name")),
            all=True,
        )
        .order_by("-moment")
    )


def _rows(
    found: QuerySet[Any], moment: str, who: str, what: str, came_from: str, file: Combinable
) -> QuerySet[Any, dict[str, Any]]:
    return found.order_by().values(moment=F(moment), who=F(who), what=Value(what), came_from=F(came_from), file=file)
