"""What publishing a draft would change: against the revision in use, what was timed, and the jobs that are open."""

from typing import Any

from catalogue.models import Board
from catalogue.profiles import board_profile
from jobs.cases import case_of
from jobs.models import Job
from jobs.queries import jobs_with
from jobs.sheets import LEFT_OUT, id_of, sheets_of
from people.models import Person
from twincore.errors import TwinError
from twincore.job import current
from twincore.job.shared.traces import traces_of
from twincore.profile import Board as Profile
from twincore.profile import Family, Trace
from twincore.workshop import changes_between, findings, found_record, traces_against, value_text
from twinshown.comparison import wording
from workshop.drafting import documents_of, family_changed
from workshop.models import Draft
from workshop.schemas import ChangesShown, DraftTraced, ElementChangeShown, FunctionChangeShown, MovedShown
from workshop.wording import place_words

MOST_JOBS = 50


def changes_shown(draft: Draft, person: Person) -> ChangesShown:
    """Everything that publishing it changes. While it has faults only these are counted."""
    documents, board = documents_of(draft), draft.board
    assert board.current is not None  # a board with a draft has a revision
    faults = sum(each.weight == "fault" for each in findings(documents))
    base: dict[str, Any] = {
        "over": board.current.number, "version": draft.version, "faults": faults, "open_jobs": _open_jobs(board, person),
        "functions": [], "elements": [], "parts": [], "verdict": "", "counter_case": [], "traces": [], "nothing": False,
    }  # fmt: skip
    if faults:
        return ChangesShown(**base)
    old, new, family = board_profile(board.current.pk), documents.whole(), documents.kind()
    found = changes_between(old, new, family)
    if found.proof is not None:
        base["verdict"] = wording.verdict_words(found.proof, family, (old, new))
        if found.proof.counter_case:
            base["counter_case"] = wording.counter_case_words(found.proof.counter_case, family, old, new)
    return ChangesShown(**base | {
        "nothing": not found.any and not family_changed(draft),
        "functions": [_function(each, family) for each in found.functions if each.how != "same"],
        "elements": [ElementChangeShown(id=name, how=how) for name, how in found.elements if how != "same"],
        "parts": [place_words(["board", each]) for each in found.parts],
        "traces": _traced(board, old, new, family, person),
    })  # fmt: skip


def _function(change: Any, family: Family) -> FunctionChangeShown:
    definition = family.function(change.id)
    assert definition is not None  # changes are of the family's functions
    return FunctionChangeShown(
        id=change.id, title=definition.title, how=change.how, count=change.count,
        moved=[
            MovedShown(
                at=", ".join(f"{name} {value_text(value)}" for name, value in each.at.items()),
                was="means nothing" if each.was is None else wording.value_words(each.was, definition),
                becomes="means nothing" if each.becomes is None else wording.value_words(each.becomes, definition),
            )
            for each in change.moved
        ],
    )  # fmt: skip


def _open_jobs(board: Board, person: Person) -> list[str]:
    mine = jobs_with(board.part_number).filter(depot=person.depot, closed_at=None).select_related("depot")
    return [f"{each.code} {each.machine}" for each in mine[:MOST_JOBS]]


def _traced(board: Board, old: Profile, new: Profile, family: Family, person: Person) -> list[DraftTraced]:
    """What the depot's jobs timed of this board, on the revision in use and on the draft."""
    rows = jobs_with(board.part_number).filter(depot=person.depot).exclude(state__traces={}, state__boards={})
    timed: dict[str, tuple[str, Trace, dict[str, Any]]] = {}
    for job in rows.select_related("depot", "family_revision").defer(LEFT_OUT)[:MOST_JOBS]:
        job.state = current(job.state)
        for each in sheets_of(job):
            if each.state["original"] == board.part_number:
                timed |= _timed(each)
    after, before = (
        traces_against(
            each, family, {name: (trace, found_record(each, found)) for name, (_, trace, found) in timed.items()}
        )
        for each in (new, old)
    )
    return [
        DraftTraced(
            job=code, title=trace.scenario.title, agrees=_agrees(after[name]), before=_agrees(before[name])
        )
        for name, (code, trace, _) in timed.items()
    ]  # fmt: skip


def _timed(job: Job) -> dict[str, tuple[str, Trace, dict[str, Any]]]:
    """What was timed on one board of a job, with the job's number and how the board stood."""
    try:
        traces = traces_of(case_of(job))
    except TwinError:
        return {}
    return {f"{id_of(job)} {name}": (job.code, trace, job.state["found"]) for name, trace in traces.items()}


def _agrees(checked: Any) -> bool | None:
    return None if checked is None else bool(checked.agrees)
