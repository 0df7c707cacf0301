from itertools import product
from typing import Any

import numpy
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image, ImageDraw, ImageFilter

from tests.builders import DEMO, demo_board, encoded, record, small_board, small_family
from twincore import profile
from twincore.recognise.wheel_picture import read_wheels
from twincore.settings import carry, decode

STROKES: dict[str, list[list[tuple[int, int]]]] = {
    "0": [[(2, 0), (6, 0), (8, 3), (8, 9), (6, 12), (2, 12), (0, 9), (0, 3), (2, 0)]],
    "1": [[(2, 3), (4, 0), (4, 12)]],
    "2": [[(0, 3), (2, 0), (6, 0), (8, 3), (8, 5), (0, 12), (8, 12)]],
    "3": [[(0, 1), (3, 0), (6, 0), (8, 3), (6, 6), (3, 6)], [(6, 6), (8, 9), (6, 12), (2, 12), (0, 10)]],
    "4": [[(6, 12), (6, 0), (0, 8), (8, 8)]],
    "5": [[(8, 0), (1, 0), (0, 6), (5, 5), (8, 8), (7, 11), (4, 12), (0, 11)]],
    "6": [[(7, 0), (3, 2), (0, 7), (1, 11), (4, 12), (7, 11), (8, 8), (6, 6), (2, 6), (0, 8)]],
    "7": [[(0, 0), (8, 0), (3, 12)]],
    "8": [[(2, 6), (0, 3), (2, 0), (6, 0), (8, 3), (6, 6), (2, 6), (0, 9), (2, 12), (6, 12), (8, 9), (6, 6)]],
    "9": [[(1, 12), (5, 10), (8, 5), (7, 1), (4, 0), (1, 1), (0, 4), (2, 6), (6, 6), (8, 4)]],
}
"""Digits by strokes, drawn by hand: no typeface of the reader's."""


def windows(digits: str, pen: int = 5, slip: int = 0, ink: int = 30, ground: int = 230) -> Image.Image:
    """Windows side by side; `slip` pixels by which every wheel stands lower."""
    image = Image.new("L", (48 * len(digits), 64), ground)
    for place, digit in enumerate(digits):
        for stroke in STROKES[digit]:
            points = [(place * 48 + 12 + 3 * x, 14 + 3 * y + slip) for x, y in stroke]
            ImageDraw.Draw(image).line(points, fill=ink, width=pen, joint="curve")
    return image


def read(image: Image.Image, wheels: int, digits: str = "dark") -> str:
    corners = [(0, 0), (image.width, 0), (image.width, image.height), (0, image.height)]
    return read_wheels(image, corners, wheels, digits).written


class Pictures(SimpleTestCase):
    @settings(max_examples=80)
    @given(st.text("0123456789", min_size=1, max_size=4), st.integers(4, 7), st.integers(0, 18), st.integers(0, 999))
    def test_no_digit_is_taken_for_another_and_most_are_told(
        self, digits: str, pen: int, noise: int, seed: int
    ) -> None:
        drawn = windows(digits, pen).filter(ImageFilter.GaussianBlur(0.8))
        pixels = numpy.asarray(drawn, dtype=float) + numpy.random.default_rng(seed).normal(0, noise, drawn.size[::-1])
        found = read(Image.fromarray(numpy.clip(pixels, 0, 255).astype("uint8")), len(digits))
        self.assertTrue(all(mark in ("?", digit) for mark, digit in zip(found, digits, strict=True)), (found, digits))
        # the six and the nine of these strokes are near to a nought, and may not be told
        self.assertLessEqual(found.count("?"), sum(digits.count(each) for each in "69"), (found, digits))

    def test_light_digits_on_a_dark_ground_are_read_when_it_is_said(self) -> None:
        image = windows("4072", ink=225, ground=40)
        self.assertEqual(read(image, 4, "light"), "4072")
        self.assertEqual(read(image, 4, "dark").strip("?"), "")

    def test_a_wheel_between_two_digits_an_empty_window_and_one_in_the_dark_are_not_told(self) -> None:
        self.assertEqual(read(windows("3", slip=24), 1), "?")
        self.assertEqual(read(Image.new("L", (96, 64), 200), 2), "??")
        self.assertEqual(read(windows("88", ink=60, ground=70), 2), "??")

    def test_corners_and_wheels_that_make_no_row_are_refused(self) -> None:
        image = windows("1")
        for corners, wheels in (([(0, 0), (40, 0), (40, 60)], 1), ([(0, 0), (0, 60), (40, 60), (40, 0)], 1), ([], 0)):
            with self.subTest(corners=corners, wheels=wheels), self.assertRaises(ValueError):
                read_wheels(image, corners, wheels)


def board(wheels: int, **function: Any) -> profile.Board:
    row = {"id": "W", "kind": "thumbwheel", "wheels": wheels, "factory": "0" * wheels}
    return profile.parse_board(encoded(small_board(None, settings=[row], functions={"t": {"from": "W", **function}})))


class Numbers(SimpleTestCase):
    FAMILY = profile.parse_family(encoded(small_family()))

    def test_a_row_spells_a_number_and_what_cannot_be_read_leaves_what_it_may_be(self) -> None:
        one = board(3, scale=0.5, offset=1)
        self.assertEqual(decode(one, record(one, W="047"), self.FAMILY)["t"].values, (24.5,))
        tens = decode(one, record(one, W="0?7"), self.FAMILY)["t"]
        self.assertEqual(tens.values, tuple(0.5 * (7 + 10 * ten) + 1 for ten in range(10)))
        self.assertFalse(tens.reserved)

    def test_carried_over_to_the_nearest_number_by_trying_every_one(self) -> None:
        original = profile.parse_board(encoded(small_board(None, functions={"t": {"fixed": 123.4}})))
        wheels = board(4, scale=0.25)
        carried = carry(original, profile.factory_record(original), wheels, self.FAMILY)
        nearest = min(
            product(range(10), repeat=4),
            key=lambda d: abs(sum(n * 10**p for n, p in zip(d, (3, 2, 1, 0), strict=True)) / 4 - 123.4),
        )
        assert carried.record is not None
        self.assertEqual(tuple(carried.record.points.values()), tuple(map(str, nearest)))

    def test_the_demo_mixer_goes_from_switches_to_wheels_and_back(self) -> None:
        family = profile.parse_family((DEMO / "families/spiral-mixer.family.json").read_bytes())
        old, wheels = demo_board("QN6-0020"), demo_board("QN7-0056")
        carried = carry(old, record(old, S1="100101010"), wheels, family)
        assert carried.record is not None
        written = profile.written_positions(wheels, carried.record.points)
        self.assertEqual((written["W1"], written["W2"]), ("24", "36"))
