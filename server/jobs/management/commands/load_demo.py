"""Load the demo world when the database is empty."""

from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand
from django.utils import timezone

from jobs.demo import load_demo_world


class Command(BaseCommand):
    """Load the demo world when the database is empty."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Run it."""
        load_demo_world(settings.ROOT / "demo", timezone.now(), self.stdout.write)
