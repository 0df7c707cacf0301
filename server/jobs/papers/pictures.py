"""Pictures small enough for paper, in the page itself."""

from base64 import b64encode
from io import BytesIO

from django.db.models.fields.files import FieldFile
from PIL import Image

PRINTED_PX = 900


def on_paper(file: FieldFile) -> str:
    """A kept picture as an address that holds it whole (RFC 2397)."""
    with file.open("rb") as opened:
        image = Image.open(opened)
        image.thumbnail((PRINTED_PX, PRINTED_PX))
        out = BytesIO()
        image.convert("RGB").save(out, "JPEG", quality=80)
    return f"data:image/jpeg;base64,{b64encode(out.getvalue()).decode()}"
