"""Jobs over HTTP."""

from typing import Any

from django.http import HttpRequest
from django.utils import timezone
from ninja import Query, Router

from bench import comparison_view, playing
from bench.scenarios import checked_scenario
from bench.schemas import CodeToRead, ComparisonShown, PlayShown, ScenarioGiven
from catalogue.api import board_shown
from catalogue.models import BoardRevision
from catalogue.queries import joined_to
from catalogue.schemas import BoardShown
from config.errors import Refused
from config.paging import Page, Paging, page_of, paged
from jobs import actions, queries
from jobs.boards.view import boards_of
from jobs.cases import case_of
from jobs.kept_answers import keep_sheet_of
from jobs.models import Entry, Job
from jobs.schemas import (
    BoardRef,
    EntryGiven,
    EntryShown,
    FactShown,
    JobLine,
    JobSearch,
    JobSheet,
    JobShown,
    NewJob,
    SkippedShown,
    VoidShown,
)
from jobs.sheets import SheetId, asked_for, id_of, sheet
from jobs.step_lines import steps_of
from people.access import person_of
from twincore.job import State, Step, names_of, several, step_in_hand, title_of, uncleared_causes
from twincore.job.boards import board_of, speaks_of_all
from twincore.job.comparison import comparison_of
from twincore.job.facts import codes_to_read, facts_of, told_of_plate
from twincore.job.holds import skipped
from twincore.profile.record import UNREADABLE
from twincore.profile.values import plain

router = Router(tags=["jobs"])


def _line(job: Job, original: str | None, replacement: str | None, beside: int) -> dict[str, Any]:
    return {
        "id": id_of(job),
        "code": job.code,
        "machine": job.machine,
        "complaint": job.complaint,
        "step": job.step,
        "original": original,
        "replacement": replacement,
        "more_boards": beside,
        "changed_at": job.changed_at,
        "closed": job.closed_at is not None,
    }


def _shown(job: Job) -> JobSheet:
    case = case_of(job)
    state = case.state
    follows = {
        "step": step_in_hand(state),
        "opened_at": job.opened_at,
        "opened_by": job.opened_by.shown_name,
        "closed_at": job.closed_at,
        "original_board": _ref(job.original_revision),
        "replacement_board": _ref(job.replacement_revision),
        "known_facts": {n: FactShown(value=plain(f.value), source=f.source) for n, f in facts_of(case).items()},
        "uncleared": uncleared_causes(state),
        "steps": steps_of(job),
        "entry_count": job.entry_count,
        "run_count": len(state["runs"]),
        "origin": job.origin,
        "together": boards_of(job),
        "void": [
            VoidShown(
                number=each.number,
                target=each.target,
                expected=each.expected,
                here=board_of(each.target, job.board) == each.board,
            )
            for each in job.void
        ],
        "skipped": [SkippedShown(**each) for each in skipped(case)],
    }
    line = _line(job, state["original"], state["replacement"], len(state["boards"]))
    return JobShown.model_validate({**state, **line, **follows})


def _ref(revision: BoardRevision | None) -> BoardRef | None:
    if revision is None:
        return None
    board = revision.board
    now = board.current
    return BoardRef(
        part_number=board.part_number, title=board.title, maker=board.maker, revision=revision.number,
        newer=now.number if now is not None and now.pk != revision.pk else None, joined=joined_to(board),
    )  # fmt: skip


def _entry_shown(entry: Entry, state: State) -> EntryShown:
    of_all = not several(state) or speaks_of_all(entry.target)
    return EntryShown(
        id=entry.pk,
        number=entry.number,
        at=entry.at,
        by=entry.by_name,
        board="" if of_all else title_of(state, entry.board),
        target=entry.target,
        before=entry.before,
        after=entry.after,
        reason=entry.reason,
        read_how=entry.read_how,
    )


@router.get("/jobs", response=Page[JobLine])
def list_jobs(request: HttpRequest, search: Query[JobSearch]) -> dict[str, Any]:
    """The depot's jobs, last changed first."""
    person = person_of(request)
    if search.search:
        return paged(queries.jobs(person, search.show, search.search), search, _listed)
    rows, total = queries.all_jobs(person, search.show, search.start, search.start + search.size)
    return page_of([_listed(row) for row in rows], total, search)


