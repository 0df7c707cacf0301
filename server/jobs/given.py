"""What an entry says besides its value."""

from typing import Protocol


class Given(Protocol):
    """Why, and how it was read."""

    @property
    def reason(self) -> str:
        """Why."""

    @property
    def read_how(self) -> str:
        """How it was read."""
