"""Heavy packages, loaded when they are first used: most questions need none of them, and some places have none."""

from functools import cache
from importlib import import_module
from typing import Any

from twincore.errors import AbsentError


@cache
def load(name: str) -> Any:
    """A module by its name, of a heavy package or of ours that stands on one. Raises AbsentError where that is not installed."""
    try:
        return import_module(name)
    except ImportError as error:
        raise AbsentError((error.name or name).partition(".")[0]) from error
