"""Pictures small enough for paper, in the page itself."""

from base64 import b64encode
from io import BytesIO

from django.db.models.fields.files import FieldFile
from PIL import Image, ImageDraw

PRINTED_PX = 900


def on_paper(file: FieldFile) -> str:
    """A kept picture as an address that holds it whole (RFC 2397); where its file is gone or damaged, a sheet that says so."""
    out = BytesIO()
    try:
        with file.open("rb") as opened:
            image = Image.open(opened).convert("RGB")
            image.thumbnail((PRINTED_PX, PRINTED_PX))
    except (OSError, SyntaxError, ValueError):
        image = Image.new("RGB", (PRINTED_PX, PRINTED_PX // 3), "white")
        words = "This picture is missing from the store: restore it from a backup."
        ImageDraw.Draw(image).text((20, PRINTED_PX // 6), words, fill="black", font_size=26)
    image.save(out, "JPEG", quality=80)
    return f"data:image/jpeg;base64,{b64encode(out.getvalue()).decode()}"
