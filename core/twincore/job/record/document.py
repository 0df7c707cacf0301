"""A job's record as one document, and whether a package holds it as it was written.

What the document says of a job is derived from its entries by one function, for whoever writes it and for whoever verifies it: so
nothing stands in it that an entry does not carry, and nothing can be forgotten.
"""

import json
from collections.abc import Iterator, Mapping, Sequence
from hashlib import sha256
from typing import Any, cast

from twincore.chain import DOCUMENTS, Package, canonical, chained, first_link, seal_of
from twincore.errors import DocumentError, Fault
from twincore.job.record.replay import partings, replay
from twincore.job.record.sealed import CLOSING, LATER, as_recorded, sealed_part
from twincore.job.rules.boards import names_of, turned
from twincore.job.rules.state import State, empty_state
from twincore.job.target import FIRST
from twincore.job.targets import TARGETS
from twincore.profile import open_document
from twincore.profile.document import jsonable

HEAD = ("number", "depot", "machine", "complaint", "opened")
"""What a job was opened as: under the first link of its chain."""
CHAIN = 2
"""The version of the chain whose first link carries the head."""
KEYS = ("id", "number", "at", "by", "target", "before", "after", "reason", "read_how", "attachment")
MOST_TOLD = 20
SIDES = ("family", "original", "replacement")
CERTIFICATE = "certificate.json"
"""What shows that a board and its replacement are alike; of a further board in that board's folder."""
Names = Mapping[str, str]
"""What each profile in a package is of: the kind of machine, or the part number, by the file's name."""


def record_of(
    id: str,
    head: Mapping[str, Any],
    entries: Sequence[Mapping[str, Any]],
    state: Mapping[str, Any],
    profiles: Names,
    pictures: Mapping[str, Mapping[str, Any]],
    head_in_chain: bool,
) -> dict[str, Any]:
    """The document of a job's record: what people entered, chained, and what it adds up to.

    `entries` carry their digests. `pictures` tell of a picture what entries of earlier versions do not: its size and its file.
    """
    opened = {name: head[name] for name in HEAD}
    end = closing_entry(entries)
    chain = {"chain": CHAIN, "start": first_link(id, opened)} if head_in_chain else {}
    family, original, replacement = (profiles.get(name) for name in DOCUMENTS)
    return {
        "format": "worthy-twin/job",
        "version": 1,
        **chain,
        "id": id,
        **opened,
        "closed_at": end["at"] if end else None,
        "family": family,
        "original": original and {"part_number": original, "positions": state.get("found")},
        "replacement": replacement and {"part_number": replacement, "positions": state.get("left")},
        "serial": state.get("serial"),
        "pictures": list(_pictures(entries, pictures)),
        "entry_count": len(entries),
        "entries": [dict(each) for each in entries],
        "state": as_recorded(state),
    }


def folder_of(board: str) -> str:
    """The folder of a board's files in a package; the first one's stand at its top."""
    return "" if board == FIRST else f"boards/{board}/"


def closing_entry(entries: Sequence[Mapping[str, Any]]) -> Mapping[str, Any] | None:
    """The entry that closed a job, which carries its seal."""
    return next((each for each in reversed(entries) if each["target"] in CLOSING and each.get("attachment")), None)


def _pictures(entries: Sequence[Mapping[str, Any]], known: Mapping[str, Mapping[str, Any]]) -> Iterator[dict[str, Any]]:
    """The pictures that entries name and that were not taken out again, in the order in which they came."""
    last: dict[str, Mapping[str, Any]] = {}
    for each in entries:
        kind, _, name = str(each["target"]).partition(".")
        if kind == "picture":
            last[name] = each
    for name, each in last.items():
        if each["after"] is None:
            continue
        about = {**known.get(name, {}), **(each.get("adds") or {})}
        yield {
            "id": name, "digest": each.get("attachment", ""), "width": about.get("width"), "height": about.get("height"),
            "caption": each["after"].get("caption", ""), "file": about.get("file"),
        }  # fmt: skip


# verifying -----------------------------------------------------------------------------------------------------------


def verify_package(package: Package, seal: str = "") -> dict[str, Any]:
    """Whether a package is as it was written; `seal` is the seal from the cabinet label, or its first digits.

    The answer has `intact`, the count of entries, the last digest, what is wrong and where, what no seal covers, and which entries
    came after the job was closed; with a seal the number of the entry that it belongs to, and how many came after it.
    """
    faults = record_faults(package)
    entries = package.job["entries"]
    wanted = seal.replace(" ", "").lower()
    answer: dict[str, Any] = {"job": package.job.get("number"), "entries": len(entries), "head": package.head}
    if wanted:
        found = [
            n
            for n, each in enumerate(entries, 1)
            if len(wanted) >= 8 and str(each.get("digest", "")).startswith(wanted)
        ]
        answer["sealed_at"] = found[0] if found else None
        answer["after_the_seal"] = len(entries) - found[0] if found else 0
        if not found:
            faults.append(
                Fault("seal", f"expected an entry whose digest begins with {wanted}; this is not that record")
            )
    if later := _after_closing(entries):
        answer["after_closing"] = later
    answer["not_under_the_seal"] = uncovered(package)
    return {
        "intact": not faults,
        **answer,
        "faults": [{"place": each.place, "expected": each.expected} for each in faults],
    }


