"""What a column's cells have in common: an alphabet to read it again with, and its own words to tell slips by."""

import re
from collections import Counter
from collections.abc import Sequence

from twincore.recognise import LOOK_ALIKES

MOSTLY = 0.6
MARKS = re.compile(r"^[^\w●○]+|[^\w●○.]+$")
LOOKS = str.maketrans(
    {mark: group[0] for group in LOOK_ALIKES for upper in group if upper.isalpha() for mark in (upper, upper.lower())}
    | {"|": "1"}
)
"""Letters that a figure may be taken for."""


def alphabet_of(cells: Sequence[str]) -> str:
    """The marks of which most cells of a column are made, where these are figures; empty for a column of words."""
    filled = [bare(each) for each in cells if bare(each)]
    if not filled:
        return ""
    for alphabet in ("01", "0123456789"):
        alike = sum(set(each.translate(LOOKS)) <= set(alphabet) for each in filled)
        if alike >= MOSTLY * len(filled):
            return alphabet
    return ""


def own_words(cells: Sequence[str]) -> list[str]:
    """Cells with their spelling evened out: where two differ only in case or stray marks, the commoner one stands."""
    spelled = Counter(bare(each) for each in cells)
    usual: dict[str, str] = {}
    for text, _ in spelled.most_common():
        usual.setdefault(_folded(text), text)
    return [_capitals(usual[_folded(bare(each))]) for each in cells]


def _capitals(text: str) -> str:
    """A short word with figures in it is a number of a model: those are printed in capitals (common practice, no source)."""
    letters = [mark for mark in text if mark.isalpha()]
    return text.upper() if " " not in text and any(m.isdigit() for m in text) and 0 < len(letters) <= 4 else text


def bare(text: str) -> str:
    """A cell without stray marks at its ends, which are what is left of lines."""
    return MARKS.sub("", text.strip())


def _folded(text: str) -> str:
    # a letter read twice ("TwW") is one
    return re.sub(r"(.)\1+", r"\1", text.casefold().translate(LOOKS)) if not text.isdigit() else text
