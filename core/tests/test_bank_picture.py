import numpy
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image, ImageDraw, ImageFilter

from twincore.recognise.bank_picture import read_bank
from twincore.recognise.picture import rectify

CORNERS = [(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)]


def drawn(marks: str, light: bool = True) -> Image.Image:
    """A bank as drawn by hand: a body, a slot for each place, a slider in its upper (on) or lower half."""
    slot, slider = (60, 215) if light else (200, 40)
    image = Image.new("L", (40 * len(marks), 80), 110)
    pen = ImageDraw.Draw(image)
    for place, mark in enumerate(marks):
        x = place * 40
        pen.rectangle((x + 8, 6, x + 31, 73), fill=slot)
        if mark != "?":
            pen.rectangle((x + 10, 8 if mark == "1" else 41, x + 29, 38 if mark == "1" else 71), fill=slider)
    return image


def seen(bank: Image.Image, corners: list[tuple[float, float]], noise: float, shade: float, seed: int) -> Image.Image:
    """The bank in a picture of 640 × 480, seen from the side, with a shadow across it and noise."""
    rows, right = [], []
    for (x, y), (u, v) in zip(corners, CORNERS, strict=True):
        p, q = u * bank.width, v * bank.height
        rows += [[x, y, 1, 0, 0, 0, -p * x, -p * y], [0, 0, 0, x, y, 1, -q * x, -q * y]]
        right += [p, q]
    found = numpy.linalg.solve(numpy.array(rows), numpy.array(right))
    image = bank.transform(
        (640, 480), Image.Transform.PERSPECTIVE, tuple(found), Image.Resampling.BILINEAR, fillcolor=90
    )
    pixels = numpy.asarray(image.filter(ImageFilter.GaussianBlur(1)), dtype=float)
    rng = numpy.random.default_rng(seed)
    pixels = pixels * numpy.linspace(1, 1 - shade, 640) + rng.normal(0, noise, pixels.shape)
    return Image.fromarray(numpy.clip(pixels, 0, 255).astype("uint8"))


class Banks(SimpleTestCase):
    @settings(max_examples=60)
    @given(st.text("01", min_size=3, max_size=10), st.data())
    def test_a_bank_seen_askew_in_bad_light_is_read(self, marks: str, data: st.DataObject) -> None:
        shift = st.integers(-25, 25)
        square = [(120, 160), (520, 160), (520, 300), (120, 300)]
        corners = [(x + data.draw(shift), y + data.draw(shift)) for x, y in square]
        light = data.draw(st.booleans())
        image = seen(
            drawn(marks, light), corners, data.draw(st.integers(0, 14)), data.draw(st.floats(0, 0.5)), len(marks)
        )
        kind = "light" if light else "dark"
        self.assertEqual(read_bank(image, corners, len(marks), "top", kind).written, marks)
        upside = "".join("1" if mark == "0" else "0" for mark in marks)
        self.assertEqual(read_bank(image, corners, len(marks), "bottom", kind).written, upside)

    def test_a_slider_that_is_gone_is_told_as_unreadable_with_little_confidence(self) -> None:
        bank = drawn("10?01")
        corners = [(0, 0), (bank.width, 0), (bank.width, bank.height), (0, bank.height)]
        found = read_bank(bank, corners, 5)
        self.assertEqual(found.written, "10?01")
        self.assertLess(found.places[2].confidence, 0.36)
        self.assertGreater(min(s.confidence for i, s in enumerate(found.places) if i != 2), 0.9)
        self.assertEqual(read_bank(Image.new("L", (200, 80), 120), corners, 5).written, "?????")

    def test_rectifying_agrees_with_the_picture_it_was_made_from(self) -> None:
        bank = drawn("1101")
        corners = [(130.0, 150.0), (500.0, 170.0), (520.0, 310.0), (110.0, 290.0)]
        flat = rectify(seen(bank, corners, 0, 0, 0), corners, bank.size)
        difference = numpy.abs(numpy.asarray(flat, float) - numpy.asarray(bank, float))
        self.assertLess(float(numpy.median(difference)), 8)

    def test_corners_that_make_no_field_are_refused(self) -> None:
        image = Image.new("L", (100, 100))
        for corners in ([(0, 0), (50, 0), (50, 50)], [(0, 0), (50, 50), (50, 0), (0, 50)],
                        [(0, 0), (0, 1), (50, 50), (0, 50)], [(0, 0), (0, 50), (50, 50), (50, 0)]):  # fmt: skip
            with self.assertRaises(ValueError):
                read_bank(image, corners, 4)