def record_faults(package: Package) -> list[Fault]:
    """Everything in a package that is not as it was written, as far as its chain and its seal tell; see `uncovered`."""
    try:
        return _record_faults(package)[:MOST_TOLD]
    except (KeyError, TypeError, AttributeError, ValueError, IndexError) as error:
        return [Fault("", f"expected a record that can be read: {error!r}"[:200])]


def _record_faults(package: Package) -> list[Fault]:
    faults = list(package.faults)
    job = package.job
    entries: list[dict[str, Any]] = job["entries"]
    faults += _broken_links(job, entries)
    if faults:
        return faults
    try:
        state = _state_of(job, entries)
        profiles, wrong = _profiles(package, entries, state)
    except DocumentError as error:
        return list(error.faults)
    faults += wrong
    known = {} if "chain" in job else {each["id"]: each for each in job.get("pictures", ())}
    written = [
        {name: each[name] for name in (*KEYS, "made", "adds", "board", "digest") if name in each} for each in entries
    ]
    expected = record_of(job["id"], job, written, state, profiles, known, "chain" in job)
    for side in ("original", "replacement") if "chain" not in job else ():
        if expected[side] and isinstance(job.get(side), dict) and "revision" in job[side]:
            expected[side]["revision"] = job[side]["revision"]
    faults += _differences(jsonable(expected), job)
    faults += _files(package, expected)
    return faults + _seal_broken(package, entries)


def _broken_links(job: Mapping[str, Any], entries: Sequence[Mapping[str, Any]]) -> list[Fault]:
    """An entry whose digest does not follow from it and the one before, or that is not whole."""
    for name in ("id", *HEAD):
        if name not in job:
            return [Fault(name, f"expected the job's {name}")]
    if not all("digest" in each for each in entries):
        return [Fault("entries", "expected a digest with every entry")]
    head = {name: job[name] for name in HEAD} if "chain" in job else None
    for index, (entry, digest) in enumerate(zip(entries, chained(job["id"], entries, head), strict=True)):
        place = f"entries[{index}]"
        if entry.get("number") != index + 1:
            return [Fault(f"{place}.number", f"expected {index + 1}; an entry was taken out or moved")]
        if entry["digest"] != digest:
            return [Fault(place, f"expected the digest that entry {index + 1} was kept with; it was changed")]
        if missing := [name for name in KEYS if name not in entry]:
            return [Fault(f"{place}.{missing[0]}", "expected here; it was taken out")]
    return []


def _state_of(job: Mapping[str, Any], entries: Sequence[Mapping[str, Any]]) -> Mapping[str, Any]:
    """What the entries add up to. Of a chain of an earlier version, the record's own where its entries do not tell."""
    if "chain" in job:
        return dict(replay(entries).state)
    stored = job.get("state") or {}
    if faults := partings(entries, stored):
        raise DocumentError(faults)
    return dict(stored)


def _profiles(
    package: Package, entries: Sequence[Mapping[str, Any]], state: Mapping[str, Any]
) -> tuple[dict[str, str], list[Fault]]:
    """What each profile in the package is of, held against what the entries chose, and against the digests that they carry."""
    found: dict[str, str] = {}
    faults = []
    whole = cast(State, {**empty_state(), **state})
    boards = names_of(whole)
    for board in boards:
        part = turned(whole, board)
        carried = _carried(entries, board)
        for side, document in zip(SIDES, DOCUMENTS, strict=True):
            name = folder_of(board) + document
            chosen = part.get(side)
            data = package.files.get(name)
            if (chosen is None) != (data is None):
                told = (
                    f"expected the profile of {chosen}; it is not there" if data is None else "expected no such profile"
                )
                faults.append(Fault(name, told))
                continue
            if data is None:
                continue
            root = open_document(data, "family" if side == "family" else "board").root
            of = str(root["id" if side == "family" else "part_number"])
            if board == FIRST:
                found[name] = of
            if of != chosen and chosen not in root.get("also_marked", ()):
                faults.append(Fault(name, f"expected the profile of {chosen}, found that of {of}"))
            if carried is not None and carried.get(name) != sha256(data).hexdigest():
                faults.append(Fault(name, "expected the profile that the board was chosen with; it was changed"))
    return found, faults


