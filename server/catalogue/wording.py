"""Hits and plates in words."""

from collections.abc import Mapping
from typing import Any

from twincore.recognise import Edit, Reading


def reading_words(reading: Reading) -> str:
    """Why a marking is a hit: "read O as 0, 8 as B"."""
    told = {
        "as printed": "as printed",
        "written differently": f"the same number, printed {reading.printed}",
        "part of it": f"part of {reading.printed}",
    }
    words = told.get(reading.how) or f"printed {reading.printed}: {', '.join(map(_edit, reading.edits))}"
    if reading.alias:
        words += "; another marking of this board"
    if reading.revision:
        words += f"; revision {reading.revision} kept apart"
    return words


def _edit(edit: Edit) -> str:
    match edit.kind:
        case "misread":
            return f"read {edit.read}, may be {edit.printed}"
        case "extra":
            return f"{edit.read} too many"
        case "missing":
            return f"{edit.printed} missing"
        case "swapped":
            return f"{edit.read} for {edit.printed}, changed over"
    return f"{edit.read} instead of {edit.printed}"


WORTH_WORDS = {
    "sketched": "sketched at the machine", "usual": "the usual of its kind", "leaflet": "by a leaflet’s word",
    "measured": "measured",
}  # fmt: skip
DOUBT_WORDS = {
    "on": "which way is on", "first": "where number 1 is", "keyed": "whether it is keyed", "factory": "how it leaves the maker",
}  # fmt: skip


def standing_words(document: Mapping[str, Any]) -> str:
    """What the settings of a profile are worth, who looked and when, in words; empty where nobody said."""
    said = document.get("standing", {}).get("settings", {})
    worth = WORTH_WORDS.get(said.get("worth", ""), "")
    looked = [f"{each.get('who', '')} {each.get('on', '')}".strip() for each in said.get("sources", ())]
    return ", ".join(each for each in (worth, *looked) if each)


def doubts_words(document: Mapping[str, Any]) -> list[str]:
    """What nobody could tell, a line for each kind of doubt: "which way is on: S1, S2"."""
    doubts = document.get("standing", {}).get("settings", {}).get("doubts", ())
    found = {what: [each["of"] for each in doubts if each["what"] == what] for what in DOUBT_WORDS}
    return [f"{DOUBT_WORDS[what]}: {', '.join(names)}" for what, names in found.items() if names]
