"""Measurements of print read in pictures: markings of boards and cells of charts, worsened by a seed; the engine's plain answer beside."""

from collections.abc import Callable
from itertools import pairwise
from random import Random
from statistics import median
from time import monotonic

from PIL import Image

from pictures.engine import BY_ITSELF, SPARSE, read_words
from pictures.reading import read_markings, read_table
from standins.printed import leaflet, things
from standins.printed.worn import some_wear, worn
from twincore.printed import Word
from twincore.recognise import normal_form

Row = Callable[[str, str, str], None]
BOARDS, CHARTS = 160, 40
FIRST = 3


def measure(row: Row) -> None:
    """Two hundred pictures: how often the marking is among the first three, and how many cells of a chart come out right."""
    measure_markings(row)
    measure_charts(row)


def part_number(seed: int) -> str:
    """A coined number as they are printed on boards."""
    dice = Random(seed)
    letters = "".join(dice.choice("ABCDEFGHKLMNPRSTUVWX") for _ in range(dice.choice((2, 3))))
    figures = "".join(dice.choice("0123456789") for _ in range(dice.choice((2, 3, 4))))
    end = dice.choice(("", f"-{dice.choice('ABCDE')}", f"-{dice.randrange(1, 99)}"))
    return f"{letters}{dice.choice(('-', ' '))}{figures}{end}"


def measure_markings(row: Row) -> None:
    """Boards with coined numbers."""
    ours = plain = 0
    times = []
    for seed in range(BOARDS):
        number = part_number(seed)
        picture = worn(things.board(number), some_wear(seed), seed)
        begun = monotonic()
        found = [word.text for word in read_markings(picture)[0][:FIRST]]
        times.append(monotonic() - begun)
        ours += any(normal_form(text) == normal_form(number) for text in found)
        plain += any(normal_form(text) == normal_form(number) for text in _plain_words(picture))
    row(
        f"part numbers among the first {FIRST} read, {BOARDS} worn pictures of boards", f"{ours / BOARDS:.0%}",
        f"the engine by itself {plain / BOARDS:.0%}",
    )  # fmt: skip
    row("a picture of a board read, median", f"{median(times):.1f} s", "")


def _plain_words(picture: Image.Image) -> list[str]:
    """The first words with figures in them, as the engine gives them, neighbours joined two and two."""
    words = [each.text for each in read_words(picture.convert("L"), SPARSE)]
    joined = words + [" ".join(pair) for pair in pairwise(words)]
    return [each for each in joined if any(mark.isdigit() for mark in each)][:FIRST]


def measure_charts(row: Row) -> None:
    """Pages with a chart of 24 rows."""
    chart = leaflet.chart()
    want = [list(chart.headings), *map(list, chart.rows)]
    total = ours = plain = 0
    times = []
    for seed in range(CHARTS):
        picture = worn(leaflet.second_page(), some_wear(seed, 0.8), seed)
        begun = monotonic()
        found = read_table(picture)
        times.append(monotonic() - begun)
        total += sum(bool(cell) for line in want for cell in line)
        ours += _right(found, want)
        plain += _right(_plain_lines(picture), want)
    row(
        f"cells of a chart read right, {CHARTS} worn pages of 24 rows", f"{ours / total:.1%}",
        f"the engine by itself {plain / total:.1%}",
    )  # fmt: skip
    row("a page read, median", f"{median(times):.1f} s", "")


def _right(found: list[list[str]], want: list[list[str]]) -> int:
    """Cells with something in them that stand where they should, by rows from the top."""
    return sum(
        mine == theirs and bool(theirs)
        for line, wanted in zip(found, want, strict=False)
        for mine, theirs in zip(line, wanted, strict=False)
    )


def _plain_lines(picture: Image.Image) -> list[list[str]]:
    """The engine's own answer: its words in lines by their height, from the line with the headings on.

    Left to find the page's layout by itself: of its ways the one that does best on pages that are not worn.
    """
    words = [w for w in read_words(picture.convert("L"), BY_ITSELF) if w.text.strip("|[]_—-")]
    lines: list[list[Word]] = []
    for word in sorted(words, key=lambda w: w.middle[1]):
        if not lines or abs(word.middle[1] - lines[-1][-1].middle[1]) > word.height * 0.8:
            lines.append([])
        lines[-1].append(word)
    told = [[w.text for w in sorted(line, key=lambda w: w.left)] for line in lines]
    first = next((i for i, line in enumerate(told) if any("Model" in text for text in line)), 0)
    return told[first:]
