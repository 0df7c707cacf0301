"""What a test does to the machine, told for the board that is in it."""

from collections.abc import Sequence
from typing import Any

from twincore.job.case import Case
from twincore.job.shared.borrowing import borrowed
from twincore.profile import Board
from twinshown.words.schemas import DoesShown


def does_shown(does: Sequence[dict[str, Any]], case: Case, board: Board | None) -> list[DoesShown]:
    """The lines of a test, with a board's own points and pins."""
    if case.family is None:
        return []
    return [
        DoesShown(what=each.what, words=each.words, wait_s=each.wait_s, missing=each.missing)
        for each in borrowed(does, board, case.family, case.state["found"])
    ]
