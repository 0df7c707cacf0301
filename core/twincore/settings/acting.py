"""Positions that make a machine act while it runs, such as a test mode: temporary states, not settings."""

from dataclasses import dataclass, replace

from twincore.profile import Board, Record, Value


@dataclass(frozen=True, slots=True)
class Act:
    """A point and the position in which it acts; `ends` says how that ends, as the profile has it."""

    point: str
    when: Value
    what: str
    ends: str
    time_out_s: float | None = None
    """After how many seconds it ends by itself; None where it does not, or nobody says."""


def acts_of(board: Board) -> list[Act]:
    """What positions of a board act, in the order of its file."""
    return [
        Act(
            each["point"],
            each["when"],
            each["what"],
            each.get("ends", ""),
            None if each.get("time_out_s") is None else float(each["time_out_s"]),
        )
        for each in board.document.get("acts", ())
    ]


def acting(board: Board, record: Record) -> list[Act]:
    """What acts as the board was found."""
    return [act for act in acts_of(board) if record.points[act.point] == act.when]


def at_rest(board: Board, record: Record) -> Record:
    """The record with what acts put to rest: at factory, or at the first position that does not act."""
    points = dict(record.points)
    for act in acting(board, record):
        points[act.point] = resting(board, act)
    return replace(record, points=points)


def resting(board: Board, act: Act) -> Value:
    """The position in which a point does not act."""
    point = board.points[act.point]
    return point.factory if point.factory != act.when else next(each for each in point.domain if each != act.when)
