"""Part numbers as they are read off a board: one form for all ways of writing one, and how far two readings are apart."""

import re
import unicodedata
from dataclasses import dataclass
from zlib import crc32

from twincore.heavy import load

LOOK_ALIKES = ("0OQD", "1IL7", "5S", "8B", "2Z", "6G")
"""Characters that a burnt or worn label makes look alike (common practice, no source)."""
LOOK_ALIKE_COST = 0.1
WORN = frozenset("QD7")
"""Those of them that are taken for another only where a part of them is gone; they cost twice as much (common practice, no source)."""
FOLDED = str.maketrans({letter: group[0] for group in LOOK_ALIKES for letter in group})


def normal_form(marking: str) -> str:
    """A marking without separators, case and leading zeros of its groups: "tvh 02210/b" gives "TVH2210B"."""
    text = unicodedata.normalize("NFKC", marking).upper()
    groups = re.findall(r"[A-Z]+|[0-9]+", text)
    return "".join(group.lstrip("0") or "0" for group in groups)


def letters_and_digits(marking: str) -> str:
    """A marking without separators and case; leading zeros stay, for a worn letter may be one of them."""
    return re.sub(r"[^A-Z0-9]", "", unicodedata.normalize("NFKC", marking).upper())


def without_look_alikes(marking: str) -> str:
    """A marking with all characters that look alike as one of them: "TVH-221O-8" equals "TVH-2210-B"."""
    return letters_and_digits(marking).translate(FOLDED)


def with_one_left_out(folded: str) -> list[str]:
    """Every text that a marking becomes when one of its characters is lost.

    Two texts are one edit apart (a character lost, added, taken for another, or two neighbours swapped) only where one of
    them is among the other's, or both have one in common: a dictionary of them finds what is near by equality (the
    symmetric-delete neighbourhood, after Mor and Fraenkel 1982).
    """
    return list(dict.fromkeys(folded[:i] + folded[i + 1 :] for i in range(len(folded))))


def code_of(text: str) -> int:
    """A text as a whole number of 32 bits with its sign, to be looked up by (CRC-32, as in ISO 3309); others may share it."""
    return crc32(text.encode()) - (1 << 31)


def without_revision(marking: str) -> str:
    """A marking without the revision at its end; the marking itself where none is told."""
    revision = number_parts(marking).revision
    if not revision:
        return marking
    return re.sub(rf"\W*(?:REV\w*|ISSUE|VER)?\W*{re.escape(revision)}\W*$", "", marking, flags=re.I)


@dataclass(frozen=True, slots=True)
class Edit:
    """One difference between what was read and what is printed; `kind` is misread, other, missing, extra or swapped."""

    kind: str
    read: str
    printed: str


@dataclass(frozen=True, slots=True)
class Alignment:
    """How far a reading is from a printed number, and the edits that make up the distance."""

    distance: float
    edits: tuple[Edit, ...]


def look_alike(one: str, other: str) -> bool:
    """Whether two different characters are easily taken for each other."""
    return one != other and one.translate(FOLDED) == other.translate(FOLDED)


