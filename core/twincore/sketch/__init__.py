"""Sketch: a board put down at the machine with what can be seen; a document like any other comes of it."""

from twincore.sketch.documents import board_document, kind_document, with_places
from twincore.sketch.model import COLOURS, Doubt, Sketch, SketchedElement, SketchedPlug, doubts_of
from twincore.sketch.notation import Misread, read_lines, written
from twincore.sketch.words import sketch_words

__all__ = [
    "COLOURS",
    "Doubt",
    "Misread",
    "Sketch",
    "SketchedElement",
    "SketchedPlug",
    "board_document",
    "doubts_of",
    "kind_document",
    "read_lines",
    "sketch_words",
    "with_places",
    "written",
]
