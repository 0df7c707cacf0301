"""Addresses: the API, and the web client for everything else."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie

from config import operating
from config.api import api


@never_cache
@ensure_csrf_cookie
def client(request: HttpRequest) -> HttpResponse:
    """The web client's one page."""
    return HttpResponse((settings.STATIC_ROOT / "index.html").read_bytes())


urlpatterns = [
    path("health", never_cache(operating.health)),
    path("ready", never_cache(operating.ready)),
    path("metrics", never_cache(operating.metrics)),
    path("api/", api.urls),
    re_path(r"^(?!api/|static/).*$", client),
]
handler404 = "config.problems.not_found"
handler500 = "config.problems.server_error"
