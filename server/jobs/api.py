"""Jobs over HTTP."""

from typing import Any

from django.http import HttpRequest
from django.utils import timezone
from ninja import Query, Router

from catalogue.api import board_shown
from catalogue.schemas import BoardShown
from config.paging import paged
from jobs import actions, queries
from jobs.cases import case_of
from jobs.heads import head_of, rules_of
from jobs.kept_answers import keep_sheet_of
from jobs.ledger.chaining import entry_node
from jobs.models import Entry, Job
from jobs.schemas import JobSearch, NewJob
from jobs.sheets import SheetId, asked_for, id_of, sheet
from people.access import person_of
from twincore.job import Step, names_of
from twincore.job.case import Case
from twincore.job.shared.comparison import comparison_of
from twinshown.comparison import playing
from twinshown.comparison.scenarios import checked_scenario
from twinshown.comparison.schemas import ComparisonShown, PlayShown, ScenarioGiven
from twinshown.entering.accepting import NewEntry
from twinshown.paging import Page, Paging, page_of
from twinshown.refusals import Refused
from twinshown.sheet import needs
from twinshown.sheet.compared import comparison_shown
from twinshown.sheet.schemas import (
    EntriesGiven,
    EntriesTaken,
    EntryGiven,
    EntryShown,
    JobLine,
    JobSheet,
    JobShown,
    SheetAfter,
)
from twinshown.sheet.view import entry_shown, sheet_shown
from twinshown.words.entries import changes_words
from twinshown.words.schemas import ChangesGiven, EntryWords

router = Router(tags=["jobs"])


def _shown(job: Job) -> JobSheet:
    return sheet_shown(case_of(job), head_of(job))


def _entry_shown(entry: Entry, case: Case) -> EntryShown:
    return entry_shown(entry_node(entry), entry.pk, entry.at, case)


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
    return JobLine(
        id=id_of(job), code=job.code, machine=job.machine, complaint=job.complaint, step=job.step, original=original,
        replacement=replacement, more_boards=len(beside), changed_at=job.changed_at, closed=job.closed_at is not None,
    )  # fmt: skip


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
    kept = actions.add_entry(person, job, NewEntry(**given.dict(), board=board), timezone.now())
    if board not in names_of(kept.state):
        # a board that was taken out of the job has no sheet any more
        return _shown(kept)
    keep_sheet_of(request, job, person.depot_id)
    return _shown(sheet(kept, board))


@router.post("/jobs/{job_id}/entries/waited", response=EntriesTaken)
def add_entries_that_waited(request: HttpRequest, job_id: SheetId, given: EntriesGiven) -> SheetAfter:
    """Add entries that waited on a device, each by itself and in their order, until the job does not take one."""
    person = person_of(request)
    job, board = asked_for(job_id)
    news = [NewEntry(**each.dict(), board=board) for each in given.entries]
    taken = actions.add_entries(person, job, news, timezone.now())
    kept = queries.job(person, job)
    return SheetAfter(taken=taken, sheet=_shown(sheet(kept, board) if board in names_of(kept.state) else kept))


@router.get("/jobs/{job_id}/entries", response=Page[EntryShown])
def list_entries(request: HttpRequest, job_id: SheetId, paging: Query[Paging]) -> dict[str, Any]:
    """A job's history, newest first."""
    job = queries.job(person_of(request), job_id)
    return paged(queries.entries(job), paging, lambda entry: _entry_shown(entry, case_of(job)))


@router.post("/jobs/{job_id}/entries/words", response=list[EntryWords])
def words_of_entries(request: HttpRequest, job_id: SheetId, given: ChangesGiven) -> list[EntryWords]:
    """What entries say, in words: those that wait on a device, and what was said meanwhile. Nothing is kept of them."""
    return changes_words(case_of(queries.job(person_of(request), job_id)), given)


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
    return comparison_shown(case_of(job), rules_of(job.depot))


@router.post("/jobs/{job_id}/play", response=PlayShown)
def play(request: HttpRequest, job_id: SheetId, given: ScenarioGiven) -> PlayShown:
    """A scenario on the job's boards."""
    comparison = comparison_of(case_of(_with_both_boards(request, job_id)))
    return playing.play(comparison, checked_scenario(given, comparison.family))


def _with_both_boards(request: HttpRequest, job_id: SheetId) -> Job:
    job = queries.job(person_of(request), job_id)
    needs.both_chosen(job.state)
    return job
