"""Uploaded files and reports of refused rows, kept beside the database while they are needed."""

from collections.abc import Iterable
from pathlib import Path
from uuid import UUID

from django.conf import settings


def upload_path(id: UUID) -> Path:
    """Where the file of an import lies."""
    return _folder() / f"{id}.upload"


def report_path(id: UUID) -> Path:
    """Where the refused rows of an import lie."""
    return _folder() / f"{id}.refused.csv"


def keep_upload(id: UUID, chunks: Iterable[bytes], most: int) -> int | None:
    """Write a file as it comes in; its size, or None where it is too large (then nothing is kept)."""
    path = upload_path(id)
    path.parent.mkdir(parents=True, exist_ok=True)
    size = 0
    with path.open("wb") as file:
        for chunk in chunks:
            size += len(chunk)
            if size > most:
                break
            file.write(chunk)
    if size > most:
        path.unlink()
        return None
    return size


def _folder() -> Path:
    folder: Path = settings.UPLOADS
    return folder
