"""Places of a draft in words."""

import re
from collections.abc import Mapping, Sequence
from typing import Any

from twincore.workshop import Apart

NAMES = {
    "functions": "the meaning of", "charts": "chart", "connectors": "plug", "behaviour": "the behaviour",
    "settings": "what can be set", "standing": "where it is from", "layout": "the drawing", "facts": "a fact of the kind",
    "signals": "a signal of the kind", "inputs": "an input of the kind", "outputs": "an output of the kind",
}  # fmt: skip

ELEMENT_WORDS = {
    "dip": "switch bank", "rotary": "dial", "program": "program number", "parameter": "number", "thumbwheel": "row of wheels",
}  # fmt: skip
WHOLE = {"functions": "the meanings", "charts": "charts", "connectors": "plugs"}
CHART = re.compile(r"charts\[(\d+)\](?:\.rows\[(\d+)\])?(?:\.(?:if|set)\.(.+))?.*")
FUNCTION = re.compile(r"functions\.(.+?)(?:\.table(?:\[(\d+)\].*)?|\.fixed|\.from)?")
PIN = re.compile(r"connectors\[(\d+)\](?:\.pins\[(\d+)\].*)?")
ARROW = re.compile(r"behaviour(?:\.machines\[\d+\])?\.states\.([^.\[]+)(?:\.go\[(\d+)\])?.*")


def where_words(place: str, board: Mapping[str, Any], titles: Mapping[str, str]) -> str:
    """Where a finding stands, as somebody with the tables before them looks for it: "Sheet 4, row 2, S1"."""
    if chart := CHART.fullmatch(place):
        index, row, name = chart.groups()
        node = board["charts"][int(index)]
        return _joined(node.get("title") or node.get("id", "chart"), row and f"row {int(row) + 1}", name)
    if function := FUNCTION.fullmatch(place):
        name, row = function.groups()
        return _joined(titles.get(name, name), row and f"row {int(row) + 1}")
    if pin := PIN.fullmatch(place):
        index, number = pin.groups()
        return _joined(f"plug {board['connectors'][int(index)]['id']}", number and f"pin {int(number) + 1} of its list")
    if arrow := ARROW.fullmatch(place):
        state, number = arrow.groups()
        return _joined(f"state {state}", number and f"arrow {int(number) + 1}")
    return WHOLE.get(place, NAMES.get(place.partition(".")[0], place))


def _joined(*parts: str | None) -> str:
    return ", ".join(part for part in parts if part)


def place_words(path: Sequence[str | int]) -> str:
    """A place of a draft as people say it: "the meaning of purge.post", "chart 2", "state light of the behaviour"."""
    part, rest = str(path[1]) if len(path) > 1 else "the draft", list(path[2:])
    if path and path[0] == "family" and part == "functions":
        return "a function of the kind"
    name = NAMES.get(part, part.replace("_", " "))
    if part == "behaviour" and "states" in rest[:-1]:
        return f"state {rest[rest.index('states') + 1]} of the behaviour"
    if not rest or path[0] == "family":
        return WHOLE.get(part, name)
    first = rest[0]
    if part == "standing":
        return f"where the {NAMES.get(str(first), str(first)).removeprefix('the ').removesuffix(' of')} is from"
    return f"{name} {first + 1 if isinstance(first, int) else first}"


def apart_words(each: Apart) -> str:
    """What speaks against two boards being one: "S1 has 8 places on the sketch and 6 here"."""
    match each.what:
        case "not there":
            return f"{each.of} ({ELEMENT_WORDS.get(each.seen, each.seen)}) is on the sketch and not on this board"
        case "another kind":
            kinds = [ELEMENT_WORDS.get(kind, kind) for kind in (each.seen, each.known)]
            return f"{each.of} is a {kinds[0]} on the sketch and a {kinds[1]} here"
        case "other positions":
            return f"{each.of} has {each.seen} as positions on the sketch and {each.known} here"
        case "other pins":
            return f"plug {each.of} has {each.seen} pins on the sketch and {each.known} here"
