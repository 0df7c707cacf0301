"""Part numbers as they are read off a board: one form for all ways of writing one, and how far two readings are apart."""

import re
import unicodedata
from dataclasses import dataclass
from zlib import crc32

from rapidfuzz.distance import JaroWinkler

LOOK_ALIKES = ("0OQD", "1IL7", "5S", "8B", "2Z", "6G")
"""Characters that a burnt or worn label makes look alike (common practice, no source)."""
LOOK_ALIKE_COST = 0.1
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
    `look_alike_cost` and everything else 1. Look-alikes lower only the cost of replacing one character, so that the
    distance stays a metric where they cost at least a half; below that it is a score to rank by.
    """
    # cost[i][j]: the first i characters read against the first j printed; how[i][j]: the last edit and where it began
    rows, columns = len(read) + 1, len(printed) + 1
    cost = [[0.0] * columns for _ in range(rows)]
    how: list[list[tuple[int, int, Edit | None]]] = [[(0, 0, None)] * columns for _ in range(rows)]
    for i in range(1, rows):
        cost[i][0], how[i][0] = i, (i - 1, 0, Edit("extra", read[i - 1], ""))
    for j in range(1, columns):
        cost[0][j], how[0][j] = j, (0, j - 1, Edit("missing", "", printed[j - 1]))
    last_row: dict[str, int] = {}
    for i in range(1, rows):
        last_column = 0
        for j in range(1, columns):
            a, b = read[i - 1], printed[j - 1]
            alike = look_alike(a, b)
            replaced = cost[i - 1][j - 1] + (0 if a == b else look_alike_cost if alike else 1)
            best = (replaced, (i - 1, j - 1, None if a == b else Edit("misread" if alike else "other", a, b)))
            if cost[i - 1][j] + 1 < best[0]:
                best = (cost[i - 1][j] + 1, (i - 1, j, Edit("extra", a, "")))
            if cost[i][j - 1] + 1 < best[0]:
                best = (cost[i][j - 1] + 1, (i, j - 1, Edit("missing", "", b)))
            k, m = last_row.get(b, 0), last_column
            if k and m:
                swapped = cost[k - 1][m - 1] + (i - k - 1) + 1 + (j - m - 1)
                if swapped < best[0]:
                    best = (swapped, (k - 1, m - 1, Edit("swapped", read[k - 1 : i], printed[m - 1 : j])))
            cost[i][j], how[i][j] = best
            if a == b:
                last_column = j
        last_row[read[i - 1]] = i
    edits: list[Edit] = []
    i, j = rows - 1, columns - 1
    while i or j:
        i, j, edit = how[i][j]
        if edit:
            edits.append(edit)
    return Alignment(round(cost[-1][-1], 6), tuple(reversed(edits)))


def agreement(read: str, printed: str) -> float:
    """Jaro–Winkler similarity (Winkler 1990): of two readings equally far, the one that begins alike is likelier."""
    return float(JaroWinkler.similarity(read, printed, prefix_weight=0.1))


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
