"""What an entry says besides its value."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from twincore.job.case import Case


@dataclass(frozen=True, slots=True)
class Given:
    """Who says it and when, why, and how it was read."""

    by: str
    now: datetime
    reason: str = ""
    read_how: str = ""
    person_id: int = 0
    """Tells persons of one name apart; means nothing elsewhere."""


Check = Callable[[Case, str, Any, Given], Any]
"""A target's own rule: from a value in its declared form, what is said. Raises WrongValue or Refusal."""
Captured = Callable[[Case, str, Any], dict[str, Any] | None]
"""From a target's name and its value as it is kept: what its entry brings along from data that no entry holds."""
