"""The board in the hand: its number, revision and serial number read off it before it is mounted, for many look alike."""

from typing import Any

from twincore.errors import WrongValue
from twincore.job.case import Case, new_board
from twincore.job.given import Given
from twincore.job.targets.fit import InHandSaid
from twincore.profile import Board
from twincore.recognise import normal_form, without_look_alikes


def in_hand_value(case: Case, name: str, after: InHandSaid, given: Given) -> dict[str, Any]:
    """What the board in the hand says. Another board than the one chosen is told, and not mounted."""
    board = new_board(case)
    if not says(board, after["number"]):
        raise WrongValue(
            f"It says {after['number']}; chosen was {board.part_number}. Read it again. If this is the one that goes in, "
            "judge it in Choose, under “I have this one”, and take it there."
        )
    return {key: value for key, value in after.items() if value}


def says(board: Board, number: str) -> bool:
    """Whether a print is this board's number or one of its aliases, letters and digits that look alike taken for each other."""
    printed = [board.part_number, *board.document.get("also_marked", ())]
    read = without_look_alikes(normal_form(number))
    return read != "" and read in {without_look_alikes(normal_form(each)) for each in printed}


def is_read(case: Case) -> bool:
    """Whether somebody read the number off the board that goes in."""
    return case.state["in_hand"] is not None


def conditions(board: Board) -> list[str]:
    """What must be so of the board in the hand, such as a sticker or a revision, as its profile says."""
    return list(board.document.get("in_hand", ()))