def _carried(entries: Sequence[Mapping[str, Any]], board: str) -> Mapping[str, str] | None:
    """The digests of a board's profiles as the last entry that chose one of them carries them; None where none does."""
    return next(
        (
            each["adds"]["documents"]
            for each in reversed(entries)
            if each.get("board", FIRST) == board and (each.get("adds") or {}).get("documents") is not None
        ),
        None,
    )


def _files(package: Package, expected: Mapping[str, Any]) -> list[Fault]:
    """Files that are neither profiles nor pictures that an entry names, and pictures that are not the ones it was made with."""
    pictures = {each["file"]: each for each in expected["pictures"]}
    boards = names_of(cast(State, {**empty_state(), **expected["state"]}))
    named = {
        "job.json", "contents.json", *pictures, *(folder_of(each) + name for each in boards for name in (*DOCUMENTS, CERTIFICATE))
    }  # fmt: skip
    faults = [Fault(name, "expected no file that no entry names") for name in package.files if name not in named]
    for name, each in pictures.items():
        data = package.files.get(str(name))
        if data is None:
            faults.append(Fault(f"pictures.{each['id']}", "expected its file in the package"))
        elif sha256(data).hexdigest() != each["digest"]:
            faults.append(Fault(str(name), "expected the picture that the entry was made with"))
    return faults


def _seal_broken(package: Package, entries: Sequence[Mapping[str, Any]]) -> list[Fault]:
    """A closed job against the seal that its closing carries, and nothing but what may come after it."""
    end = closing_entry(entries)
    if end is None:
        return []
    documents = {
        name: sha256(package.files[name]).hexdigest() for name in package.files if name.rpartition("/")[2] in DOCUMENTS
    }
    faults = []
    if seal_of(sealed_part(package.job), documents) != end["attachment"]:
        faults.append(Fault("state", "expected what the job was closed with; it was changed"))
    wrong = [n for n in _after_closing(entries) if _key_of(entries[n - 1]) not in LATER]
    return faults + [
        Fault(f"entries[{n - 1}]", "expected nothing but corrections after the job was closed") for n in wrong[:1]
    ]


def _after_closing(entries: Sequence[Mapping[str, Any]]) -> list[int]:
    """The numbers of the entries that came after the one that closed the job."""
    end = closing_entry(entries)
    return [] if end is None else [n for n, each in enumerate(entries, 1) if n > entries.index(end) + 1]


def _key_of(entry: Mapping[str, Any]) -> str:
    target = TARGETS.get(str(entry["target"]).partition(".")[0])
    return target.key if target else ""


def uncovered(package: Package) -> list[str]:
    """What of a package no seal covers, by its places: certificates, which are checked by themselves; of chains of earlier versions
    more.
    """
    job = package.job
    certificates = sorted(name for name in package.files if name.rpartition("/")[2] == CERTIFICATE)
    if "chain" in job:
        return certificates
    closed = closing_entry(job["entries"]) is not None
    found = certificates + ([] if closed else list(HEAD))
    untold = replay(job["entries"]).untold
    if closed:  # the seal leaves out the closing itself
        found += ["state.confirmed.hand_over"] if "confirmed" in untold else []
    else:
        found += [f"state.{name}" for name in sorted(untold)]
    for board in sorted({FIRST, *(job.get("state") or {}).get("boards", {})}):
        folder = folder_of(board)
        if not closed and _carried(job["entries"], board) is None:
            found += [folder + name for name in DOCUMENTS if folder + name in package.files]
    for side in ("original", "replacement"):
        if isinstance(job.get(side), dict) and "revision" in job[side]:
            found.append(f"{side}.revision")
    for index, each in enumerate(job.get("pictures", ())):
        found += [f"pictures[{index}].{name}" for name in ("width", "height") if name in each]
    return found


def _differences(expected: Any, found: Any, place: str = "") -> list[Fault]:
    """Every place at which a document says something else than its entries, or less, or more."""
    if isinstance(expected, dict) and isinstance(found, dict):
        faults = []
        for name in dict.fromkeys([*expected, *found]):
            where = f"{place}.{name}" if place else str(name)
            if name not in found:
                faults.append(Fault(where, "expected here; it was taken out"))
            elif name not in expected:
                faults.append(Fault(where, "expected nothing here that the entries do not tell"))
            else:
                faults += _differences(expected[name], found[name], where)
        return faults
    if isinstance(expected, list) and isinstance(found, list) and len(expected) == len(found):
        pairs = enumerate(zip(expected, found, strict=True))
        return [fault for index, (one, other) in pairs for fault in _differences(one, other, f"{place}[{index}]")]
    if canonical(expected) != canonical(found):
        return [Fault(place, f"expected what the entries tell: {json.dumps(expected)[:80]}")]
    return []
