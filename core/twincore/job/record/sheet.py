"""A job's sheet from its entries, and from its boards where they are known: steps, state, plan and verdict."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from twincore.carry_over import record_of
from twincore.job.case import Case, original_of
from twincore.job.record.replay import replay
from twincore.job.rules.boards import other_sheets, title_of
from twincore.job.rules.order import STEPS, standing, step_in_hand, waiting_for
from twincore.job.rules.state import State
from twincore.job.shared.comparison import believed, comparison_of
from twincore.job.shared.meanings import with_meanings
from twincore.profile import Board, Family, written_positions
from twincore.profile.values import plain
from twincore.settings import decode


@dataclass(frozen=True, slots=True)
class Profiles:
    """The family and the boards that a job is about, as far as they are at hand."""

    family: Family | None = None
    original: Board | None = None
    replacement: Board | None = None


NO_PROFILES = Profiles()
NO_OTHERS: Mapping[str, Profiles] = {}
ONE_SHEET = ("board",)
"""What only says which sheet of a job it is."""


def sheet_of(
    document: Mapping[str, Any], profiles: Profiles = NO_PROFILES, others: Mapping[str, Profiles] = NO_OTHERS
) -> dict[str, Any]:
    """The sheet of a job's document, as the command line prints it; with that of each of its further boards, by number, whose
    profiles are in `others`. Raises DocumentError at an entry that is none.
    """
    found = replay(document["entries"])
    state, closed = found.state, bool(document.get("closed_at"))
    boards = {
        sheet["board"]: {
            "title": title_of(state, sheet["board"]),
            **_steps(sheet, closed),
            **_worked_out(sheet, others.get(sheet["board"], NO_PROFILES)),
        }
        for sheet in other_sheets(state)
    }
    return {
        "job": document.get("number"),
        "machine": document.get("machine"),
        "complaint": document.get("complaint", ""),
        "entries": len(document["entries"]),
        **_steps(state, closed),
        "untold": sorted(found.untold),
        "state": {key: value for key, value in state.items() if key not in ONE_SHEET and value not in (None, {}, [])},
        **_worked_out(state, profiles),
        **({"boards": boards} if boards else {}),
    }


def _steps(state: State, closed: bool) -> dict[str, Any]:
    steps = [
        {"id": step, "state": standing(state, step, closed), "waits_for": waiting_for(state, step)} for step in STEPS
    ]
    return {"step": step_in_hand(state), "steps": steps}


def _worked_out(state: State, profiles: Profiles) -> dict[str, Any]:
    """What follows from the boards: what the functions stood at, how the new board is set, and the twin check's verdict."""
    if profiles.family is None or profiles.original is None:
        return {}
    case = with_meanings(
        Case(state=state, family=profiles.family, original=profiles.original, replacement=profiles.replacement)
    )
    family, original = original_of(case)
    functions = decode(original, record_of(original, believed(state)), family)
    found: dict[str, Any] = {"functions": {name: each.answer() for name, each in functions.items()}}
    if profiles.replacement is not None:
        comparison = comparison_of(case)
        if (plan := comparison.plan_record()) is not None:
            found["plan"] = written_positions(profiles.replacement, plan.points)
            found["verdict"] = comparison.proof(plan).verdict
    return dict(plain(found))
