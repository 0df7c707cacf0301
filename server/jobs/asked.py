"""The job that a request asks for, as far as it must have come."""

from django.http import HttpRequest

from jobs import queries
from jobs.models import Job
from jobs.sheets import SheetId
from people.access import person_of
from twinshown.sheet import needs


def job_of(request: HttpRequest, job_id: SheetId) -> Job:
    """A job of the person's depot."""
    return queries.job(person_of(request), job_id)


def job_with_original(request: HttpRequest, job_id: SheetId) -> Job:
    """A job whose original is known."""
    job = job_of(request, job_id)
    needs.original_known(job.state)
    return job


def job_with_both(request: HttpRequest, job_id: SheetId) -> Job:
    """A job whose boards are both chosen."""
    job = job_of(request, job_id)
    needs.both_known(job.state)
    return job


def ending_job(request: HttpRequest, job_id: SheetId) -> Job:
    """A job that is proved and handed over: its plan is confirmed, or its board was cleared."""
    job = job_of(request, job_id)
    needs.ending(job.state)
    return job


def planned_job(request: HttpRequest, job_id: SheetId) -> Job:
    """A job whose plan is confirmed: before that there is nothing to fit, to prove or to hand over."""
    job = job_of(request, job_id)
    needs.planned(job.state)
    return job
