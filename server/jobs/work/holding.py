"""Make safe: the hold points of a job, and what makes each of them hold."""

from datetime import datetime
from typing import Any

from catalogue.profiles import board_profile, family_profile
from config.errors import Faulty, Refused
from jobs.front.facts import fact_values
from jobs.given import Given
from jobs.models import Job
from twincore.job.targets.make_safe import HoldSaid
from twincore.make_safe import HoldPoint, fault_of, hold_points

NAMES = {
    "where": "where", "tag": "the tag's number", "instrument": "the instrument", "reading": "the reading",
    "checked_before": "that the instrument was checked before", "checked_after": "that it was checked again after",
}  # fmt: skip


def points_of(job: Job) -> list[HoldPoint]:
    """The hold points of a job: its family's, with what the board in the machine stores; once fitted, the new one too."""
    state = job.state
    mounted = "mounted" in state.get("looks", {}) or "fit" in state["confirmed"]
    fitted = job.replacement_revision_id if mounted else None
    boards = [board_profile(each) for each in (job.original_revision_id, fitted) if each]
    family = family_profile(job.family_revision_id) if job.family_revision_id else None
    return hold_points(family, boards, fact_values(job))


def locked_off_at(job: Job) -> datetime | None:
    """When the supply was locked off; None while it is not."""
    isolated = next((p.id for p in points_of(job) if p.kind == "isolate"), None)
    held = job.state["holds"].get(isolated) if isolated else None
    return datetime.fromisoformat(held["at"]) if held and not held.get("skipped") else None


def hold_value(job: Job, name: str, after: HoldSaid, given: Given) -> dict[str, Any]:
    """What was said of a hold point. Refuses what does not make it hold; skipping takes a reason."""
    point = next((each for each in points_of(job) if each.id == name), None)
    if point is None:
        raise Faulty(f"There is no hold point {name} for this machine.")
    allowed = {*point.asks, "note", "skipped"}
    if not set(after) <= allowed:
        raise Faulty(f"Expected any of {', '.join(sorted(allowed))}.")
    if after.get("skipped"):
        if not given.reason.strip():
            raise Faulty(
                f"{point.title}: say why it is skipped. The reason stands on every later page and on the sheet."
            )
        return {"skipped": True, "reason": given.reason.strip()}
    _check_order(job, point)
    since = locked_off_at(job)
    fault = fault_of(point, dict(after), (given.now - since).total_seconds() if since else None)
    if fault is not None:
        raise Faulty(_words(point, fault.code, fault.name, fault.left_s, since is not None))
    return dict(after)


def isolates(job: Job, name: str) -> bool:
    """Whether a hold point is the locking off of the supply."""
    return any(each.id == name and each.kind == "isolate" for each in points_of(job))


def _check_order(job: Job, point: HoldPoint) -> None:
    """Proving dead and what follows speak of a machine that is locked off."""
    if point.kind not in ("prove dead", "stored energy"):
        return
    before = [each for each in points_of(job) if each.kind == "isolate" and each.id not in job.state["holds"]]
    if before:
        raise Refused(f"First: {before[0].title.lower()}.")


def _words(point: HoldPoint, code: str, name: str, left_s: float, locked: bool) -> str:
    match code:
        case "too early" if not locked:
            return f"{point.title}: the wait of {point.wait_s:.0f} s starts when the supply is locked off."
        case "too early":
            return f"{point.title}: wait {left_s:.0f} s more, then measure. The clock alone does not end it."
        case "not below":
            return (
                f"{point.title}: the reading is not below {point.limit:g} {point.unit}. Nothing is touched; "
                "find out what still feeds it, and measure again."
            )
        case "no number":
            return f"{point.title}: expected a reading in {point.unit} of at least 0."
        case "not confirmed":
            return f"{point.title}: confirm {NAMES[name]}."
    return f"{point.title}: say {NAMES[name]}."


def unsettled(job: Job) -> list[HoldPoint]:
    """The hold points that neither hold nor were skipped."""
    return [each for each in points_of(job) if each.id not in job.state["holds"]]


def check_all_hold(job: Job) -> None:
    """Refuse to open what needs the machine dead before every hold point holds or was skipped with a reason."""
    if missing := unsettled(job):
        raise Refused(f"Still open: {', '.join(each.title for each in missing)}.", holds=[each.id for each in missing])


def said_of(job: Job) -> dict[str, Any]:
    """What was said of every hold point: also of those that were released when the supply came back on purpose."""
    energised = job.state.get("energised") or {}
    return {**energised.get("held", {}), **job.state.get("holds", {})}


def skipped(job: Job) -> list[dict[str, Any]]:
    """The hold points that were skipped, with reason, for every later page."""
    held = said_of(job)
    if not any(each.get("skipped") for each in held.values()):
        return []
    titles = {each.id: each.title for each in points_of(job)}
    return [
        {"id": name, "title": titles.get(name, name), "reason": each["reason"], "by": each["by"], "at": each["at"]}
        for name, each in held.items()
        if each.get("skipped")
    ]


def holds_told(job: Job) -> list[dict[str, Any]]:
    """Every hold point that holds or was skipped, in words, for the job sheet."""
    titles = {each.id: each for each in points_of(job)}
    told = []
    for name, each in said_of(job).items():
        point = titles.get(name)
        words = [
            f"{key.replace('_', ' ')}: {_value_words(value, point.unit if point and key == 'reading' else '')}"
            for key, value in each.items()
            if key not in ("by", "at", "skipped", "reason")
        ]
        told.append(
            {
                "title": point.title if point else name, "words": ", ".join(words), "skipped": each.get("skipped", False),
                "reason": each.get("reason", ""), "by": each["by"], "at": each["at"],
            }
        )  # fmt: skip
    return told


def _value_words(value: Any, unit: str) -> str:
    return "yes" if value is True else f"{value} {unit}".strip()
