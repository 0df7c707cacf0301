"""The key of features: which board is it when no number can be read? Ask what splits the remaining boards best."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from math import log2
from typing import Any

from twincore.profile import KINDS, Board

CANNOT_TELL = "cannot tell"
EFFORT: dict[str, float] = {
    "colour": 1, "plugs": 1, "banks": 1.2, "fuse": 1.2, "lamp": 1.2, "button": 1.2, "display": 1,
    "plug styles": 1.5, "size": 1.5, "relays": 1.5, "wires to it": 1.5, "chip": 2.5, "bus": 2,
}  # fmt: skip
"""How much work it is to answer, relative to a glance (common practice, no source); others count 1.5."""
DEFAULT_EFFORT = 1.5


@dataclass(frozen=True, slots=True)
class Sighting:
    """A board as it looks: its features in words; a feature that its profile does not tell is not there."""

    part_number: str
    features: Mapping[str, str]


@dataclass(frozen=True, slots=True)
class Question:
    """A feature to look at, what was seen of it among the boards left, and what an answer tells on average (bits)."""

    feature: str
    choices: tuple[tuple[str, int], ...]
    bits: float
    effort: float


def features_of(board: Board) -> dict[str, str]:
    """What can be seen on a board: from its `look`, and from what its profile draws."""
    document = board.document
    seen = {name: _words(value) for name, value in document.get("look", {}).items()}
    connectors = document.get("connectors")
    if connectors is not None:
        seen.setdefault("plugs", str(len(connectors)))
        styles = sorted({f"{len(each['pins'])} pins" for each in connectors})
        seen["plug styles"] = ", ".join(styles)
    banks = [each for each in board.elements if each.rules.on_off]
    told = [f"bank of {len(each.points)}" for each in banks]
    for kind in KINDS.values():
        count = sum(each.kind == kind.name for each in board.elements)
        told += [f"{count} {kind.seen[count > 1]}"] if kind.seen and count else []
    seen["banks"] = ", ".join(told) or "none"
    layout: Sequence[Mapping[str, Any]] = document.get("layout", ())
    if layout:
        seen.setdefault("fuse", _place(document, layout, "fuse"))
        seen.setdefault("lamp", _place(document, layout, "lamp"))
        if relays := sum(each["ref"].startswith("RL") for each in layout):
            seen.setdefault("relays", str(relays))
    if "size_mm" in document:
        width, height = (float(each) for each in document["size_mm"])
        seen["size"] = f"{width:g} by {height:g} mm"
    return seen


def _words(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return value if isinstance(value, str) else f"{float(value):g}"


def _place(document: Mapping[str, Any], layout: Sequence[Mapping[str, Any]], ref: str) -> str:
    """Where a part sits, in quarters of the board as it hangs; "none" where it has none."""
    placed = next((each for each in layout if each["ref"] == ref), None)
    if placed is None:
        return "none"
    width, height = document.get("size_mm", (160, 110))
    x = placed["at"][0] + placed.get("size", (0, 0))[0] / 2
    y = placed["at"][1] + placed.get("size", (0, 0))[1] / 2
    return f"{'upper' if y > height / 2 else 'lower'} {'left' if x < width / 2 else 'right'}"


def remaining(sightings: Iterable[Sighting], answers: Mapping[str, str]) -> list[Sighting]:
    """The boards that agree with every answer; one whose profile does not tell a feature stays."""
    asked = {name: answer for name, answer in answers.items() if answer != CANNOT_TELL}
    return [
        each for each in sightings if all(each.features.get(name, answer) == answer for name, answer in asked.items())
    ]


def entropy(counts: Iterable[float]) -> float:
    """Shannon's entropy in bits of weights that need not add up to one (Shannon 1948)."""
    weights = [each for each in counts if each > 0]
    total = sum(weights)
    return sum(-each / total * log2(each / total) for each in weights) if total else 0.0


def information_gain(before: Sequence[float], after: Iterable[Sequence[float]]) -> float:
    """Bits that a question tells on average: entropy before, less the weighted entropy after (Quinlan 1986)."""
    parts = [list(each) for each in after]
    total = sum(sum(each) for each in parts)
    return entropy(before) - sum(sum(each) / total * entropy(each) for each in parts if sum(each) > 0)


def questions(left: Sequence[Sighting], answered: Iterable[str] = ()) -> list[Question]:
    """What could still be asked, most information per effort first; every board left is held equally likely."""
    asked = set(answered)
    names = sorted({name for each in left for name in each.features} - asked)
    found = [question for name in names if (question := _question(name, left)).bits > 1e-9]
    return sorted(found, key=lambda each: (-each.bits / each.effort, each.feature))


def _question(name: str, left: Sequence[Sighting]) -> Question:
    told: dict[str, int] = {}
    untold = 0
    for each in left:
        if name in each.features:
            told[each.features[name]] = told.get(each.features[name], 0) + 1
        else:
            untold += 1
    # boards that do not tell stay whatever the answer is
    bits = 0.0
    if len(told) > 1:
        share = sum(told.values()) / len(left)
        after = [[1.0] * (count + untold) for count in told.values()]
        weights = [count / sum(told.values()) for count in told.values()]
        kept = sum(weight * entropy(part) for weight, part in zip(weights, after, strict=True))
        bits = share * max(0.0, entropy([1.0] * len(left)) - kept)
    choices = tuple(sorted(told.items(), key=lambda each: (-each[1], each[0])))
    return Question(name, choices, bits, EFFORT.get(name, DEFAULT_EFFORT))


def separating(one: Sighting, other: Sighting) -> tuple[tuple[str, str, str], ...]:
    """The features in which two boards can be told apart by eye, as (feature, of the one, of the other)."""
    return tuple(
        (name, one.features[name], other.features[name])
        for name in sorted(one.features)
        if name in other.features and one.features[name] != other.features[name]
    )
