"""Type for printed things."""

from functools import cache

from PIL import ImageFont

INK, PAPER = 40, 246
FOLDER = "/usr/share/fonts/truetype/dejavu"


@cache
def font(size: int, bold: bool = False, mono: bool = False) -> ImageFont.FreeTypeFont:
    """A font of a size in pixels, from Debian's `fonts-dejavu-core`."""
    name = "DejaVuSansMono" if mono else "DejaVuSans"
    return ImageFont.truetype(f"{FOLDER}/{name}{'-Bold' if bold else ''}.ttf", size)
