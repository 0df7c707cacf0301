"""Files to take away: one place for how they are named."""

from collections.abc import Iterable

from django.http import HttpResponse, StreamingHttpResponse

JSON, PDF, CSV = "application/json", "application/pdf", "text/csv; charset=utf-8"


def download(data: bytes, content_type: str, name: str) -> HttpResponse:
    """Data as a file."""
    return HttpResponse(data, content_type=content_type, headers=named(name))


def stream(text: Iterable[str], content_type: str, name: str) -> StreamingHttpResponse:
    """A file that is written while it is taken."""
    return StreamingHttpResponse(text, content_type=content_type, headers=named(name))


def named(name: str) -> dict[str, str]:
    """The header under which a browser keeps a file."""
    safe = "".join(c if c.isascii() and (c.isalnum() or c in "-._") else "_" for c in name)
    return {"Content-Disposition": f'attachment; filename="{safe}"'}
