"""Answers that are kept: first in this process, then in the database for every worker.

A key names everything that an answer hangs on, the source that shapes it included, from the core up: an answer cannot go stale.
"""

from collections.abc import Callable, Iterable, Mapping
from hashlib import sha256
from pathlib import Path
from typing import Any, TypeVar

from django.core.cache import cache, caches

import twincore
import twinshown

Answer = TypeVar("Answer")


SHAPING = (
    Path(next(iter(twincore.__path__))),
    Path(next(iter(twinshown.__path__))),
    Path(__file__).resolve().parents[1],
)
"""The folders whose source shapes answers: the core, what pages show, and every app of the server."""
NOT_SHAPING = {"tests", "migrations", "static_root", "__pycache__"}


def fingerprint_of(folders: Iterable[Path]) -> str:
    """One word that changes when any source file or data file in these folders does."""
    digest = sha256()
    for folder in folders:
        for path in sorted(folder.rglob("*")):
            inside = path.relative_to(folder)
            if path.suffix in (".py", ".json") and not NOT_SHAPING.intersection(inside.parts):
                digest.update(str(inside).encode() + b"\0" + path.read_bytes() + b"\0")
    return digest.hexdigest()[:12]


SOURCE = fingerprint_of(SHAPING)


def kept(key: str, work: Callable[[], Answer]) -> Answer:
    """The answer kept under a key, or a new one that is kept from now on."""
    full = f"{SOURCE}-{key}"
    found: Answer | None = cache.get(full)
    if found is None:
        found = caches["answers"].get(full)
        if found is None:
            found = work()
            caches["answers"].set(full, found, timeout=None)
        cache.set(full, found, timeout=None)
    return found


def known(keys: Iterable[str]) -> dict[str, Any]:
    """What is kept under many keys, with one query for what this process does not have."""
    wanted = {f"{SOURCE}-{key}": key for key in keys}
    found = cache.get_many(wanted)
    missing = [key for key in wanted if key not in found]
    if missing:
        fetched = caches["answers"].get_many(missing)
        cache.set_many(fetched, timeout=None)
        found |= fetched
    return {wanted[key]: answer for key, answer in found.items()}


def keep_all(answers: Mapping[str, Any]) -> None:
    """Keep many answers, written at once."""
    full = {f"{SOURCE}-{key}": answer for key, answer in answers.items()}
    caches["answers"].set_many(full, timeout=None)
    cache.set_many(full, timeout=None)
