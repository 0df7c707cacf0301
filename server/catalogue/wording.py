"""Hits and plates in words."""

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
