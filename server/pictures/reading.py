"""Markings and tables read from a picture: proposals that a person confirms. Nothing is kept."""

from PIL import Image

from pictures.engine import ONE_BLOCK, SPARSE, read_words
from twincore.printed import (
    Ruled,
    Word,
    alphabet_of,
    bare,
    cells_of,
    column_strip,
    marking_candidates,
    own_words,
    prepare,
    ruled_lines,
    without_lines,
)


def read_markings(image: Image.Image) -> tuple[list[Word], Image.Image]:
    """What may be a marking, the likeliest first; and the picture as it was made ready, in whose pixels they stand."""
    ready = prepare(image).image
    return marking_candidates(read_words(ready, SPARSE)), ready


def read_table(image: Image.Image) -> list[list[str]]:
    """The cells of a ruled table, row by row, the headings first; empty where no table is seen.

    A column of figures is read once more with figures alone; in a column of words the commoner spelling stands.
    """
    ready = prepare(image).image
    ruled = ruled_lines(ready)
    if not ruled.found:
        return []
    clean = without_lines(ready, ruled)
    rows = cells_of(ruled, read_words(clean, ONE_BLOCK))
    headings, body = [bare(each) for each in rows[0]], rows[1:]
    columns = [_column(clean, ruled, index, [row[index] for row in body]) for index in range(len(headings))]
    return [headings, *(list(row) for row in zip(*columns, strict=True))]


def _column(clean: Image.Image, ruled: Ruled, index: int, cells: list[str]) -> list[str]:
    alphabet = alphabet_of(cells)
    if not alphabet:
        return own_words(cells)
    strip, (left, top) = column_strip(clean, ruled, index)
    again = ["" for _ in cells]
    for word in read_words(strip, ONE_BLOCK, alphabet):
        place = ruled.cell(word.middle[0] + left, word.middle[1] + top)
        if place is not None and place[0] > 0:
            again[place[0] - 1] += word.text
    return [new or bare(old) for new, old in zip(again, cells, strict=True)]
