"""Pages to print: a template as a PDF that loads nothing from outside."""

from base64 import b64decode, b64encode
from functools import cache
from pathlib import Path
from typing import Any

from django.template.loader import render_to_string
from PIL import ImageFile
from weasyprint import CSS, HTML
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcherResponse

# the printing library asks for pictures that break off to be taken as whole, everywhere; here they are none
ImageFile.LOAD_TRUNCATED_IMAGES = False

FONTS = Path(__file__).parent / "fonts"
FACES = {"Atkinson Hyperlegible Next": "next.woff2", "Atkinson Hyperlegible Mono": "mono.woff2"}


def as_pdf(template: str, context: dict[str, Any]) -> bytes:
    """A template with its context, as a PDF in the application's own type."""
    fonts = FontConfiguration()
    page = HTML(string=render_to_string(template, context), url_fetcher=_nothing_from_outside)
    faces = CSS(string=_faces(), font_config=fonts, url_fetcher=_nothing_from_outside)
    data: bytes | None = page.write_pdf(stylesheets=[faces], font_config=fonts)
    assert data is not None  # write_pdf returns bytes where no target is given
    return data


@cache
def _faces() -> str:
    """The typefaces, in the style sheet itself: every weight is in one file."""
    return "".join(
        f'@font-face {{ font-family: "{name}"; '
        f"src: url(data:font/woff2;base64,{b64encode((FONTS / file).read_bytes()).decode()}) }}"
        for name, file in FACES.items()
    )


def _nothing_from_outside(url: str, *_: Any, **__: Any) -> URLFetcherResponse:
    head, comma, data = url.partition(",")
    if comma and head.startswith("data:") and head.endswith(";base64"):
        # a picture that stands in the page itself
        return URLFetcherResponse(url, b64decode(data), {"Content-Type": head[len("data:") : -len(";base64")]})
    raise ValueError(f"a printed page loads nothing, not even {url[:80]}")
