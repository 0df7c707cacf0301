"""Make safe, for the screen."""

from datetime import datetime

from twincore.job import unread_powered
from twincore.job.case import Case, original_of, remembered
from twincore.job.shared.holds import locked_off_at, points_of, unsettled
from twincore.job.shared.unfitted import missing_beside, still_off
from twinshown.steps.make_safe.schemas import HoldShown, MakeSafeShown, PairShown

AsBefore = dict[str, dict[str, str]]
"""What a person said last of each hold point that stays the same from job to job."""


def make_safe_shown(case: Case, as_before: AsBefore, now: datetime) -> MakeSafeShown:
    """The hold points with what was said, and what remains of each wait by the server's clock."""
    since = locked_off_at(case)
    still_open = {each.id for each in unsettled(case)}
    passed = (now - since).total_seconds() if since else None
    return MakeSafeShown(
        power=case.state["power"],
        now=now,
        locked_off_at=since,
        points=[
            HoldShown(
                id=point.id, kind=point.kind, title=point.title, say=list(point.say), asks=list(point.asks),
                limit=point.limit, unit=point.unit, wait_s=point.wait_s,
                left_s=max(point.wait_s - passed, 0) if passed is not None else point.wait_s,
                pairs=[PairShown(id=each.id, title=each.title) for each in point.pairs],
                energy_j=point.energy.energy_j if point.energy else None,
                held=None if point.id in still_open else case.state["holds"].get(point.id),
            )
            for point in points_of(case)
        ],
        as_before=as_before,
        still_off=still_off(case),
        missing_beside=missing_beside(case),
        unread=_unread(case),
    )  # fmt: skip


def _unread(case: Case) -> list[str]:
    if case.original is None:
        return []
    board = original_of(case)[1]
    titles = {e.id: f"{e.id} {e.title}".strip() for e in board.elements} | {
        e["id"]: e["what"] for e in remembered(board)
    }
    return [titles.get(name, name) for name in unread_powered(case.state)]
