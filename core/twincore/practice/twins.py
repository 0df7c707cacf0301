"""Which boards let the machine of a task behave as it did."""

from twincore.behaviour import Twin, make_twin, prove
from twincore.practice.runs import LIMIT
from twincore.practice.task import ALIKE, Boards
from twincore.profile import Board, Record
from twincore.settings import carry

AT_ONCE = 100
"""Arrivals of a twin check in which boards are looked at before anything is proved."""


def replacements(boards: Boards, stood: Record) -> tuple[str, ...]:
    """The boards offered that can be set so that the machine behaves as it did with the original."""
    others = (each for each in boards.offered.values() if each is not boards.original)
    return tuple(each.part_number for each in others if _is_twin(boards, each, stood))


def behave_alike(twin: Twin) -> bool:
    """Whether the machine behaves alike on both boards; many that differ do so not far from the start."""
    if twin.missing or prove(twin, AT_ONCE, cheap=False).verdict == "different":
        return False
    return prove(twin, LIMIT).verdict in ALIKE


def _is_twin(boards: Boards, board: Board, stood: Record) -> bool:
    if board is boards.replacement:
        return True
    carried = carry(boards.original, stood, board, boards.family)
    if carried.record is None or any(not each.met for each in carried.functions):
        return False
    return behave_alike(make_twin(boards.original, stood, board, carried.record, boards.family))
