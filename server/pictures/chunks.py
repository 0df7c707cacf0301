"""Pictures on their way in chunks, so that a cut costs one chunk: what is there of each, until it is whole.

The core protocol and the creation extension of tus 1.0.0 (https://tus.io/protocols/resumable-upload); the client names the
file, so that it finds it again whatever it did not hear.
"""

import fcntl
import os
from datetime import datetime, timedelta
from pathlib import Path
from uuid import UUID

from django.conf import settings

from people.models import Person
from pictures.files import MOST_BYTES
from twinshown.refusals import Changed, Faulty, NotThere, Refused

MOST_BEGUN = 30
"""Pictures of one person that are on their way at once."""
STAYS = timedelta(days=3)
"""For how long one that was begun waits for its rest."""


class Chunks:
    """One picture of somebody's on its way to a job."""

    def __init__(self, person: Person, job: UUID, picture: UUID) -> None:
        self.folder: Path = settings.UPLOADS / "chunks" / str(person.pk)
        self.name = f"{job}.{picture}"

    def begin(self, length: int, now: datetime) -> None:
        """Make room for a picture of so many bytes; one that is begun goes on. Raises Faulty, Refused."""
        if not 0 < length <= MOST_BYTES:
            raise Faulty(f"Upload-Length: expected 1 to {MOST_BYTES} bytes.")
        if self._there():
            return
        self.folder.mkdir(parents=True, exist_ok=True)
        begun = list(self.folder.iterdir())
        old = [each for each in begun if each.stat().st_mtime < (now - STAYS).timestamp()]
        for each in old:
            each.unlink(missing_ok=True)
        if len(begun) - len(old) >= MOST_BEGUN:
            raise Refused(
                f"At most {MOST_BEGUN} pictures of one person are sent at once. Send these to their end first."
            )
        (self.folder / f"{self.name}.{length}").touch()

    def state(self) -> tuple[int, int]:
        """How many bytes are there, and how many there will be. Raises NotThere."""
        path = self._path()
        return path.stat().st_size, _length(path)

    def add(self, offset: int, data: bytes) -> int:
        """Add a chunk where it belongs; how many bytes are there then. Raises NotThere, Changed, Faulty."""
        path = self._path()
        with path.open("ab") as file:
            # one writes at a time: a chunk that was sent twice finds the other's end
            fcntl.flock(file, fcntl.LOCK_EX)
            there = os.fstat(file.fileno()).st_size
            if offset != there:
                raise Changed(f"Upload-Offset: expected {there}, found {offset}. Ask how far it is.")
            if there + len(data) > _length(path):
                raise Faulty(f"Expected at most {_length(path) - there} bytes more.")
            file.write(data)
        return there + len(data)

    def whole(self) -> bytes:
        """The picture, once its last chunk is there."""
        return self._path().read_bytes()

    def end(self) -> None:
        """Keep nothing of it any more."""
        if path := self._there():
            path.unlink(missing_ok=True)

    def _path(self) -> Path:
        if path := self._there():
            return path
        raise NotThere("Nothing of this picture is there. Begin it anew.")

    def _there(self) -> Path | None:
        return next(self.folder.glob(f"{self.name}.*"), None)


def _length(path: Path) -> int:
    return int(path.name.rpartition(".")[2])
