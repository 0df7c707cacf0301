"""Practice in words: what was wanted, what came of it, and what would have happened."""

from collections.abc import Mapping
from typing import Any

from twincore.practice import Row
from twincore.profile import Family, Value
from twincore.profile.values import is_number, plain

TOUCHED = {
    "isolate": "The machine was on when you reached for the board. Mains voltage was on its terminals: this is how people are killed.",
    "prove dead": "Nobody had measured that it was dead. A wrong switch, a second supply or a back-feed would have been on the terminals under your fingers.",
    "gas": "Gas was open. With the board out, nothing holds a valve shut that somebody opens by hand.",
    "water": "Water was open. A hose off its place would have run over the board.",
    "heat": "The parts beside the board were still hot.",
    "moving": "A part that still turned would have taken the glove with it.",
    "hanging": "A sprung or hanging part was held by nothing but the drive that you were about to take the voltage from.",
    "static": "Without the strap your own charge would have gone through the new board. It may work today and fail in a month.",
}
"""What would have happened (common practice, no source)."""
BLAMED = {"supply": "the supply", "input": "an input that is missing", "board": "the board", "load": "what hangs on it"}
LOCAL = "Local codes, the maker's instructions and licensed practice come first; this is an exercise, and says of no machine that it is safe."


def function_words(family: Family, name: str, value: Value | None) -> str:
    """A value of a function as people say it."""
    found = family.function(name)
    if value is None:
        return "nothing that is decided"
    if isinstance(value, bool):
        return "yes" if value else "no"
    unit = found.unit if found is not None else ""
    return f"{plain(value)} {unit}".strip() if is_number(value) else str(value)


def function_title(family: Family, name: str) -> str:
    """What a function is called."""
    found = family.function(name)
    return found.title if found is not None else name


def row_words(row: Row, family: Family) -> tuple[str, str, str]:
    """What it was, what should have come of it, and what did, in words."""
    if row.skill in ("safety", "settings"):
        should, did = (function_words(family, row.what, each) for each in (row.should, row.did))
        return function_title(family, row.what), should, did
    if row.skill == "shortest way":
        return "Minutes of tests", f"{row.should:g}", f"{row.did:g}"
    if row.skill == "meter":
        return str(row.what), BLAMED.get(row.should, str(row.should)), BLAMED.get(row.did, str(row.did))
    if row.skill == "wires":
        return row.what, str(row.should), str(row.did) or "on nothing"
    return row.what, str(plain(row.should)), str(plain(row.did))


def told_words(code: str, data: Mapping[str, Any]) -> str:
    """What else is to be said, in a sentence."""
    match code:
        case "not run":
            return "The machine was never run before you said that it was done."
        case "taken for another":
            return f"{data['wire']} ({data['device']}) hangs where {data['driven_by']} belongs: it does what the board means for {data['driven_by']}."
        case "on nothing":
            return f"{data['wire']} ({data['device']}) is on nothing: the board drives or sees nothing there."
        case "best way":
            return f"The way that tells most for its minutes: {', then '.join(data['tests']) or 'no test at all'}."
        case "live without need":
            return f"Under power without need: {', '.join(data['tests'])}. The best way did without."
        case "presses":
            return f"{data['took']} presses; {data['least']} are enough."
        case "not stored":
            return "Something was still being changed: what is not stored is gone when the panel is left."
        case "fault":
            return _fault(data)
        case "many measurements":
            return f"{data['count']} measurements. The supply, the output, and the inputs that it waits for are enough."
        case "too early" | "touched: stored energy":
            return _stored(data)
    return TOUCHED.get(code.removeprefix("touched: "), "")


def _fault(data: Mapping[str, Any]) -> str:
    places = " or ".join(data["places"])
    where = f"{data['output']} at {places}"
    match data["blamed"]:
        case "supply":
            return "There was no supply at the board: nothing else on it says anything then."
        case "input":
            return f"{data['input']} never came at {places}. The board does what it should: it waits."
        case "board":
            return f"{where} had no voltage although all that it waits for was there: the board does not switch it."
    return f"{where} had its voltage: the board switches it, and what hangs on it does not work."


def _stored(data: Mapping[str, Any]) -> str:
    volts, off = f"{data['volts']:g} V", f"{data['off_s']:g} s"
    if data["off_s"] == 0:
        return f"{data['point']}: the capacitor was full, {volts}. It does not ask whether the switch is off."
    return f"{data['point']}: {off} after the switch there were still {volts} on the capacitor; it wants {data['wait_s']:g} s, and a reading."
