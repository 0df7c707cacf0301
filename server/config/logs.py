"""What the server writes to its log: one line of JSON each, with the id of the request it belongs to."""

import json
import logging
import re
import time
from collections.abc import Callable
from contextvars import ContextVar
from datetime import UTC, datetime
from uuid import uuid4

from django.http import HttpRequest, HttpResponse

REQUEST_ID: ContextVar[str] = ContextVar("request_id", default="")
GIVEN = re.compile(r"[A-Za-z0-9-]{8,64}$")
"""An id that a proxy gave may be taken on."""
requests = logging.getLogger("worthy_twin.requests")


class Line(logging.Formatter):
    """A record as one line of JSON."""

    def format(self, record: logging.LogRecord) -> str:
        """When, how grave, from where, which request, and what."""
        line = {
            "at": datetime.fromtimestamp(record.created, UTC).isoformat(timespec="milliseconds"),
            "level": record.levelname.lower(),
            "from": record.name,
            "request": REQUEST_ID.get(),
            "said": record.getMessage(),
            **getattr(record, "more", {}),
        }
        if record.exc_info:
            line["trace"] = self.formatException(record.exc_info)
        return json.dumps({name: value for name, value in line.items() if value != ""}, ensure_ascii=False)


def told(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware, the outermost: every request has an id, which its answer bears, and a line in the log.

    The line names the kind of address and the person's name; nothing of what was asked or said.
    """

    def middleware(request: HttpRequest) -> HttpResponse:
        given = request.headers.get("X-Request-ID", "")
        mark = REQUEST_ID.set(given if GIVEN.fullmatch(given) else uuid4().hex)
        begun = time.monotonic()
        try:
            response = get_response(request)
            response["X-Request-ID"] = REQUEST_ID.get()
            more = {
                "method": request.method, "route": route_of(request), "status": response.status_code,
                "ms": round((time.monotonic() - begun) * 1000, 1), "person": _name(request),
            }  # fmt: skip
            requests.info("answered", extra={"more": more})
            return response
        finally:
            REQUEST_ID.reset(mark)

    return middleware


def route_of(request: HttpRequest) -> str:
    """The kind of an address: without the ids and numbers in it."""
    return request.resolver_match.route if request.resolver_match else "unknown"


def _name(request: HttpRequest) -> str:
    # whoever asks was looked up where that was needed; it is not looked up for the log alone
    person = request.__dict__.get("_cached_user")
    return str(person.get_username()) if person is not None else ""
