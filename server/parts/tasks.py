"""Background tasks of the parts desk."""

import httpx
from django.utils import timezone
from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from parts import desk, keeping

RETRY = RetryStrategy(max_attempts=4, exponential_wait=2, retry_exceptions=[desk.DeskAway])


@app.task(queue="parts", retry=RETRY)
def ask_parts_desk(part_numbers: list[str]) -> None:
    """Ask about some parts; where the desk is away, again after 2, 4 and 8 seconds."""
    left = list(part_numbers)
    with httpx.Client(timeout=desk.TIME_OUT_S) as client:
        for name in part_numbers:
            try:
                keeping.keep_answer(name, desk.ask(name, client), timezone.now())
            except desk.DeskAway as error:
                keeping.keep_fault(left, str(error))
                raise
            left.remove(name)
