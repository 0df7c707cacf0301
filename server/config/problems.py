"""Every error as a problem document (RFC 9457)."""

import logging
from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.db import IntegrityError, connection, transaction
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from psycopg.errors import UniqueViolation

from twincore.errors import TwinError
from twinshown.refusals import Refused, problem_body, refused_as

logger = logging.getLogger(__name__)


SCHEMA: dict[str, Any] = {
    "title": "Problem",
    "description": "What was wrong, where, and what to do (RFC 9457).",
    "type": "object",
    "required": ["type", "title", "status", "detail"],
    "properties": {
        "type": {"type": "string"},
        "title": {"type": "string"},
        "status": {"type": "integer"},
        "detail": {"type": "string"},
        "faults": {
            "type": "array",
            "items": {
                "type": "object",
                "required": ["place", "expected"],
                "properties": {"place": {"type": "string"}, "expected": {"type": "string"}},
            },
        },
    },
}
RESPONSE: dict[str, Any] = {
    "description": "Refused",
    "content": {"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}},
}


def problem(status: int, title: str, detail: str, **extra: Any) -> JsonResponse:
    """A problem document as an answer."""
    body = {"type": "about:blank", "title": title, "status": status, "detail": detail, **extra}
    return JsonResponse(body, status=status, content_type="application/problem+json")


def register(api: NinjaAPI) -> None:
    """Turn every exception of the API into a problem document."""

    @api.exception_handler(Refused)
    def refused(request: HttpRequest, error: Refused) -> HttpResponse:
        return JsonResponse(problem_body(error), status=error.status, content_type="application/problem+json")

    @api.exception_handler(TwinError)
    def twin(request: HttpRequest, error: TwinError) -> HttpResponse:
        return refused(request, refused_as(error))

    @api.exception_handler(AuthenticationError)
    def unknown(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return problem(401, "Sign in first", "Nobody is signed in, or the sign-in has run out.")

    @api.exception_handler(ValidationError)
    def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
        faults = [
            {"place": ".".join(str(part) for part in each["loc"][1:]), "expected": str(each["msg"])}
            for each in error.errors
        ]
        return problem(422, "Check what you entered", "The request does not have the form expected.", faults=faults)

    @api.exception_handler(IntegrityError)
    def sent_twice(request: HttpRequest, error: IntegrityError) -> HttpResponse:
        if not isinstance(error.__cause__, UniqueViolation):
            return unexpected(request, error)
        if connection.in_atomic_block:
            transaction.set_rollback(True)
        return problem(
            409,
            "Sent twice at once",
            "The same was sent at the same moment. Look whether it is there, else send it again.",
        )

    @api.exception_handler(Http404)
    def missing(request: HttpRequest, error: Http404) -> HttpResponse:
        return problem(404, "Not found", "There is nothing here under this name.")

    @api.exception_handler(RequestDataTooBig)
    def too_big(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
        return problem(413, "Too large", "Expected at most 2 MB.")

    @api.exception_handler(HttpError)
    def http(request: HttpRequest, error: HttpError) -> HttpResponse:
        if isinstance(error.__cause__, Refused):
            return refused(request, error.__cause__)
        return problem(error.status_code, "Not done", str(error))

    @api.exception_handler(Exception)
    def unexpected(request: HttpRequest, error: Exception) -> HttpResponse:
        logger.exception("unexpected error in %s", request.path)
        return problem(500, "Something went wrong here", "Nothing was saved. Try again; if it stays, tell the depot.")


def csrf_failure(request: HttpRequest, reason: str = "") -> HttpResponse:
    """The answer where the form token is missing or stale."""
    return problem(403, "Not allowed", "The page is out of date. Load it again and repeat the last step.")


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    """The answer for an address that does not exist."""
    return problem(404, "Not found", "There is nothing at this address.")


def server_error(request: HttpRequest) -> HttpResponse:
    """The answer for anything unexpected outside the API."""
    return problem(500, "Something went wrong here", "Try again; if it stays, tell the depot.")
