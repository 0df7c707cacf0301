"""What an entry says besides its value."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from twincore.job.case import Case


def said(text: str) -> str:
    """A text without blanks at its ends, where it says anything: a dot or a single letter does not, and is empty."""
    text = text.strip()
    return text if sum(each.isalnum() for each in text) >= LEAST_SAID else ""


@dataclass(frozen=True, slots=True)
class Given:
    """Who says it and when, why, and how it was read."""

    by: str
    now: datetime
    reason: str = ""
    read_how: str = ""
    person_id: int = 0
    """Tells persons of one name apart; means nothing elsewhere."""

    @property
    def why(self) -> str:
        """The reason, where it says anything: a dot or a single letter is none."""
        return said(self.reason)


LEAST_SAID = 2
"""Letters and digits that a reason has at least."""

Check = Callable[[Case, str, Any, Given], Any]
"""A target's own rule: from a value in its declared form, what is said. Raises WrongValue or Refusal."""
Captured = Callable[[Case, str, Any], dict[str, Any] | None]
"""From a target's name and its value as it is kept: what its entry brings along from data that no entry holds."""
