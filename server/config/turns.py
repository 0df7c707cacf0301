"""How many requests a process computes at once: more than a few only take the interpreter from each other."""

from collections.abc import Callable
from threading import BoundedSemaphore

from django.http import HttpRequest, HttpResponse

AT_ONCE = 2
"""One computes while the other waits for the database; measured by `script/bench load`."""
OUT_OF_TURN = ("/port/", "/pictures/", "/health")
"""Requests that mostly wait for something outside (a board on its port, the engine that reads print), and the question whether
the process lives, which a busy one answers too.
"""

_turns = BoundedSemaphore(AT_ONCE)


def in_turn(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: a request waits for its turn; what it streams afterwards takes none."""

    def middleware(request: HttpRequest) -> HttpResponse:
        if any(part in request.path for part in OUT_OF_TURN):
            return get_response(request)
        with _turns:
            return get_response(request)

    return middleware
