"""A job in one zip: its document, the profiles it rests on, its pictures, and a list of them all with digests.

The zip comes from outside: names, counts and sizes are checked before anything is unpacked, and nothing touches a disk.
"""

import json
import zipfile
import zlib
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from hashlib import sha256
from io import BytesIO
from typing import Any, BinaryIO

from twincore.chain.bounds import (
    LARGEST_FILE,
    LARGEST_FOLDED,
    LARGEST_PACKAGE,
    LARGEST_PLAIN,
    LARGEST_RECORD,
    MOST_FILES,
    MOST_VALUES,
)
from twincore.errors import DocumentError, Fault
from twincore.profile import open_document

MANIFEST = "contents.json"
DOCUMENTS = ("family.json", "original.board.json", "replacement.board.json")
"""The profiles that a job rests on; those of its further boards stand in `boards/2` and so on."""
EPOCH = (1980, 1, 1, 0, 0, 0)
"""The date that every file in a package bears, so that the same job gives the same bytes."""


@dataclass(frozen=True, slots=True)
class PackageFile:
    """One file of a package: its name there, and its bytes."""

    name: str
    data: bytes


@dataclass(frozen=True, slots=True)
class Package:
    """An opened package: the job's document, and every other file by name. `faults` tell where its list of contents does not agree.

    Files are read from the package as they are asked for, one at a time: it has to stay open as long.
    """

    job: dict[str, Any]
    files: Mapping[str, bytes]
    faults: tuple[Fault, ...]

    @property
    def head(self) -> str:
        """The digest of the last entry; empty for a job without entries."""
        return self.job["entries"][-1]["digest"] if self.job["entries"] else ""


def write_package(files: Iterable[PackageFile], out: BinaryIO) -> None:
    """Write a package of these files, one after another; one of them is `job.json`. The same files give the same bytes."""
    listed = []
    with zipfile.ZipFile(out, "w") as packed:
        for file in files:
            listed.append({"name": file.name, "bytes": len(file.data), "sha256": sha256(file.data).hexdigest()})
            _add(packed, file)
        manifest = {"format": "worthy-twin/package", "version": 1, "files": listed}
        _add(packed, PackageFile(MANIFEST, json.dumps(manifest, indent=1).encode() + b"\n"))


def _add(packed: zipfile.ZipFile, file: PackageFile) -> None:
    how = zipfile.ZIP_DEFLATED if file.name.endswith(".json") else zipfile.ZIP_STORED
    packed.writestr(zipfile.ZipInfo(file.name, EPOCH), file.data, how)


def open_package(data: bytes | BinaryIO) -> Package:
    """Read a package and hold its files against its list of contents; what does not agree stands in `faults`.

    Whether the record itself is as it was written is another question (`job.record_faults`).

    Raises DocumentError where it is no package, or a file in it is none of the published formats.
    """
    files = _Packed(data)
    try:
        faults = _against_manifest(files)
        record = files.get("job.json")
    except UNREADABLE as error:
        raise _none(error) from error
    if record is None:
        raise DocumentError([Fault("job.json", "expected the job's document in the package")])
    job = open_record(record)
    plain_job = json.loads(record.decode("utf-8-sig"))
    return Package({**plain_job, "format": job["format"]}, files, tuple(faults))


def open_record(data: bytes) -> dict[str, Any]:
    """A job's document, numbers in it exact. Raises DocumentError."""
    return open_document(data, "job", LARGEST_RECORD, MOST_VALUES).root


UNREADABLE = (zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError, OSError, ValueError, zlib.error)
"""What reading a damaged zip may raise."""


def _none(error: Exception) -> DocumentError:
    return DocumentError([Fault("", f"expected a package of a job (a zip): {error}")])


class _Packed(Mapping[str, bytes]):
    """The files of a zip by name, their number, names and sizes checked before any of them is unpacked."""

    def __init__(self, data: bytes | BinaryIO) -> None:
        try:
            self._zip = zipfile.ZipFile(BytesIO(data) if isinstance(data, bytes) else data)
        except UNREADABLE as error:
            raise _none(error) from error
        listed = self._zip.infolist()
        if len(listed) > MOST_FILES or sum(each.file_size for each in listed) > LARGEST_PACKAGE:
            raise DocumentError(
                [Fault("", f"expected at most {MOST_FILES} files and {LARGEST_PACKAGE // 1_000_000} MB")]
            )
        self._listed = {each.filename: each for each in listed}
        if len(self._listed) != len(listed):
            raise DocumentError([Fault("", "expected every name once")])

    def __contains__(self, name: object) -> bool:
        return name in self._listed

    def __iter__(self) -> Iterator[str]:
        return iter(self._listed)

    def __len__(self) -> int:
        return len(self._listed)

    def __getitem__(self, name: str) -> bytes:
        each = self._listed[name]
        if each.file_size > LARGEST_FILE:
            raise DocumentError([Fault(name, f"expected at most {LARGEST_FILE:,} bytes")])
        if each.file_size > LARGEST_FOLDED * max(each.compress_size, 1) and each.file_size > LARGEST_PLAIN:
            raise DocumentError([Fault(name, f"expected a file that is folded to no less than 1/{LARGEST_FOLDED}")])
        with self._zip.open(each) as file:
            # the size that a zip states may be a lie: read one byte more at most
            found = file.read(LARGEST_FILE + 1)
        if len(found) > LARGEST_FILE:
            raise DocumentError([Fault(name, f"expected at most {LARGEST_FILE:,} bytes")])
        return found


def _against_manifest(files: Mapping[str, bytes]) -> list[Fault]:
    if MANIFEST not in files:
        raise DocumentError([Fault(MANIFEST, "expected the list of what is in the package")])
    root = open_document(files[MANIFEST], "package").root
    listed = {each["name"]: each for each in root["files"]}
    faults = [Fault(name, "expected in the package; it is not there") for name in listed if name not in files]
    for name in files:
        if name == MANIFEST:
            continue
        if name not in listed:
            faults.append(Fault(name, "expected nothing that the list of contents does not name"))
        elif (sha256(files[name]).hexdigest(), len(files[name])) != (listed[name]["sha256"], listed[name]["bytes"]):
            faults.append(
                Fault(name, "expected the bytes that the list of contents has a digest of; the file was changed")
            )
    if not faults and len(listed) != len(root["files"]):
        faults.append(Fault(MANIFEST, "expected every file once"))
    if "notes" in root or any("notes" in each for each in root["files"]):
        faults.append(Fault(f"{MANIFEST}.notes", "expected nothing but the list of files"))
    return faults
