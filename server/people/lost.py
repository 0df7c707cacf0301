"""Devices that are lost: told to forget everything at their next contact."""

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse

from people.models import LostDevice

FORGET = '"cache", "cookies", "storage"'
"""Clear-Site-Data (W3C): the browser itself empties what it keeps of this address, the application with it."""


def forgotten(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware, before sessions: a device that comes with the session of a lost one is told to forget."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        key = request.COOKIES.get(settings.SESSION_COOKIE_NAME)
        if key and request.path.startswith("/api/") and not request.user.is_authenticated:
            lost = LostDevice.objects.filter(session_key=key)
            if lost.exists():
                response["Clear-Site-Data"] = FORGET
                lost.delete()
        return response

    return middleware
