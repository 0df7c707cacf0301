"""Pictures as they are kept: checked, turned upright, of a sensible size, and free of where they were taken."""

from base64 import b64encode
from io import BytesIO
from typing import IO, cast

from django.db.models.fields.files import FieldFile
from django.http import HttpRequest
from PIL import Image, ImageOps, UnidentifiedImageError

from twinshown.refusals import Faulty, NotThere

MOST_BYTES = 12_000_000
MOST_PIXELS = 60_000_000
"""Of a plain JPEG, which is read at the size that is kept."""
MOST_AT_ONCE = {"JPEG": 12_000_000, "PNG": 12_000_000, "WEBP": 6_000_000}
"""Pixels of any other picture: such a one is in memory whole while it is read, a WebP several times over."""
IN_FOUR_COLOURS = 3 / 4
"""What share of it may be in four colours, as print has them."""
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
    # made smaller before it is turned: turning takes as much memory again
    image.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    return ImageOps.exif_transpose(image), suffix


def whole(data: bytes) -> Image.Image:
    """A picture read to its end, a large JPEG at a fraction of its size. Raises Faulty where it is none, or breaks off."""
    try:
        image = Image.open(BytesIO(data), formats=list(KINDS))
        by_parts = image.format == "JPEG" and _in_one_scan(data)
        most = MOST_PIXELS if by_parts else MOST_AT_ONCE[image.format or ""]
        most = int(most * IN_FOUR_COLOURS) if image.mode == "CMYK" and not by_parts else most
        if image.width * image.height > most:
            kind = "" if by_parts else " in a picture of this kind"
            raise Faulty(
                f"Expected at most {most // 1_000_000} million pixels{kind}, found {image.width} by {image.height}."
            )
        if image.format == "JPEG":
            share = LONGEST_SIDE / max(image.size)
            image.draft(None, (int(image.width * share), int(image.height * share)))
        image.load()
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, KeyError, Image.DecompressionBombError) as error:
        raise Faulty("This is no picture that can be read: expected JPEG, PNG or WebP.") from error
    return image


def _in_one_scan(data: bytes) -> bool:
    """Whether a JPEG tells all its colours in one go, line by line: only such a one is read without all of it in memory.

    Segments as in ITU-T T.81, annex B; a preview inside one of them does not count.
    """
    at, scans = 2, 0
    while 0 <= at < len(data) - 4:
        marker, length = data[at + 1], int.from_bytes(data[at + 2 : at + 4], "big")
        if data[at] != 0xFF or marker in PROGRESSIVE:
            return False
        if marker == START_OF_SCAN:
            scans += 1
            at = _after_scan(data, at + 2 + length)
        else:
            at += 2 + length
    return scans <= 1


PROGRESSIVE = (0xC2, 0xC6, 0xCA, 0xCE)
START_OF_SCAN, END_OF_IMAGE = 0xDA, 0xD9


def _after_scan(data: bytes, at: int) -> int:
    """Where the next segment begins after what a scan holds; -1 at the picture's end."""
    while (at := data.find(b"\xff", at)) >= 0 and at + 1 < len(data):
        # a 0xFF among what is told is followed by a zero; restarts stand alone
        if data[at + 1] == END_OF_IMAGE:
            return -1
        if data[at + 1] not in (0, 0xFF) and not 0xD0 <= data[at + 1] <= 0xD7:
            return at
        at += 1 if data[at + 1] == 0xFF else 2
    return -1


def size_of(file: FieldFile) -> int:
    """Bytes of a kept picture; none where the store does not have it any more."""
    try:
        return file.size
    except OSError:
        return 0


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
