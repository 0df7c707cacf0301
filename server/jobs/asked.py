"""The job that a request asks for, as far as it must have come."""

from django.http import HttpRequest

from config.errors import Refused
from jobs import queries
from jobs.models import Job
from jobs.sheets import SheetId
from people.access import person_of
from twincore.job import cleared, done


def job_of(request: HttpRequest, job_id: SheetId) -> Job:
    """A job of the person's depot."""
    return queries.job(person_of(request), job_id)


def job_with_original(request: HttpRequest, job_id: SheetId) -> Job:
    """A job whose original is known."""
    job = job_of(request, job_id)
    if job.original_revision_id is None:
        raise Refused("Find out first which board is to be replaced.")
    return job


def job_with_both(request: HttpRequest, job_id: SheetId) -> Job:
    """A job whose boards are both chosen."""
    job = job_with_original(request, job_id)
    if job.replacement_revision_id is None:
        raise Refused("Choose the replacement first.")
    return job


def ending_job(request: HttpRequest, job_id: SheetId) -> Job:
    """A job that is proved and handed over: its plan is confirmed, or its board was cleared."""
    job = job_of(request, job_id)
    return job if cleared(job.state) else _planned(job)


def planned_job(request: HttpRequest, job_id: SheetId) -> Job:
    """A job whose plan is confirmed: before that there is nothing to fit, to prove or to hand over."""
    return _planned(job_of(request, job_id))


def _planned(job: Job) -> Job:
    if job.replacement_revision_id is None or not done(job.state, "carry_over"):
        raise Refused("Confirm the plan of carrying over first.")
    return job