def align(read: str, printed: str, look_alike_cost: float = LOOK_ALIKE_COST) -> Alignment:
    """The cheapest edits that turn what was read into what is printed.

    Unrestricted Damerau–Levenshtein distance (Damerau 1964; Lowrance and Wagner 1975) in which a look-alike costs
    `look_alike_cost` (twice that where it is one only when worn) and everything else 1. Look-alikes lower only the cost of replacing one character, so that the
    distance stays a metric where they cost at least a half; below that it is a score to rank by.
    """
    # what both begin and end with costs nothing, and no way that takes it apart is cheaper
    begun = _alike_for(read, printed)
    read, printed = read[begun:], printed[begun:]
    ended = _alike_for(read[::-1], printed[::-1])
    read, printed = read[: len(read) - ended], printed[: len(printed) - ended]
    # cost[i][j]: the first i characters read against the first j printed; how[i][j]: the last edit and where it began
    rows, columns = len(read) + 1, len(printed) + 1
    cost = [[float(i or j) if not i or not j else 0.0 for j in range(columns)] for i in range(rows)]
    how = [[("missing", 0, j - 1) if j else ("extra", i - 1, 0) for j in range(columns)] for i in range(rows)]
    worn_cost = min(2 * look_alike_cost, 1)
    shapes, shape_of = read.translate(FOLDED), printed.translate(FOLDED)
    last_row: dict[str, int] = {}
    for i in range(1, rows):
        last_column = 0
        a, above, here, told = read[i - 1], cost[i - 1], cost[i], how[i]
        for j in range(1, columns):
            b = printed[j - 1]
            if a == b:
                best, kind, k, m = above[j - 1], "", i - 1, j - 1
            elif shapes[i - 1] == shape_of[j - 1]:
                misread = worn_cost if a in WORN or b in WORN else look_alike_cost
                best, kind, k, m = above[j - 1] + misread, "misread", i - 1, j - 1
            else:
                best, kind, k, m = above[j - 1] + 1, "other", i - 1, j - 1
            if above[j] + 1 < best:
                best, kind, k, m = above[j] + 1, "extra", i - 1, j
            if here[j - 1] + 1 < best:
                best, kind, k, m = here[j - 1] + 1, "missing", i, j - 1
            row = last_row.get(b, 0)
            if row and last_column:
                swapped = cost[row - 1][last_column - 1] + (i - row - 1) + 1 + (j - last_column - 1)
                if swapped < best:
                    best, kind, k, m = swapped, "swapped", row - 1, last_column - 1
            here[j], told[j] = best, (kind, k, m)
            if a == b:
                last_column = j
        last_row[a] = i
    edits: list[Edit] = []
    i, j = rows - 1, columns - 1
    while i or j:
        kind, k, m = how[i][j]
        if kind:
            edits.append(Edit(kind, read[k:i], printed[m:j]))
        i, j = k, m
    return Alignment(round(cost[-1][-1], 6), tuple(reversed(edits)))


def _alike_for(one: str, other: str) -> int:
    """With how many characters both begin."""
    return next((at for at, (a, b) in enumerate(zip(one, other, strict=False)) if a != b), min(len(one), len(other)))


def agreement(read: str, printed: str) -> float:
    """Jaro–Winkler similarity (Winkler 1990): of two readings equally far, the one that begins alike is likelier."""
    return float(load("rapidfuzz.distance").JaroWinkler.similarity(read, printed, prefix_weight=0.1))


@dataclass(frozen=True, slots=True)
class NumberParts:
    """A part number taken apart: maker's prefix, base number, suffix (variant), revision; empty where there is none."""

    prefix: str
    base: str
    suffix: str
    revision: str


REVISION = re.compile(r"(?:[\s\-/._,]*\b(?:REV(?:ISION)?|ISSUE|VER)\.?\s*([A-Z0-9]{1,3})|/([A-Z0-9]{1,2}))$")


def number_parts(marking: str) -> NumberParts:
    """Take a marking apart: "TVH-2210-B rev 03" is prefix TVH, base 2210, suffix B, revision 03."""
    text = unicodedata.normalize("NFKC", marking).upper().strip()
    revision = ""
    if found := REVISION.search(text):
        revision = found.group(1) or found.group(2)
        text = text[: found.start()]
    groups = re.findall(r"[A-Z0-9]+", text)
    if len(groups) == 1:
        groups = re.findall(r"[A-Z]+|[0-9]+", groups[0])
    prefix = groups.pop(0) if len(groups) > 1 and groups[0].isalpha() else ""
    suffix = groups.pop() if len(groups) > 1 and len(groups[-1]) <= 2 else ""
    return NumberParts(prefix, "-".join(groups), suffix, revision)
