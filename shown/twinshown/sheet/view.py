"""The sheet of a job, and its history."""

from collections.abc import Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from twincore.job import FIRST, State, several, step_in_hand, title_of, uncleared_causes
from twincore.job.case import Case
from twincore.job.rules.boards import board_of, speaks_of_all
from twincore.job.shared.facts import facts_of
from twincore.job.shared.holds import skipped
from twincore.profile.values import plain
from twinshown.boards.view import boards_of, sheet_id
from twinshown.sheet.head import Head
from twinshown.sheet.schemas import ChosenShown, EntryShown, FactShown, JobSheet, JobShown, SkippedShown, VoidShown
from twinshown.sheet.step_lines import steps_of
from twinshown.words.entries import entry_words


def sheet_shown(case: Case, head: Head) -> JobSheet:
    """A job's sheet."""
    state = case.state
    board = state["board"]
    follows = {
        "step": step_in_hand(state),
        "opened_at": head.opened_at,
        "opened_by": head.opened_by,
        "closed_at": head.closed_at,
        "original_board": head.original,
        "replacement_board": head.replacement,
        "known_facts": {n: FactShown(value=plain(f.value), source=f.source) for n, f in facts_of(case).items()},
        "chosen": _chosen(state),
        "uncleared": uncleared_causes(state),
        "steps": steps_of(state, head.closed_at is not None),
        "entry_count": case.entry_count,
        "run_count": len(state["runs"]),
        "origin": head.origin,
        "together": boards_of(case, head.id),
        "void": [
            VoidShown(
                number=each.number,
                target=each.target,
                expected=each.expected,
                here=board_of(each.target, board) == each.board,
            )
            for each in head.void
        ],
        "skipped": [SkippedShown(**each) for each in skipped(case)],
    }
    return JobShown.model_validate({**state, **_line(case, head), **follows})


def _chosen(state: State) -> ChosenShown | None:
    choice = state["choice"]
    if choice is None:
        return None
    return ChosenShown(verdict=choice["verdict"], by=choice["by"], reason=choice["reason"])


def _line(case: Case, head: Head) -> dict[str, Any]:
    state = case.state
    return {
        "id": sheet_id(head.id, state["board"]),
        "code": head.code,
        "machine": head.machine,
        "complaint": head.complaint,
        "original": state["original"],
        "replacement": state["replacement"],
        "more_boards": len(state["boards"]),
        "changed_at": head.changed_at,
        "closed": head.closed_at is not None,
    }


def entry_shown(node: Mapping[str, Any], id: UUID, at: datetime, case: Case) -> EntryShown:
    """An entry of the history, from what is chained of it."""
    state = case.state
    of_all = not several(state) or speaks_of_all(node["target"])
    board = node.get("board", FIRST)
    of_board = next((each for each in case.boards if each.state["board"] == board), case)
    return EntryShown(
        id=id, number=node["number"], at=at, by=node["by"], board="" if of_all else title_of(state, board),
        target=node["target"], before=node["before"], after=node["after"],
        words=entry_words(of_board, node["target"], node["before"], node["after"]), reason=node["reason"],
        read_how=node["read_how"],
    )  # fmt: skip
