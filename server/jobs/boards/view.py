"""The boards of a job side by side: how far each is, in which order they are taken, what goes from one to another."""

from collections.abc import Mapping

from jobs.boards.schemas import BoardsOfJob, EndShown, LeadShown, SheetLine, WiresBetween
from jobs.cases import case_of
from jobs.models import Job
from jobs.sheets import id_of, sheet
from twincore.job import State, board_in_hand, proved, several, step_in_hand, title_of, why_of
from twincore.job.between import Between, BoardOrder, Wrong, order_of_boards, places_of, wires_between
from twincore.job.unfitted import ready_for_power

WRONG_WORDS: dict[Wrong, str] = {
    "cut at one end": "One end goes to the new board, the other is tied back: the wire would end nowhere. Decide both together.",
    "other voltage": "Its two ends are of different voltages. Look again before it gets power.",
    "nothing drives it": "Both its ends are inputs: nothing drives it. Look where it goes.",
    "two drive it": "Both its ends are outputs, driving against each other. Look where it goes.",
}


def boards_of(job: Job) -> BoardsOfJob | None:
    """The boards of a job; None where there is one."""
    if not several(job.state):
        return None
    case = case_of(job)
    order = order_of_boards(case)
    ready = {each.state["board"] for each in case.boards if ready_for_power(each)}
    return BoardsOfJob(
        sheets=[_line(sheet(job, name)) for name in order.boards],
        next=board_in_hand(job.state, order.boards, ready),
        said=order.said,
        because=_because(job.state, order),
    )


def _line(job: Job) -> SheetLine:
    state = job.state
    return SheetLine(
        id=id_of(job), board=job.board, title=title_of(state, job.board), why=why_of(state, job.board),
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


def between_shown(job: Job) -> WiresBetween:
    """What goes from one board to another, and where it goes once the boards are exchanged."""
    case = case_of(job)
    places = {each.state["board"]: places_of(each) for each in case.boards}
    return WiresBetween(
        between=[_between(job.state, each) for each in wires_between(case)],
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


def between_told(job: Job) -> list[Mapping[str, str]]:
    """What goes from one board to another, in words, for the papers."""
    return [
        {
            "what": each.what,
            "was": " to ".join(f"{end.title} {end.place}" for end in each.ends),
            "now": " to ".join(f"{end.title} {_now(end)}" for end in each.ends),
            "wrong": " ".join(each.wrong),
        }
        for each in between_shown(job).between
    ]


def _now(end: EndShown) -> str:
    if end.new is None:
        return end.place
    return ", ".join(end.new) or "tied back"
