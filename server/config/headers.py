"""The content policy: pages load nothing from anywhere else."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

POLICY = (
    "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; "
    "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)


def content_policy(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware that adds the policy to every answer."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        response.setdefault("Content-Security-Policy", POLICY)
        return response

    return middleware
