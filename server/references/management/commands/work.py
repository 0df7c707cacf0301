"""Work on background tasks: imports, and questions to the parts desk."""

from typing import Any

from django.core.management import BaseCommand, call_command

from references.actions import take_up_again


class Command(BaseCommand):
    """Take up what a stopped worker left, then work until stopped."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        take_up_again()
        call_command("procrastinate", "worker", concurrency=2)
