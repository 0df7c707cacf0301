"""Pictures as they are kept: checked, turned upright, of a sensible size, and free of where they were taken."""

from base64 import b64encode
from io import BytesIO
from typing import IO, cast

from django.db.models.fields.files import FieldFile
from django.http import HttpRequest
from PIL import Image, ImageOps, UnidentifiedImageError

from config.errors import Faulty, NotThere

MOST_BYTES = 12_000_000
MOST_PIXELS = 60_000_000
"""Of a plain JPEG, which is read at the size that is kept."""
MOST_AT_ONCE = 25_000_000
"""Pixels of any other picture: such a one is in memory whole while it is read."""
LONGEST_SIDE = 2400
KINDS = {"JPEG": "jpg", "PNG": "png", "WEBP": "webp"}


def body_of(request: HttpRequest) -> bytes:
    """The picture that is a request's body; one byte more than allowed at most."""
    length = int(request.headers.get("Content-Length") or 0)
    return request.read(min(length, MOST_BYTES) + 1) if length else b""


def upright(data: bytes) -> tuple[Image.Image, str]:
    """A picture turned as it was held, its longest side at most 2,400 pixels; and its file's suffix."""
    if len(data) > MOST_BYTES:
        raise Faulty(
            f"Expected at most {MOST_BYTES // 1_000_000} MB, found {len(data) / 1_000_000:.1f}. Take a smaller picture."
        )
    image = whole(data)
    suffix = KINDS[image.format or ""]
    turned = ImageOps.exif_transpose(image)
    turned.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    return turned, suffix


def whole(data: bytes) -> Image.Image:
    """A picture read to its end, a large JPEG at a fraction of its size. Raises Faulty where it is none, or breaks off."""
    try:
        image = Image.open(BytesIO(data), formats=list(KINDS))
        by_parts = image.format == "JPEG" and not image.info.get("progressive")
        most = MOST_PIXELS if by_parts else MOST_AT_ONCE
        if image.width * image.height > most:
            kind = "" if by_parts else " in a picture of this kind"
            raise Faulty(
                f"Expected at most {most // 1_000_000} million pixels{kind}, found {image.width} by {image.height}."
            )
        if image.format == "JPEG":
            image.draft(None, (LONGEST_SIDE, LONGEST_SIDE))
        image.load()
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, KeyError, Image.DecompressionBombError) as error:
        raise Faulty("This is no picture that can be read: expected JPEG, PNG or WebP.") from error
    return image


def opened(file: FieldFile) -> IO[bytes]:
    """A kept picture's file. Raises NotThere where the store does not have it any more."""
    try:
        return cast(IO[bytes], file.open("rb"))
    except OSError as error:
        raise NotThere("The file of this picture is missing from the store. Restore it from a backup.") from error


def as_address(image: Image.Image) -> str:
    """A small picture as an address that holds it whole (RFC 2397)."""
    out = BytesIO()
    image.save(out, "PNG")
    return f"data:image/png;base64,{b64encode(out.getvalue()).decode()}"


def encoded(image: Image.Image, suffix: str) -> bytes:
    """A picture's bytes without anything but its pixels: no place, no device, no hidden preview."""
    bare = Image.new(image.mode if image.mode in ("RGB", "RGBA", "L") else "RGB", image.size)
    bare.paste(image.convert(bare.mode))
    out = BytesIO()
    kind = {"jpg": "JPEG", "png": "PNG", "webp": "WEBP"}[suffix]
    if kind == "JPEG" and bare.mode == "RGBA":
        bare = bare.convert("RGB")
    bare.save(out, kind, **({"quality": 88} if kind != "PNG" else {}))
    return out.getvalue()
