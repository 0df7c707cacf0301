"""A board and a nameplate as somebody sees them at the machine."""

from PIL import Image, ImageDraw

from standins.printed.leaflet import BOARD, MAKER
from standins.printed.type import font

MASK, SILK, BODY, SLIDER = (46, 92, 66), (226, 232, 222), (30, 46, 96), (240, 240, 236)


def board(part_number: str = BOARD, maker: str = MAKER, standing: str = "01011100") -> Image.Image:
    """A board seen from the side that carries the parts: bank S1, dial R1, plugs C1 and C2, and its number printed."""
    image = Image.new("RGB", (1200, 840), MASK)
    draw = ImageDraw.Draw(image)
    for x, y in ((40, 40), (1160, 40), (40, 800), (1160, 800)):
        draw.ellipse((x - 22, y - 22, x + 22, y + 22), (18, 26, 22), SILK, 3)
    for name, left, pins in (("C1", 120, 8), ("C2", 760, 4)):
        draw.rectangle((left, 70, left + pins * 62, 170), (236, 232, 220), (120, 116, 108), 3)
        for pin in range(pins):
            draw.rectangle((left + 16 + pin * 62, 100, left + 46 + pin * 62, 140), (70, 70, 70))
        draw.text((left, 180), name, SILK, font(30))
    draw.rectangle((160, 360, 160 + 8 * 56, 480), BODY)
    for place, mark in enumerate(standing):
        x = 170 + place * 56
        draw.rectangle((x, 376, x + 36, 464), (12, 16, 30))
        y = 380 if mark == "1" else 424
        draw.rectangle((x + 4, y, x + 32, y + 36), SLIDER)
        draw.text((x + 8, 484), str(place + 1), SILK, font(24))
    draw.text((160, 316), "S1  ON ^", SILK, font(30))
    draw.ellipse((740, 350, 880, 490), (28, 28, 28), SILK, 4)
    draw.line((810, 420, 850, 380), SILK, 8)
    draw.text((740, 310), "R1", SILK, font(30))
    draw.text((160, 620), maker, SILK, font(44, bold=True))
    draw.text((160, 690), part_number, SILK, font(58, bold=True, mono=True))
    draw.text((760, 700), "rev C  2009", SILK, font(34))
    return image


def plate(model: str = "TW4", serial: str = "24 118 0377", maker: str = MAKER) -> Image.Image:
    """A machine's nameplate."""
    image = Image.new("RGB", (1000, 560), (198, 200, 202))
    draw = ImageDraw.Draw(image)
    draw.rectangle((16, 16, 983, 543), outline=(60, 60, 62), width=5)
    ink = (36, 36, 40)
    draw.text((60, 50), maker, ink, font(60, bold=True))
    for row, (name, value) in enumerate(
        (("Model", model), ("No.", serial), ("Supply", "230 V 50 Hz"), ("Heating", "steam"))
    ):
        draw.text((60, 160 + row * 90), name, ink, font(36))
        draw.text((300, 150 + row * 90), value, ink, font(50, mono=True))
    return image
