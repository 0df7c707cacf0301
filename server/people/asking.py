"""Who asks: Django's answer, without asking the database twice."""

from django.conf import settings
from django.contrib import auth
from django.contrib.auth.middleware import AuthenticationMiddleware
from django.contrib.auth.models import AnonymousUser
from django.http import HttpRequest
from django.utils.crypto import constant_time_compare
from django.utils.functional import SimpleLazyObject

from people.models import Person


class WhoAsks(AuthenticationMiddleware):
    """Middleware, after sessions: `request.user`, looked for when somebody wants to know."""

    def process_request(self, request: HttpRequest) -> None:
        """Say who asks."""
        super().process_request(request)
        request.user = SimpleLazyObject(lambda: _who(request))  # type: ignore[assignment]


def _who(request: HttpRequest) -> Person | AnonymousUser:
    """Who asks, looked for once; where Django keeps it, others find it who do not want to be the first to ask (the log)."""
    kept: dict[str, Person | AnonymousUser] = request.__dict__
    if "_cached_user" not in kept:
        kept["_cached_user"] = _found(request)
    return kept["_cached_user"]


def _found(request: HttpRequest) -> Person | AnonymousUser:
    """The person whose session it is, where the session says so too, and their password is still the one it was begun with."""
    session = request.session
    said = session.get(auth.SESSION_KEY)
    person = getattr(session, "person", None)
    if (
        person is not None
        and str(person.pk) == said
        and person.is_active
        and session.get(auth.BACKEND_SESSION_KEY) in settings.AUTHENTICATION_BACKENDS
        and constant_time_compare(session.get(auth.HASH_SESSION_KEY, ""), person.get_session_auth_hash())
    ):
        return person
    return auth.get_user(request)
