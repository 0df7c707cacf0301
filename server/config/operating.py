"""What whoever runs the server asks of it: whether it lives, whether it is ready, what it did."""

import logging
import os
import time
from collections.abc import Callable
from functools import lru_cache
from hmac import compare_digest

from django.conf import settings
from django.core.files.base import ContentFile
from django.core.files.storage import default_storage
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, HttpResponse, JsonResponse
from prometheus_client import CONTENT_TYPE_LATEST, CollectorRegistry, Counter, Histogram, generate_latest
from prometheus_client.multiprocess import MultiProcessCollector

from config.logs import route_of
from config.problems import problem

logger = logging.getLogger(__name__)
METHODS = ("GET", "HEAD", "OPTIONS", "POST", "PUT", "PATCH", "DELETE")
READY_FOR_S = 1.0
"""What was looked at holds for so long: anybody may ask, and as often as they like."""
REQUESTS = Counter("worthy_twin_requests", "Requests answered.", ["method", "route", "status"])
SECONDS = Histogram(
    "worthy_twin_request_seconds", "Time to the answer.", ["route"],
    buckets=(0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10),
)  # fmt: skip


def counted(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware that counts requests and their time, by the kind of their address."""

    def middleware(request: HttpRequest) -> HttpResponse:
        begun = time.monotonic()
        response = get_response(request)
        route = route_of(request)
        # whoever asks may call a method what they like
        method = request.method if request.method in METHODS else "other"
        REQUESTS.labels(method, route, f"{response.status_code // 100}xx").inc()
        SECONDS.labels(route).observe(time.monotonic() - begun)
        return response

    return middleware


def health(request: HttpRequest) -> HttpResponse:
    """That the process answers: whoever starts it need not start it again."""
    return JsonResponse({"alive": True})


def ready(request: HttpRequest) -> HttpResponse:
    """Whether requests may be sent here, and which of what is needed is not in order; 503 where one is not. What is wrong
    with it stands in the log, and is told by script/doctor.
    """
    told = _looked_at(int(time.monotonic() / READY_FOR_S))
    in_order = set(told.values()) == {"in order"}
    return JsonResponse({"ready": in_order, **told}, status=200 if in_order else 503)


@lru_cache(maxsize=1)
def _looked_at(moment: int) -> dict[str, str]:
    """How what is needed stands, looked at once a moment."""
    wrong = {name: error for name, look in NEEDED.items() if (error := error_of(look)) is not None}
    for name, error in wrong.items():
        logger.warning("not ready: %s: %s", name, error)
    return {name: "not in order" if name in wrong else "in order" for name in NEEDED}


def metrics(request: HttpRequest) -> HttpResponse:
    """What was counted in all processes, in the text format that monitors read (Prometheus, OpenMetrics).

    Only whoever has the installation's token for it; without one set, nobody.
    """
    given = request.headers.get("Authorization", "").removeprefix("Bearer ")
    if not settings.METRICS_TOKEN or not compare_digest(given.encode(), settings.METRICS_TOKEN.encode()):
        return problem(401, "Not allowed", "Expected the token that TWIN_METRICS_TOKEN sets, as a bearer's.")
    if "PROMETHEUS_MULTIPROC_DIR" in os.environ:
        registry = CollectorRegistry()
        MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
        return HttpResponse(generate_latest(registry), content_type=CONTENT_TYPE_LATEST)
    return HttpResponse(generate_latest(), content_type=CONTENT_TYPE_LATEST)


def look_at_database() -> None:
    """Raise what is wrong where the database does not answer."""
    with connection.cursor() as cursor:
        cursor.execute("select 1")


def look_at_tables() -> None:
    """Raise what is wrong where the tables are of another version than this source."""
    executor = MigrationExecutor(connection)
    left = executor.migration_plan(executor.loader.graph.leaf_nodes())
    if left:
        raise RuntimeError(f"{len(left)} migrations are missing, from {left[0][0]}: run manage.py migrate")


def look_at_storage() -> None:
    """Raise what is wrong where pictures cannot be kept."""
    name = default_storage.save(f"ready/{os.getpid()}", ContentFile(b"ready"))
    default_storage.delete(name)


NEEDED: dict[str, Callable[[], None]] = {
    "database": look_at_database, "tables": look_at_tables, "storage": look_at_storage,
}  # fmt: skip


def error_of(look: Callable[[], None]) -> Exception | None:
    """What is wrong, where something is."""
    try:
        look()
    except Exception as error:  # whatever it is, it is told
        return error
    return None
