"""Assign wires of one signal to the places that carry it, with as few new ends as possible."""

from collections.abc import Sequence

SHARED = 1_000
"""The cost of having no place of its own, against 1 for a new end."""


def assign(fits: Sequence[Sequence[bool | None]]) -> list[int | None]:
    """For each wire the index of its place, or None where none is left.

    `fits[wire][place]` is True where the end fits, False where it needs a new end, None where it must not go. Most
    wires get a place, then fewest new ends, first places first. Successive shortest augmenting paths (Ford and
    Fulkerson 1956; with costs Busacker and Gowen 1960); a place of its own at a high cost stands for none.
    """
    places = len(fits[0]) if fits else 0
    costs = [
        {place: int(not fit) for place, fit in enumerate(row) if fit is not None} | {places + wire: SHARED}
        for wire, row in enumerate(fits)
    ]
    place_of: dict[int, int] = {}
    for wire in range(len(fits)):
        _add(wire, costs, place_of)
    return [place_of[wire] if place_of[wire] < places else None for wire in range(len(fits))]


def _add(start: int, costs: Sequence[dict[int, int]], place_of: dict[int, int]) -> None:
    """Give one more wire a place at the least cost, moving others where that helps."""
    holder = {place: wire for wire, place in place_of.items()}
    reached: dict[int, tuple[int, int]] = {}
    waiting = [(start, 0)]
    while waiting:
        wire, so_far = waiting.pop(0)
        for place, cost in costs[wire].items():
            total = so_far + cost
            if place == place_of.get(wire) or (place in reached and reached[place][0] <= total):
                continue
            reached[place] = total, wire
            if place in holder:
                other = holder[place]
                waiting.append((other, total - costs[other][place]))
    place = min((each for each in reached if each not in holder), key=lambda each: (reached[each][0], each))
    while True:
        wire = reached[place][1]
        before = place_of.get(wire)
        place_of[wire] = place
        if wire == start:
            return
        assert before is not None  # only the new wire comes without a place
        place = before
