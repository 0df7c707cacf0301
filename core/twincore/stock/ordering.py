"""The order in which machines and pieces stand so that the cover can be seen."""

from collections.abc import Mapping, Sequence
from typing import TypeVar

Kind = TypeVar("Kind")


def staircase(machines: Mapping[Kind, int], serves: Mapping[Kind, Sequence[str]]) -> tuple[list[Kind], list[str]]:
    """Kinds of machine and pieces in the order of a staircase.

    The piece that serves most machines stands first, with all that it serves above what it does not; of what is left, the
    piece that then serves most is next, and so on (the greedy order of covering, V. Chvátal 1979).
    """
    of_piece: dict[str, list[Kind]] = {}
    for kind in machines:
        for piece in serves.get(kind, ()):
            of_piece.setdefault(piece, []).append(kind)
    left = dict.fromkeys(machines)
    kinds: list[Kind] = []
    pieces: list[str] = []
    while of_piece:
        # what more it serves decides, then what it serves at all, then its number
        best = min(
            of_piece,
            key=lambda each: (
                -sum(machines[kind] for kind in of_piece[each] if kind in left),
                -sum(machines[kind] for kind in of_piece[each]),
                each,
            ),
        )
        fresh = [kind for kind in of_piece.pop(best) if kind in left]
        for kind in sorted(fresh, key=lambda kind: (-machines[kind], str(kind))):
            kinds.append(kind)
            del left[kind]
        pieces.append(best)
    return [*kinds, *sorted(left, key=lambda kind: (-machines[kind], str(kind)))], pieces
