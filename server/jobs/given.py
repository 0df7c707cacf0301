"""What an entry says besides its value."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from typing import TYPE_CHECKING, Any

from people.models import Person

if TYPE_CHECKING:
    from jobs.models import Job


@dataclass(frozen=True, slots=True)
class Given:
    """Who says it and when, why, and how it was read."""

    person: Person
    now: datetime
    reason: str = ""
    read_how: str = ""


Check = Callable[["Job", str, Any, Given], Any]
"""A target's own rule: from a value in its declared form, what is said. Raises Faulty or Refused."""
