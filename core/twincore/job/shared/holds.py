"""The hold points of a job: which there are, what was said of them, and which are still open."""

from collections.abc import Mapping
from datetime import datetime
from typing import Any

from twincore.job.case import Case
from twincore.job.rules.order import done
from twincore.job.shared.facts import fact_values
from twincore.make_safe import HoldPoint, above_limit, hold_points
from twincore.profile import Board


def points_of(case: Case) -> list[HoldPoint]:
    """The hold points of a job: its families', with what the boards in the machine store; once fitted, the new ones too."""
    families = {each.family.id: each.family for each in case.boards if each.family is not None}
    boards = [board for each in case.boards for board in _in_the_machine(each)]
    return hold_points(families.values(), boards, fact_values(case), case.dead_v)


def _in_the_machine(case: Case) -> list[Board]:
    mounted = "mounted" in case.state["looks"] or "fit" in case.state["confirmed"]
    return [each for each in (case.original, case.replacement if mounted else None) if each is not None]


def locked_off_at(case: Case) -> datetime | None:
    """When the supply was locked off; None while it is not."""
    isolated = next((p.id for p in points_of(case) if p.kind == "isolate"), None)
    held = case.state["holds"].get(isolated) if isolated else None
    return datetime.fromisoformat(held["at"]) if held and not held.get("skipped") else None


def isolates(case: Case, name: str) -> bool:
    """Whether a hold point is the locking off of the supply."""
    return any(each.id == name and each.kind == "isolate" for each in points_of(case))


def unsettled(case: Case) -> list[HoldPoint]:
    """The hold points that neither hold nor were skipped. One that was said to hold by a reading that is too high holds no more:
    limits may have been others then, and a board that is known better may have brought in a lower supply.
    """
    return [each for each in points_of(case) if not _holds(each, case.state["holds"].get(each.id))]


def is_dead(case: Case) -> bool:
    """Whether every hold point holds, or was skipped with a reason, while the supply is off."""
    return done(case.state, "make_safe") or (case.state["power"] == "off" and not unsettled(case))


def _holds(point: HoldPoint, held: Mapping[str, Any] | None) -> bool:
    return held is not None and (held.get("skipped") is True or above_limit(point, held) is None)


def said_of(case: Case) -> dict[str, Any]:
    """What was said of every hold point: also of those that were released when the supply came back on purpose."""
    energised = case.state["energised"]
    return {**(energised["held"] if energised else {}), **case.state["holds"]}


def skipped(case: Case) -> list[dict[str, Any]]:
    """The hold points that were skipped, with reason, for every later page."""
    held = said_of(case)
    if not any(each.get("skipped") for each in held.values()):
        return []
    titles = {each.id: each.title for each in points_of(case)}
    return [
        {"id": name, "title": titles.get(name, name), "reason": each["reason"], "by": each["by"], "at": each["at"]}
        for name, each in held.items()
        if each.get("skipped")
    ]


def holds_told(case: Case) -> list[dict[str, Any]]:
    """Every hold point that holds or was skipped, in words, for the job sheet."""
    titles = {each.id: each for each in points_of(case)}
    told = []
    for name, each in said_of(case).items():
        point = titles.get(name)
        words = [
            words
            for key, value in each.items()
            if key not in ("by", "at", "skipped", "reason")
            for words in _said_words(key, value, point)
        ]
        told.append(
            {
                "title": point.title if point else name, "words": ", ".join(words), "skipped": each.get("skipped", False),
                "reason": each.get("reason", ""), "by": each["by"], "at": each["at"],
            }
        )  # fmt: skip
    return told


def _said_words(key: str, value: Any, point: HoldPoint | None) -> list[str]:
    unit = point.unit if point else ""
    if key == "readings":
        titles = {pair.id: pair.title for pair in point.pairs} if point else {}
        return [f"{titles.get(name, name)} {_value_words(reading, unit)}" for name, reading in value.items()]
    return [f"{key.replace('_', ' ')}: {_value_words(value, unit if key == 'reading' else '')}"]


def _value_words(value: Any, unit: str) -> str:
    return "yes" if value is True else f"{value} {unit}".strip()
