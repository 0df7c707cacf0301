"""Load the demo world when the database is empty."""

from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand
from django.utils import timezone

from jobs.demo import load_demo_world
from people.models import Person
from workshop.demo import load_workshop


class Command(BaseCommand):
    """Load the demo world when the database is empty."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Run it."""
        if Person.objects.exists():
            return
        load_demo_world(settings.ROOT / "demo", timezone.now(), self.stdout.write)
        load_workshop(timezone.now(), self.stdout.write)
