"""A bank of switches in words: as the eye meets it, and never as bare digits."""

from twincore.profile import Board
from twincore.profile.hanging import hanging_of


def seen_words(board: Board, element: str, written: str) -> str:
    """A bank's digits as the eye meets them, and how to look at it."""
    hanging = hanging_of(board, element)
    along = "left to right" if hanging.axis == "across" else "top to bottom"
    order = f"{len(written)} to 1" if hanging.backwards else f"1 to {len(written)}"
    if not hanging.known:
        return f"{written}: place 1 first; nobody wrote down how it hangs, look for the print beside it"
    return f"{''.join(hanging.seen(written))}: {along} {order}, on is {hanging.on}"
