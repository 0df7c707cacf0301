"""Standing: what each part of a profile is worth, and where it comes from."""

from collections.abc import Iterable, Mapping
from typing import Any, Literal

Worth = Literal["sketched", "drawn", "usual", "leaflet", "measured"]
WORTHS: tuple[Worth, ...] = ("sketched", "drawn", "usual", "leaflet", "measured")
"""From the least to the most."""


def worth_of(document: Mapping[str, Any], part: str) -> Worth | None:
    """What a part of a profile is worth (settings, functions, charts, connectors, behaviour, layout); None where nobody said."""
    worth: Worth | None = document.get("standing", {}).get(part, {}).get("worth")
    return worth


def doubtful_elements(document: Mapping[str, Any], what: str) -> set[str]:
    """The elements of a board of which nobody knows this: `on`, `first` or `factory`."""
    doubts = document.get("standing", {}).get("settings", {}).get("doubts", ())
    return {each["of"] for each in doubts if each["what"] == what}


def weakest_worth(documents: Iterable[Mapping[str, Any]], parts: Iterable[str]) -> Worth | None:
    """What the weakest of these parts of several profiles is worth; None where nobody said of any."""
    names = tuple(parts)
    said = [worth for document in documents for name in names if (worth := worth_of(document, name)) is not None]
    return min(said, key=WORTHS.index, default=None)
