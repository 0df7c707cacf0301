"""What every answer bears: pages load nothing from anywhere else, and nobody keeps what the API says."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

from config.problems import problem

POLICY = (
    "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; "
    "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)


def content_policy(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware that adds the policy to every answer; those of the API are for the moment, and wrong methods are told as such."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        if request.path.startswith("/api/"):
            if response.status_code == 405:
                response = _no_such_method(response)
            response.setdefault("Cache-Control", "no-store")
        response.setdefault("Content-Security-Policy", POLICY)
        return response

    return middleware


def _no_such_method(response: HttpResponse) -> HttpResponse:
    allowed = response.headers.get("Allow", "")
    told = problem(405, "Not allowed", f"This address takes {allowed or 'another method'}.")
    if allowed:
        told["Allow"] = allowed
    return told
