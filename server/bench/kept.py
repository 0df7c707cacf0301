"""Answers that are kept: first in this process, then in the database for every worker.

A key names everything that an answer hangs on, the core's own source included: an answer cannot go stale.
"""

from collections.abc import Callable, Iterable
from hashlib import sha256
from pathlib import Path
from typing import TypeVar

from django.core.cache import cache, caches

import twincore

Answer = TypeVar("Answer")


def _fingerprint() -> str:
    """One word that changes when the core does."""
    digest = sha256()
    for path in sorted(Path(next(iter(twincore.__path__))).rglob("*.py")):
        digest.update(path.read_bytes())
    return digest.hexdigest()[:12]


CORE = _fingerprint()


def kept(key: str, work: Callable[[], Answer]) -> Answer:
    """The answer kept under a key, or a new one that is kept from now on."""
    full = f"{CORE}-{key}"
    found: Answer | None = cache.get(full)
    if found is None:
        found = caches["answers"].get(full)
        if found is None:
            found = work()
            caches["answers"].set(full, found, timeout=None)
        cache.set(full, found, timeout=None)
    return found


def fetch(keys: Iterable[str]) -> None:
    """Bring the answers of many keys into this process with one query."""
    wanted = [f"{CORE}-{key}" for key in keys]
    missing = [key for key in wanted if cache.get(key) is None]
    if missing:
        cache.set_many(caches["answers"].get_many(missing), timeout=None)
