"""Words of a picture that may be a part number: what is printed together, with figures in it."""

from collections.abc import Sequence

from twincore.printed.words import Word

MOST = 12
SHORTEST = 4


def marking_candidates(words: Sequence[Word], most: int = MOST) -> list[Word]:
    """What may be a marking, the likeliest first: sure, long, with figures and letters; neighbours on a line joined too."""
    lines = _lines(words)
    joined = [
        _joined(line[i:j]) for line in lines for i in range(len(line)) for j in range(i + 1, min(i + 4, len(line) + 1))
    ]
    usable = [each for each in joined if sum(mark.isalnum() for mark in each.text) >= SHORTEST and _figures(each.text)]
    best: dict[str, Word] = {}
    for each in sorted(usable, key=_likely, reverse=True):
        best.setdefault(each.text, each)
    return list(best.values())[:most]


def _lines(words: Sequence[Word]) -> list[list[Word]]:
    """Words that stand beside each other: on one level, and not far apart."""
    lines: list[list[Word]] = []
    for word in sorted(words, key=lambda w: w.left):
        for line in lines:
            last = line[-1]
            level = abs(last.middle[1] - word.middle[1]) < 0.6 * max(last.height, word.height)
            if level and -0.3 * word.height < word.left - (last.left + last.width) < 1.6 * max(
                last.height, word.height
            ):
                line.append(word)
                break
        else:
            lines.append([word])
    return lines


def _joined(words: Sequence[Word]) -> Word:
    left, top = min(w.left for w in words), min(w.top for w in words)
    right, bottom = max(w.left + w.width for w in words), max(w.top + w.height for w in words)
    confidence = sum(w.confidence for w in words) / len(words)
    return Word(" ".join(w.text for w in words), left, top, right - left, bottom - top, confidence)


def _figures(text: str) -> int:
    return sum(mark.isdigit() for mark in text)


def _likely(word: Word) -> float:
    letters = sum(mark.isalpha() and mark.isupper() for mark in word.text)
    odd = sum(not (mark.isalnum() or mark in "-/. ") for mark in word.text)
    return (
        word.confidence
        + 0.12 * min(_figures(word.text), 6)
        + 0.08 * min(letters, 4)
        - 0.25 * odd
        - 0.1 * word.text.count(" ")
    )
