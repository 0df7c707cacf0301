"""What every answer bears: pages load nothing from anywhere else, and nobody keeps what the API says."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

from config.parsing import is_text
from config.policies import ISOLATED, POLICY
from config.problems import problem

FORMS = ("multipart/form-data", "application/x-www-form-urlencoded")
"""Kinds of body that are read to look for a form token before anybody is asked who sends them."""
TAKES_FORMS = ("/api/imports",)


def content_policy(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware that adds the policies to every answer."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        response.setdefault("Content-Security-Policy", POLICY)
        response.setdefault("Cross-Origin-Embedder-Policy", ISOLATED)
        return response

    return middleware


def readable_address(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware, before anything is looked up: an address is text that can be kept."""

    def middleware(request: HttpRequest) -> HttpResponse:
        if not is_text(request.path):
            return problem(
                404, "Not found", "This address cannot be read. Check it, or open the list and go from there."
            )
        return get_response(request)

    return middleware


def for_the_moment(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware for what the API says: nobody keeps it, and a method that an address does not take is told in its words."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        if not request.path.startswith("/api/"):
            return response
        if response.status_code == 405:
            response = _no_such_method(response)
        response.setdefault("Cache-Control", "no-store")
        return response

    return middleware


def forms(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware, after those that know who asks: a form is read only where one is taken, and only of somebody signed in."""

    def middleware(request: HttpRequest) -> HttpResponse:
        if request.content_type in FORMS:
            if request.path not in TAKES_FORMS:
                return problem(415, "This cannot be read", "Expected application/json, or the file itself as the body.")
            if not request.user.is_authenticated:
                return problem(401, "Sign in first", "Nobody is signed in, or the sign-in has run out.")
        return get_response(request)

    return middleware


def _no_such_method(response: HttpResponse) -> HttpResponse:
    allowed = response.headers.get("Allow", "")
    told = problem(405, "Not allowed", f"This address takes {allowed or 'another method'}.")
    if allowed:
        told["Allow"] = allowed
    return told
