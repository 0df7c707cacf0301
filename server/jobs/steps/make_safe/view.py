"""Make safe, for the screen."""

from datetime import datetime
from typing import Any
from uuid import UUID

from config.compiled import Compiled
from jobs.cases import case_of
from jobs.models import Job
from jobs.steps.make_safe.schemas import HoldShown, MakeSafeShown
from people.models import Person
from twincore.job import current, unread_powered
from twincore.job.case import original_of, remembered
from twincore.job.holds import locked_off_at, points_of
from twincore.job.unfitted import missing_beside, still_off

MOST_LOOKED_AT = 12
LASTING = ("where", "tag", "instrument")
"""What somebody says of a hold point that stays the same from job to job: looked at again, not typed again."""


def make_safe_shown(job: Job, person: Person, now: datetime) -> MakeSafeShown:
    """The hold points with what was said, and what remains of each wait by the server's clock."""
    since = locked_off_at(case_of(job))
    passed = (now - since).total_seconds() if since else None
    return MakeSafeShown(
        power=job.state.get("power", "on"),
        now=now,
        locked_off_at=since,
        points=[
            HoldShown(
                id=point.id, kind=point.kind, title=point.title, say=list(point.say), asks=list(point.asks),
                limit=point.limit, unit=point.unit, wait_s=point.wait_s,
                left_s=max(point.wait_s - passed, 0) if passed is not None else point.wait_s,
                energy_j=point.energy.energy_j if point.energy else None,
                held=job.state.get("holds", {}).get(point.id),
            )
            for point in points_of(case_of(job))
        ],
        as_before=_as_before(job, person),
        still_off=still_off(case_of(job)),
        missing_beside=missing_beside(case_of(job)),
        unread=_unread(job),
    )  # fmt: skip


BEFORE = Compiled(
    lambda depot, job: Job.objects.filter(depot=depot).exclude(pk=job).order_by("-changed_at")
    .values_list("machine_key", "family_revision__family", "state__holds", "state__energised")[:MOST_LOOKED_AT],
    depot=-1, job=UUID(int=0),
)  # fmt: skip


def _as_before(job: Job, person: Person) -> dict[str, dict[str, str]]:
    """What this person said last: on this machine first, then of its kind, then anywhere."""
    rows = BEFORE(depot=job.depot_id, job=job.pk)
    kind = job.family_revision.family_id if job.family_revision else None
    nearest = sorted(rows, key=lambda row: (row[0] != job.machine_key, row[1] != kind))
    found: dict[str, dict[str, str]] = {}
    for _, _, holds, energised in nearest:
        state = current({"holds": holds or {}, "energised": energised})
        held = state["energised"]["held"] if state["energised"] else {}
        for name, kept in {**held, **state["holds"]}.items():
            said: dict[str, Any] = {**kept}
            if said["by"] == person.shown_name and not said.get("skipped"):
                lasts = {key: str(said[key]) for key in LASTING if said.get(key)}
                if lasts:
                    found.setdefault(name, lasts)
    return found


def _unread(job: Job) -> list[str]:
    if job.original_revision_id is None:
        return []
    board = original_of(case_of(job))[1]
    titles = {e.id: f"{e.id} {e.title}".strip() for e in board.elements} | {
        e["id"]: e["what"] for e in remembered(board)
    }
    return [titles.get(name, name) for name in unread_powered(job.state)]
