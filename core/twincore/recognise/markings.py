"""Which board carries what was read: hits with their reasons, several markings at once."""

import re
from collections.abc import Iterable
from dataclasses import dataclass

from twincore.heavy import load
from twincore.recognise.part_numbers import (
    LOOK_ALIKE_COST,
    Alignment,
    Edit,
    agreement,
    align,
    letters_and_digits,
    normal_form,
    number_parts,
    without_look_alikes,
    without_revision,
)

FARTHEST = 0.34
"""A reading farther from a number than this share of its length is no reading of it."""


@dataclass(frozen=True, slots=True)
class Reading:
    """One marking that was read, matched with one printed on a board.

    `how` is "as printed", "written differently", "misread" (look-alikes only), "similar" or "part of it";
    `edits` are the differences, `alias` is true where the printed marking is not the part number itself.
    """

    read: str
    printed: str
    how: str
    distance: float
    edits: tuple[Edit, ...]
    alias: bool
    revision: str


@dataclass(frozen=True, slots=True)
class Hit:
    """A board that the markings may belong to; the more of them match, and the nearer, the higher it stands."""

    part_number: str
    readings: tuple[Reading, ...]

    @property
    def rank(self) -> tuple[float, ...]:
        """Lower is likelier."""
        return (
            -len({each.read for each in self.readings}),
            sum(each.distance for each in self.readings),
            -max(agreement(letters_and_digits(r.read), letters_and_digits(r.printed)) for r in self.readings),
        )


def split_markings(text: str) -> list[str]:
    """Several markings in one text: a line, comma or semicolon parts them."""
    return [part.strip() for part in re.split(r"[\n;,]+", text) if letters_and_digits(part)][:8]


def read_as(marking: str, part_number: str, printed: str) -> Reading | None:
    """How a marking that was read agrees with one that is printed; None where it does not."""
    revision = number_parts(marking).revision
    alias = printed != part_number

    def reading(how: str, distance: float = 0.0, edits: tuple[Edit, ...] = ()) -> Reading:
        return Reading(marking, printed, how, distance, edits, alias, revision)

    if marking.strip() == printed:
        return reading("as printed")
    if normal_form(marking) == normal_form(printed):
        return reading("written differently")
    read, target = letters_and_digits(marking), letters_and_digits(printed)
    if revision:
        without = normal_form(without_revision(marking))
        if without and without == normal_form(printed):
            return reading("written differently", 0.05)
    found = _nearer(align(read, target), marking, printed)
    if found.distance <= FARTHEST * len(target):
        misread = all(edit.kind == "misread" for edit in found.edits)
        return reading("misread" if misread else "similar", found.distance, found.edits)
    if len(read) >= 3 and read in target:
        return reading("part of it", 0.5 + (len(target) - len(read)) / len(target))
    return None


def _nearer(found: Alignment, marking: str, printed: str) -> Alignment:
    """A reading, or a nearer one: where two neighbours are swapped and one of them is misread besides, that is one edit."""
    if found.distance < 2:
        return found
    folded = align(without_look_alikes(marking), without_look_alikes(printed))
    told = Alignment(folded.distance + LOOK_ALIKE_COST, folded.edits)
    return told if told.distance < found.distance else found


def _nearest(marking: str, rows: list[tuple[str, str]], most: int) -> list[tuple[str, str]]:
    """The rows worth the exact distance: twice as many as are shown, by what look-alikes cannot make nearer."""
    if len(rows) <= 2 * most:
        return rows
    folded = without_look_alikes(marking)
    distance = load("rapidfuzz.distance").DamerauLevenshtein.distance
    least = [distance(folded, without_look_alikes(printed)) for _, printed in rows]
    farthest = sorted(least)[2 * most - 1]
    return [
        row
        for row, bound in zip(rows, least, strict=True)
        if bound <= farthest or folded in without_look_alikes(row[1])
    ]


def hits(text: str, printed: Iterable[tuple[str, str]], most: int = 8) -> list[Hit]:
    """The boards whose markings agree with what was read, likeliest first.

    `printed` are (part number, marking) of the boards on the short list; several markings of one board count each.
    """
    best: dict[str, dict[str, Reading]] = {}
    rows = list(printed)
    for marking in split_markings(text):
        for part_number, each in _nearest(marking, rows, most):
            if (found := read_as(marking, part_number, each)) is None:
                continue
            there = best.setdefault(part_number, {}).get(marking)
            if there is None or (found.distance, found.alias) < (there.distance, there.alias):
                best[part_number][marking] = found
    ranked = [Hit(part_number, tuple(readings.values())) for part_number, readings in best.items()]
    return sorted(ranked, key=lambda hit: (*hit.rank, hit.part_number))[:most]