def _listed(job: Job) -> JobLine:
    """A job in a list, of whatever shape its stored state is."""
    parts: dict[str, Any] = job.parts  # type: ignore[attr-defined]
    original, replacement = (
        each if isinstance(each, str) else None for each in (parts["original"], parts["replacement"])
    )
    beside = parts["boards"] if isinstance(parts["boards"], dict) else {}
    return JobLine(**_line(job, original, replacement, len(beside)))


@router.post("/jobs", response=JobShown)
def open_job(request: HttpRequest, given: NewJob) -> JobSheet:
    """Open a job."""
    person = person_of(request)
    job = actions.open_job(person, given.id, given.machine, given.complaint, timezone.now())
    return _shown(queries.job(person, job.pk))


@router.get("/steps-done", response=list[Step])
def list_steps_done(request: HttpRequest) -> list[Step]:
    """The steps that whoever is signed in has ended before, in any job."""
    return queries.steps_done(person_of(request))


@router.get("/jobs/{job_id}", response=JobShown)
def show_job(request: HttpRequest, job_id: SheetId) -> JobSheet:
    """A job's sheet."""
    return _shown(queries.job(person_of(request), job_id))


@router.post("/jobs/{job_id}/entries", response=JobShown)
def add_entry(request: HttpRequest, job_id: SheetId, given: EntryGiven) -> JobSheet:
    """Add one entry; sending the same one again changes nothing."""
    person = person_of(request)
    job, board = asked_for(job_id)
    kept = actions.add_entry(person, job, actions.NewEntry(**given.dict(), board=board), timezone.now())
    if board not in names_of(kept.state):
        # a board that was taken out of the job has no sheet any more
        return _shown(kept)
    keep_sheet_of(request, job, person.depot_id)
    return _shown(sheet(kept, board))


@router.get("/jobs/{job_id}/entries", response=Page[EntryShown])
def list_entries(request: HttpRequest, job_id: SheetId, paging: Query[Paging]) -> dict[str, Any]:
    """A job's history, newest first."""
    job = queries.job(person_of(request), job_id)
    return paged(queries.entries(job), paging, lambda entry: _entry_shown(entry, job.state))


@router.get("/jobs/{job_id}/boards/{side}", response=BoardShown)
def job_board(request: HttpRequest, job_id: SheetId, side: str) -> BoardShown:
    """The original or the replacement in the revision that the job keeps."""
    job = queries.job(person_of(request), job_id)
    revision = {"original": job.original_revision, "replacement": job.replacement_revision}.get(side)
    if revision is None:
        raise Refused(f"This job has no {side} yet.")
    return board_shown(revision.board, revision, job.depot_id)


@router.get("/jobs/{job_id}/comparison", response=ComparisonShown)
def show_comparison(request: HttpRequest, job_id: SheetId) -> ComparisonShown:
    """The job's boards side by side: carry-over, copying, twin check."""
    job = _with_both_boards(request, job_id)
    case = case_of(job)
    shown = comparison_view.compare(comparison_of(case))
    shown.codes_to_read = [
        CodeToRead(
            element=node["id"], title=node.get("title", node["id"]), fact=node["fact"], places=node["places"],
            plate=told_of_plate(case, node["fact"]),
        )
        for node in codes_to_read(case)
    ]  # fmt: skip
    if shown.plan is not None:
        shown.plan = {**shown.plan, **{each.element: UNREADABLE * each.places for each in shown.codes_to_read}}
    # what the depot proposes where functions would be followed; a school that says nothing here is not proposed
    policy = job.depot.school_when_not if shown.disagreements else job.depot.school_when_agreed
    if shown.proposed == "functions" and any(
        school.id == policy and school.positions is not None and school.counts for school in shown.schools
    ):
        shown.proposed = policy
    return shown


@router.post("/jobs/{job_id}/play", response=PlayShown)
def play(request: HttpRequest, job_id: SheetId, given: ScenarioGiven) -> PlayShown:
    """A scenario on the job's boards."""
    comparison = comparison_of(case_of(_with_both_boards(request, job_id)))
    return playing.play(comparison, checked_scenario(given, comparison.family))


def _with_both_boards(request: HttpRequest, job_id: SheetId) -> Job:
    job = queries.job(person_of(request), job_id)
    if job.original_revision_id is None or job.replacement_revision_id is None:
        raise Refused("Choose the original and the replacement first.")
    return job
