"""Pages to print: a template as a PDF that loads nothing from outside."""

from base64 import b64decode
from typing import Any

from django.template.loader import render_to_string
from weasyprint import HTML
from weasyprint.urls import URLFetcherResponse


def as_pdf(template: str, context: dict[str, Any]) -> bytes:
    """A template with its context, as a PDF."""
    data: bytes | None = HTML(string=render_to_string(template, context), url_fetcher=_nothing_from_outside).write_pdf()
    assert data is not None  # write_pdf returns bytes where no target is given
    return data


def _nothing_from_outside(url: str, *_: Any, **__: Any) -> URLFetcherResponse:
    head, comma, data = url.partition(",")
    if comma and head.startswith("data:") and head.endswith(";base64"):
        # a picture that stands in the page itself
        return URLFetcherResponse(url, b64decode(data), {"Content-Type": head[len("data:") : -len(";base64")]})
    raise ValueError(f"a printed page loads nothing, not even {url[:80]}")
