"""Background tasks of jobs."""

from uuid import UUID

from django.utils import timezone
from procrastinate.contrib.django import app

from jobs import kept_answers
from jobs.background import SECOND_CHECK
from jobs.models import Job
from jobs.papers.second import check_all
from jobs.queries import as_read


@app.periodic(cron="17 3 * * *")
@app.task(queue="tidying", queueing_lock="tidying")
def forget_old_answers(timestamp: int) -> None:
    """Forget kept answers that nobody asked for in a week."""
    kept_answers.forget_old(timezone.now())


@app.task(queue="checks", name=SECOND_CHECK)
def check_again(job_id: str) -> None:
    """Have the verdicts of a job checked by a second program, and keep what it says."""
    job = Job.objects.select_related("depot").filter(pk=UUID(job_id)).first()
    if job is not None:
        check_all(as_read(job))
