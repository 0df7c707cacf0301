"""Print in pictures: what is told before and after an engine reads it."""

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image, ImageDraw

from twincore.printed import (
    Word,
    alphabet_of,
    bare,
    cells_of,
    marking_candidates,
    own_words,
    prepare,
    ruled_lines,
    without_lines,
)


def page(turned: float = 0.0, columns: tuple[int, ...] = (80, 400, 640, 1080), rows: int = 9) -> Image.Image:
    """A ruled table with a bar for a word in each cell."""
    image = Image.new("L", (1200, 1000), 245)
    draw = ImageDraw.Draw(image)
    for row in range(rows + 1):
        draw.line((columns[0], 100 + row * 80, columns[-1], 100 + row * 80), 30, 3)
    for x in columns:
        draw.line((x, 100, x, 100 + rows * 80), 30, 3)
    for row in range(rows):
        for x in columns[:-1]:
            for letter in range(5):
                draw.rectangle((x + 20 + letter * 22, 125 + row * 80, x + 32 + letter * 22, 150 + row * 80), 40)
    return image.rotate(turned, Image.Resampling.BICUBIC, fillcolor=245)


class Prepared(TestCase):
    @settings(deadline=None, max_examples=12)
    @given(st.floats(-6, 6))
    def test_a_page_is_turned_straight_whatever_way_it_lay(self, turned: float) -> None:
        self.assertAlmostEqual(prepare(page(turned)).turned, -turned, delta=0.3)

    def test_light_print_on_dark_comes_out_dark_on_white(self) -> None:
        dark = Image.eval(page(), lambda value: 255 - value)
        for image in (page(), dark):
            ready = prepare(image).image
            self.assertGreater(sorted(ready.resize((60, 50)).tobytes())[1500], 200)


class Tables(TestCase):
    @settings(deadline=None, max_examples=8)
    @given(st.floats(-3, 3), st.integers(3, 10))
    def test_every_line_is_found_and_words_fall_into_their_cells(self, turned: float, rows: int) -> None:
        ready = prepare(page(turned, rows=rows)).image
        ruled = ruled_lines(ready)
        self.assertEqual((len(ruled.level), len(ruled.upright)), (rows + 1, 4))
        words = []
        for row in range(rows):
            for column in range(3):
                y = (ruled.level[row].at(600) + ruled.level[row + 1].at(600)) / 2
                x = (ruled.upright[column].at(y) + ruled.upright[column + 1].at(y)) / 2
                words.append(Word(f"{row}.{column}", x - 10, y - 10, 20, 20, 1.0))
        self.assertEqual(cells_of(ruled, words), [[f"{r}.{c}" for c in range(3)] for r in range(rows)])

    def test_lines_are_painted_over_and_words_are_not(self) -> None:
        ready = prepare(page()).image
        clean = without_lines(ready, ruled_lines(ready))
        self.assertFalse(ruled_lines(clean).found)
        ink = [sum(value < 128 for value in each.tobytes()) for each in (ready, clean)]
        bars = 9 * 3 * 5 * 13 * 26 * (ready.width / 1200) ** 2
        self.assertGreater(ink[0], ink[1])
        self.assertAlmostEqual(ink[1] / bars, 1, delta=0.1)

    def test_a_picture_without_a_table_gives_none(self) -> None:
        self.assertFalse(ruled_lines(Image.new("L", (800, 600), 255)).found)


class Columns(TestCase):
    def test_a_column_of_figures_is_told_by_what_most_of_its_cells_are(self) -> None:
        self.assertEqual(alphabet_of(["0110", "O11O", "6110", ""]), "01")
        self.assertEqual(alphabet_of(["1", "Z", "5", "-"]), "0123456789")
        self.assertEqual(alphabet_of(["soft", "hard"]), "")
        self.assertEqual(alphabet_of(["", ""]), "")

    def test_the_commoner_spelling_of_a_word_stands(self) -> None:
        self.assertEqual(own_words(["TW2", "“Tw2", "-TW2", "TW3"]), ["TW2", "TW2", "TW2", "TW3"])
        self.assertEqual(own_words(["soft", "Soft,", "soft", "hard"]), ["soft", "soft", "soft", "hard"])
        self.assertEqual(bare("—1110."), "1110.")


class Markings(TestCase):
    def test_what_has_figures_and_letters_and_stands_together_comes_first(self) -> None:
        words = [
            Word("Maker", 10, 10, 90, 30, 0.95), Word("UMC", 10, 60, 60, 30, 0.9), Word("40-118", 80, 60, 90, 30, 0.9),
            Word("ON", 10, 120, 30, 20, 0.9), Word("2009", 300, 60, 50, 20, 0.9),
        ]  # fmt: skip
        found = [each.text for each in marking_candidates(words)]
        self.assertIn("UMC 40-118", found[:2])
        self.assertNotIn("Maker", found)
        self.assertNotIn("40-118 2009", found)
