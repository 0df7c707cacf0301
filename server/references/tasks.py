"""Background tasks of cross-references."""

from uuid import UUID

from django.utils import timezone
from procrastinate.contrib.django import app

from references import contradicting, importing


@app.task(queue="imports", pass_context=False)
def import_statements(import_id: str) -> None:
    """Import a file that was sent."""
    importing.run_import(UUID(import_id), timezone.now())


@app.task(queue="imports", queueing_lock="contradictions")
def look_for_contradictions() -> None:
    """Find every contradiction anew."""
    contradicting.find_again()
