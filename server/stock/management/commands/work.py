"""Work on background tasks: imports, plans, and questions to the parts desk."""

from typing import Any

from django.core.management import BaseCommand, call_command

from references import actions as references
from stock import actions as stock


class Command(BaseCommand):
    """Take up what a stopped worker left, then work until stopped."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        references.take_up_again()
        stock.take_up_again()
        call_command("procrastinate", "worker", concurrency=2)
