"""Uploaded files and reports of refused rows, kept beside the database while they are needed."""

from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from pathlib import Path
from uuid import UUID, uuid4

from django.conf import settings


def upload_path(id: UUID) -> Path:
    """Where the file of an import lies."""
    return _folder() / f"{id}.upload"


def report_path(id: UUID) -> Path:
    """Where the refused rows of an import lie."""
    return _folder() / f"{id}.refused.csv"


@contextmanager
def coming_in(chunks: Iterable[bytes], most: int) -> Iterator[tuple[Path, int]]:
    """A file as it comes in, under a name of its own, and its size; gone afterwards unless it was moved to where it is kept.

    Raises ValueError where it is larger than `most` bytes.
    """
    path = _folder() / f"{uuid4()}.part"
    path.parent.mkdir(parents=True, exist_ok=True)
    size = 0
    try:
        with path.open("wb") as file:
            for chunk in chunks:
                size += len(chunk)
                if size > most:
                    raise ValueError(f"more than {most} bytes")
                file.write(chunk)
        yield path, size
    finally:
        path.unlink(missing_ok=True)


def _folder() -> Path:
    folder: Path = settings.UPLOADS
    return folder
