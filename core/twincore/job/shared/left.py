"""How the new board stands: as planned, as read back, as it was left."""

from typing import Any

from twincore.carry_over import record_of
from twincore.errors import Refusal
from twincore.job.case import Case, new_board
from twincore.job.shared.comparison import comparison_of
from twincore.profile import Record, as_shipped, written_positions
from twincore.profile.values import plain


def plan_of(case: Case) -> Record:
    """The plan to fit by. Raises Refusal where there is none."""
    plan = comparison_of(case).plan_record()
    if plan is None:
        raise Refusal("There is no plan to fit by. Carry over first.")
    return plan


def planned_positions(case: Case) -> dict[str, Any]:
    """What every element of the new board is to be set to, as written."""
    found: dict[str, Any] = plain(written_positions(new_board(case), plan_of(case).points))
    return found


def as_left(case: Case) -> dict[str, Any]:
    """How the new board stands: as read back, and as planned where nobody read it back."""
    read = {name: each["value"] for name, each in case.state["readbacks"].items()}
    found: dict[str, Any] = {name: read.get(name, value) for name, value in planned_positions(case).items()}
    return found


def left_in_order(case: Case) -> dict[str, Any]:
    """How the new board was left, element by element as the board has them; storage keeps no order."""
    left = case.state["left"] or {}
    return {each.id: left[each.id] for each in new_board(case).elements if each.id in left}


def changed_positions(case: Case) -> dict[str, Any]:
    """The positions as left that are not the maker's: what the next person must set again."""
    board = new_board(case)
    factory = plain(written_positions(board, as_shipped(board).points))
    return {name: value for name, value in left_in_order(case).items() if factory.get(name) != value}


def left_record(case: Case) -> Record:
    """The new board as it was left, for what is proved of it."""
    return record_of(new_board(case), case.state["left"] or as_left(case))
