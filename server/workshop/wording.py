"""Places of a draft in words."""

from collections.abc import Sequence

NAMES = {
    "functions": "the meaning of", "charts": "chart", "connectors": "plug", "behaviour": "the behaviour",
    "settings": "what can be set", "standing": "where it is from", "layout": "the drawing", "facts": "a fact of the kind",
    "signals": "a signal of the kind", "inputs": "an input of the kind", "outputs": "an output of the kind",
}  # fmt: skip


def place_words(path: Sequence[str | int]) -> str:
    """A place of a draft as people say it: "the meaning of purge.post", "chart 2", "state light of the behaviour"."""
    part, rest = str(path[1]) if len(path) > 1 else "the draft", list(path[2:])
    if path and path[0] == "family" and part == "functions":
        return "a function of the kind"
    name = NAMES.get(part, part.replace("_", " "))
    if part == "behaviour" and "states" in rest[:-1]:
        return f"state {rest[rest.index('states') + 1]} of the behaviour"
    if not rest or path[0] == "family":
        return "the meanings" if part == "functions" else name
    first = rest[0]
    if part == "standing":
        return f"where the {NAMES.get(str(first), str(first)).removeprefix('the ').removesuffix(' of')} is from"
    return f"{name} {first + 1 if isinstance(first, int) else first}"
