"""Recognise: which board carries a marking, which machine a nameplate speaks of, what a board looks like."""

from twincore.recognise.key import (
    CANNOT_TELL,
    Question,
    Sighting,
    entropy,
    features_of,
    information_gain,
    questions,
    remaining,
    separating,
)
from twincore.recognise.markings import Hit, Reading, hits, split_markings
from twincore.recognise.nameplates import (
    PlateRead,
    Scheme,
    SerialRead,
    parse_nameplates,
    read_plate,
    read_serial,
)
from twincore.recognise.part_numbers import (
    Alignment,
    Edit,
    NumberParts,
    agreement,
    align,
    letters_and_digits,
    normal_form,
    number_parts,
    without_look_alikes,
)

__all__ = [
    "CANNOT_TELL",
    "Alignment",
    "Edit",
    "Hit",
    "NumberParts",
    "PlateRead",
    "Question",
    "Reading",
    "Scheme",
    "SerialRead",
    "Sighting",
    "agreement",
    "align",
    "entropy",
    "features_of",
    "hits",
    "information_gain",
    "letters_and_digits",
    "normal_form",
    "number_parts",
    "parse_nameplates",
    "questions",
    "read_plate",
    "read_serial",
    "remaining",
    "separating",
    "split_markings",
    "without_look_alikes",
]
