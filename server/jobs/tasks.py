"""Background tasks of jobs."""

from django.utils import timezone
from procrastinate.contrib.django import app

from jobs import kept_answers


@app.periodic(cron="17 3 * * *")
@app.task(queue="tidying", queueing_lock="tidying")
def forget_old_answers(timestamp: int) -> None:
    """Forget kept answers that nobody asked for in a week."""
    kept_answers.forget_old(timezone.now())
