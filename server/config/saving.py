"""A request that changes something is saved together with its answer, or not at all."""

from collections.abc import Callable
from typing import Any

from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.utils.deprecation import MiddlewareMixin

READS = ("GET", "HEAD", "OPTIONS", "TRACE")


class SavedWithItsAnswer(MiddlewareMixin):
    """Middleware: where the answer cannot be made, what the request changed is taken back; "nothing was saved" is true."""

    def process_view(
        self, request: HttpRequest, view: Callable[..., HttpResponse], args: Any, kwargs: Any
    ) -> HttpResponse | None:
        """The answer of a request that may change something, made in one transaction; reading goes on as it does."""
        if request.method in READS:
            return None
        with transaction.atomic():
            answered = view(request, *args, **kwargs)
            if answered.status_code >= 500:
                transaction.set_rollback(True)
        return answered
