"""The leaflet of a coined tray washer's board, two pages: what the switches mean, and a chart of 24 rows."""

from dataclasses import dataclass
from itertools import product

from PIL import Image, ImageDraw

from standins.printed.type import INK, PAPER, font

MAKER, BOARD, TITLE = "Drovenhall", "DVH-510-2", "Tray washer board"
HEADINGS = ("Model", "Heating", "Water", "S1", "R1", "Use")
MODELS, HEATINGS, WATERS = ("TW2", "TW3", "TW4", "TW6"), ("electric", "steam"), ("soft", "medium", "hard")
WASH_S = (60, 90, 120, 180)
RINSE_S = (10, 15, 20, 25)
FUNCTIONS = (
    ("Wash time", "S1-1, S1-2", "off off 60 s; off on 90 s; on off 120 s; on on 180 s"),
    ("Final rinse", "S1-3, S1-4", "off off 10 s; off on 15 s; on off 20 s; on on 25 s"),
    ("Wait for heat", "S1-5", "off no; on yes"),
    ("Drain after stop", "S1-6", "off 0; on 1 min 30"),
    ("Restart after door", "S1-7", "off by hand; on by itself"),
    ("Dosing", "R1", "strokes as the dial says, 0 to 7"),
)


@dataclass(frozen=True, slots=True)
class Table:
    """A printed table: its headings, its rows, and where its cells stand on the page (pixels, from the upper left)."""

    headings: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]


def chart() -> Table:
    """The chart as it should be, and one row with a misprint: the wash time of one machine unlike all those beside it."""
    rows = []
    for (m, model), (h, heating), (w, water) in product(enumerate(MODELS), enumerate(HEATINGS), enumerate(WATERS)):
        bank = f"{m // 2}{m % 2}{w // 2}{w % 2}{1 - h}100"
        if (model, heating, water) == ("TW4", "steam", "medium"):
            bank = "01" + bank[2:]  # the misprint
        rows.append((model, heating, water, bank, str(w * 2 + h), "lead B" if heating == "steam" else ""))
    return Table(HEADINGS, tuple(rows))


def first_page(scale: int = 2) -> Image.Image:
    """What each switch means."""
    page = _sheet(scale)
    draw = ImageDraw.Draw(page)
    draw.text((60 * scale, 60 * scale), f"{MAKER}  {BOARD}", INK, font(26 * scale, bold=True))
    draw.text((60 * scale, 100 * scale), "Setting the switches", INK, font(18 * scale))
    y = 150 * scale
    for name, where, what in FUNCTIONS:
        draw.text((60 * scale, y), f"{name}  ({where})", INK, font(15 * scale, bold=True))
        draw.text((80 * scale, y + 24 * scale), what, INK, font(14 * scale))
        y += 62 * scale
    draw.text(
        (60 * scale, y + 10 * scale),
        "S1-8 is not used: leave it off. Plug C1: 1 L, 2 N, 3 earth,",
        INK,
        font(14 * scale),
    )
    draw.text(
        (60 * scale, y + 34 * scale), "4 wash pump, 5 heater, 6 drain, 7 dosing, 8 door switch.", INK, font(14 * scale)
    )
    return page


def second_page(scale: int = 2) -> Image.Image:
    """The chart, with lines between its cells."""
    table, page = chart(), _sheet(scale)
    draw = ImageDraw.Draw(page)
    draw.text((60 * scale, 40 * scale), "What to set for which machine", INK, font(18 * scale, bold=True))
    widths = [90, 110, 110, 130, 60, 110]
    left, top, high = 60 * scale, 80 * scale, 32 * scale
    edges = [left]
    for width in widths:
        edges.append(edges[-1] + width * scale)
    for row, cells in enumerate((table.headings, *table.rows)):
        y = top + row * high
        draw.line((edges[0], y, edges[-1], y), INK, scale)
        for cell, x in zip(cells, edges, strict=False):
            draw.text((x + 10 * scale, y + 6 * scale), cell, INK, font(15 * scale, bold=row == 0, mono=row > 0))
    bottom = top + (len(table.rows) + 1) * high
    draw.line((edges[0], bottom, edges[-1], bottom), INK, scale)
    for x in edges:
        draw.line((x, top, x, bottom), INK, scale)
    return page


def _sheet(scale: int) -> Image.Image:
    return Image.new("L", (740 * scale, 920 * scale), PAPER)
