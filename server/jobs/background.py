"""What a job has done in the background, by the task's name: whoever asks need not know what it takes."""

from contextlib import suppress
from uuid import UUID

from django.db import transaction
from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued

SECOND_CHECK = "second_check"


def ask_second_check(job: UUID) -> None:
    """Have the verdicts of a job checked by a second program; asked twice, it is done once."""
    # that it waits already must not undo what the transaction did so far
    with suppress(AlreadyEnqueued), transaction.atomic():
        app.configure_task(SECOND_CHECK, queue="checks", queueing_lock=f"{SECOND_CHECK} {job}").defer(job_id=str(job))
