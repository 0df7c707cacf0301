"""Files to take away: one place for how they are named."""

from collections.abc import Iterable
from typing import Any

from django.http import HttpResponse, StreamingHttpResponse

JSON, PDF, CSV = "application/json", "application/pdf", "text/csv; charset=utf-8"
ZIP, EVENTS, PICTURE = "application/zip", "text/event-stream", "image/*"


def a_file(content_type: str) -> dict[str, Any]:
    """What the API's document says of an operation that answers with a file."""
    held = {"schema": {"type": "string", "format": "binary"}}
    return {"responses": {200: {"description": "OK", "content": {content_type.partition(";")[0]: held}}}}


STARTS_A_FORMULA = ("=", "+", "-", "@", "\t", "\r")
"""What a spreadsheet takes for the beginning of something to work out (OWASP, CSV injection)."""


def cell(text: str) -> str:
    """A text as a cell that no spreadsheet works out: with an apostrophe before it where it would. A number stays one."""
    return f"'{text}" if text.lstrip("'").startswith(STARTS_A_FORMULA) and not _is_number(text) else text


def text_of(written: str) -> str:
    """The text of a cell that was handed out so."""
    return written[1:] if written[:1] == "'" and written.lstrip("'").startswith(STARTS_A_FORMULA) else written


def _is_number(text: str) -> bool:
    try:
        float(text)
    except ValueError:
        return False
    return True


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
