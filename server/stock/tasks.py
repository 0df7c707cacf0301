"""Background tasks of van stock."""

from uuid import UUID

from django.utils import timezone
from procrastinate.contrib.django import app

from stock import planning


@app.task(queue="plans")
def work_out_plan(plan_id: str) -> None:
    """Work out a plan that was asked for."""
    planning.run_plan(UUID(plan_id), timezone.now)
