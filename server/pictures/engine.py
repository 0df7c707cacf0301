"""The one place where the engine that reads print is called: Debian's tesseract, as a program of its own."""

import csv
from io import BytesIO, StringIO
from shutil import which
from subprocess import DEVNULL, PIPE, SubprocessError, run

from PIL import Image

from twincore.printed import Word
from twinshown.refusals import Refused

LONGEST_S = 40
BY_ITSELF, ONE_BLOCK, SPARSE = 3, 6, 11
"""How tesseract looks at a page: finds its layout by itself, one block of lines, print scattered over it."""


def there() -> bool:
    """Whether the engine is installed here."""
    return which("tesseract") is not None


def read_words(image: Image.Image, layout: int = SPARSE, alphabet: str = "") -> list[Word]:
    """The words in a picture with their places, made of an alphabet where one is given. Raises Refused where nothing here can read."""
    if not there():
        raise Refused("Nothing on this server reads print in pictures. Type what you see.")
    out = BytesIO()
    image.save(out, "PNG", compress_level=1)
    call = ["tesseract", "-", "-", "--psm", str(layout), "-l", "eng"]
    call += ["-c", f"tessedit_char_whitelist={alphabet}"] if alphabet else []
    try:
        done = run(
            [*call, "tsv"],
            input=out.getvalue(),
            stdout=PIPE,
            stderr=DEVNULL,
            timeout=LONGEST_S,
            check=True,
            env={"OMP_THREAD_LIMIT": "1"},
        )
    except SubprocessError as error:
        raise Refused("This picture could not be read. Take one nearer, or type what you see.") from error
    return _words(done.stdout.decode("utf-8", "replace"))


def _words(table: str) -> list[Word]:
    rows = csv.DictReader(StringIO(table), delimiter="\t", quoting=csv.QUOTE_NONE)
    return [
        Word(
            row["text"].strip(), float(row["left"]), float(row["top"]), float(row["width"]), float(row["height"]),
            max(0.0, float(row["conf"]) / 100),
        )
        for row in rows
        if row["text"] and row["text"].strip() and float(row["conf"]) >= 0
    ]  # fmt: skip
