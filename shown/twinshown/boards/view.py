"""The boards of a job side by side: how far each is, in which order they are taken, what goes from one to another."""

from collections.abc import Mapping

from twincore.job import FIRST, State, board_in_hand, proved, several, step_in_hand, title_of, why_of
from twincore.job.case import Case
from twincore.job.shared.between import Between, BoardOrder, Wrong, order_of_boards, places_of, wires_between
from twincore.job.shared.unfitted import ready_for_power
from twinshown.boards.schemas import BoardsOfJob, EndShown, LeadShown, SheetLine, WiresBetween

WRONG_WORDS: dict[Wrong, str] = {
    "cut at one end": "One end goes to the new board, the other is tied back: the wire would end nowhere. Decide both together.",
    "other voltage": "Its two ends are of different voltages. Look again before it gets power.",
    "nothing drives it": "Both its ends are inputs: nothing drives it. Look where it goes.",
    "two drive it": "Both its ends are outputs, driving against each other. Look where it goes.",
}


def sheet_id(job_id: str, board: str) -> str:
    """The id of a board's sheet: that of the job, with the board's number after a dot where it is a further one."""
    return job_id if board == FIRST else f"{job_id}.{board}"


def boards_of(case: Case, job_id: str) -> BoardsOfJob | None:
    """The boards of a job; None where there is one."""
    if not several(case.state):
        return None
    order = order_of_boards(case)
    ready = {each.state["board"] for each in case.boards if ready_for_power(each)}
    states = {each.state["board"]: each.state for each in case.boards}
    return BoardsOfJob(
        sheets=[_line(states[name], job_id) for name in order.boards],
        next=board_in_hand(case.state, order.boards, ready),
        said=order.said,
        because=_because(case.state, order),
    )


def _line(state: State, job_id: str) -> SheetLine:
    board = state["board"]
    return SheetLine(
        id=sheet_id(job_id, board), board=board, title=title_of(state, board), why=why_of(state, board),
        original=state["original"], replacement=state["replacement"], step=step_in_hand(state), proved=proved(state),
    )  # fmt: skip


def _because(state: State, order: BoardOrder) -> list[str]:
    words = [
        f"{title_of(state, board)} drives {title_of(state, far)} ({_some(places)})"
        for board, driven in order.drives.items()
        for far, places in driven.items()
    ]
    if order.said:
        return words
    return words or ["No wire between them says otherwise: as they came to the job"]


def _some(places: tuple[str, ...]) -> str:
    more = len(places) - 3
    return ", ".join(places[:3]) + (f" and {more} more" if more > 0 else "")


def between_shown(case: Case) -> WiresBetween:
    """What goes from one board to another, and where it goes once the boards are exchanged."""
    places = {each.state["board"]: places_of(each) for each in case.boards}
    return WiresBetween(
        between=[_between(case.state, each) for each in wires_between(case)],
        places={name: None if found is None else list(found) for name, found in places.items()},
    )


def _between(state: State, each: Between) -> LeadShown:
    return LeadShown(
        id=each.id, what=each.what, wrong=[WRONG_WORDS[wrong] for wrong in each.wrong],
        ends=[
            EndShown(
                board=end.board, title=title_of(state, end.board), place=end.place, carries=end.carries,
                new=None if end.new is None else list(end.new),
            )
            for end in each.sides
        ],
    )  # fmt: skip


def between_told(case: Case) -> list[Mapping[str, str]]:
    """What goes from one board to another, in words, for the papers."""
    return [
        {
            "what": each.what,
            "was": " to ".join(f"{end.title} {end.place}" for end in each.ends),
            "now": " to ".join(f"{end.title} {_now(end)}" for end in each.ends),
            "wrong": " ".join(each.wrong),
        }
        for each in between_shown(case).between
    ]


def _now(end: EndShown) -> str:
    if end.new is None:
        return end.place
    return ", ".join(end.new) or "tied back"
