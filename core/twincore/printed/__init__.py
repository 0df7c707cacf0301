"""Print in pictures: made ready to be read, and what was read put in order. The engine itself is not here."""

from twincore.printed.columns import alphabet_of, bare, own_words
from twincore.printed.markings import marking_candidates
from twincore.printed.preparing import Prepared, prepare, skew_of
from twincore.printed.tables import Ruled, cells_of, column_strip, ruled_lines, without_lines
from twincore.printed.words import Word

__all__ = [
    "Prepared",
    "Ruled",
    "Word",
    "alphabet_of",
    "bare",
    "cells_of",
    "column_strip",
    "marking_candidates",
    "own_words",
    "prepare",
    "ruled_lines",
    "skew_of",
    "without_lines",
]
