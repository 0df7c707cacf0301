"""A profile's behaviour drafted from what the live original was seen to do, looked through by a parts lead, and loaded."""

import json
from datetime import datetime
from typing import Any

from catalogue.actions import Loaded, load_document
from jobs.cases import case_of
from jobs.models import Job
from people.access import require_parts_lead
from people.models import Person
from twincore.behaviour import check_trace, draft_behaviour, drafted_board
from twincore.carry_over import record_of
from twincore.errors import TwinError
from twincore.job.case import original_of
from twincore.job.shared.traces import traces_of
from twincore.profile import check_board_in_family
from twincore.profile.document import jsonable
from twinshown.refusals import Refused
from twinshown.steps.record.schemas import DraftShown


def draft_shown(person: Person, job: Job) -> DraftShown:
    """States and times proposed from every trace of the job, and which traces they make."""
    require_parts_lead(person)
    family, board = original_of(case_of(job))
    traces = traces_of(case_of(job))
    try:
        draft = draft_behaviour(board, family, list(traces.values()))
    except TwinError as error:
        raise Refused(f"Nothing can be drafted: {error}.") from error
    return DraftShown(behaviour=jsonable(draft.behaviour), made=dict(zip(traces, draft.made, strict=True)))


def draft_checked(person: Person, job: Job, behaviour: dict[str, Any]) -> DraftShown:
    """Which traces a draft makes as somebody edited it. Raises DocumentError with the places of what is wrong in it."""
    require_parts_lead(person)
    family, board = original_of(case_of(job))
    drafted = drafted_board(board, behaviour)
    check_board_in_family(drafted, family)
    record = record_of(board, job.state["found"])
    made = {}
    for name, trace in traces_of(case_of(job)).items():
        try:
            made[name] = check_trace(drafted, record, family, trace).agrees
        except TwinError:
            made[name] = False
    return DraftShown(behaviour=behaviour, made=made)


def load_draft(person: Person, job: Job, behaviour: dict[str, Any], now: datetime) -> Loaded:
    """Load the board with this behaviour as a new revision.

    Refuses a draft that does not make every trace there is, and one for a board whose behaviour somebody wrote down.
    """
    checked = draft_checked(person, job, behaviour)
    if not checked.made or not all(checked.made.values()):
        raise Refused(
            "The draft does not make every run that was timed. Edit it, or leave out a run that was mistaken."
        )
    board = original_of(case_of(job))[1]
    if board.behaviour is not None:
        raise Refused(
            f"How {board.part_number} behaves is written down already. Load its file anew where that is wrong."
        )
    document = {**jsonable(board.document), "behaviour": behaviour}
    return load_document(person, json.dumps(document, ensure_ascii=False, indent=1).encode(), now)
