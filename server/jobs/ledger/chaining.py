"""The hash chain of a job's entries, and the seal that closes it."""

from datetime import UTC, datetime
from typing import Any
from uuid import UUID

from catalogue.models import BoardRevision, FamilyRevision
from jobs.models import Entry, Job, Picture
from jobs.sheets import revisions_of, sheets_of
from people.models import Depot
from twincore.chain import DOCUMENTS, first_link, link, seal_of
from twincore.job import FIRST
from twincore.job.record.document import folder_of
from twincore.job.record.sealed import CLOSING, sealed_part


def entry_node(entry: Entry) -> dict[str, Any]:
    """An entry as it is chained and written out."""
    return {
        "id": str(entry.known_as or entry.pk),
        "number": entry.number,
        "at": moment(entry.at),
        "by": entry.by_name,
        **({} if entry.board == FIRST else {"board": entry.board}),
        "target": entry.target,
        "before": entry.before,
        "after": entry.after,
        "reason": entry.reason,
        "read_how": entry.read_how,
        "attachment": entry.attachment,
        **({} if entry.made is None else {"made": entry.made}),
        **({} if entry.adds is None else {"adds": entry.adds}),
    }


def moment(at: datetime) -> str:
    """A time as it is written in a record: UTC, to the millisecond."""
    return at.astimezone(UTC).isoformat(timespec="milliseconds")


def chain(job: Job, entry: Entry) -> None:
    """Give a new entry the digest that ties it to the one before. The job is locked."""
    last = Entry.objects.filter(job=job).order_by("-number").values_list("digest", flat=True).first()
    entry.digest = link(last or first_link(job.known_as, job.opened_as), entry_node(entry))


def opening(depot: Depot, code: str, machine: str, complaint: str, at: datetime, by: str) -> dict[str, Any]:
    """What a job is opened as, and stays, whoever is called otherwise later."""
    opened = {"at": moment(at), "by": by, "clock": "depot"}
    return {"number": code, "depot": depot.name, "machine": machine, "complaint": complaint, "opened": opened}


def record_head(job: Job) -> dict[str, Any]:
    """What stands at the top of a job's record, as it stood where the job was opened."""
    if job.opened_as:
        return {"id": job.known_as, **job.opened_as}
    opened = {"at": moment(job.opened_at), "by": job.opened_by.shown_name}
    here = {"number": job.code, "depot": job.depot.name, "opened": opened}
    # people and depots may be called otherwise later; a closed record says what it said
    kept = job.origin or job.state.get("closed_as") or here
    return {
        "id": job.known_as,
        "machine": job.machine,
        "complaint": job.complaint,
        **{name: kept[name] for name in here},
    }


def closed_as(job: Job) -> dict[str, Any]:
    """What stands at the head of a job that closes now, and stays so."""
    return {name: value for name, value in record_head(job).items() if name in ("number", "depot", "opened")}


def picture_name(picture: Picture) -> str:
    """A picture's name in the package of its job."""
    return f"pictures/{picture.name}.{str(picture.file.name).rsplit('.', 1)[-1]}"


def attachment_of(job: Job, target: str, after: Any) -> str:
    """The digest of what an entry brings along: a picture's file, or all that a job is closed with; else empty."""
    if after is None:
        return ""
    kind, _, name = target.partition(".")
    if kind == "picture":
        return job.pictures.filter(name=UUID(name)).values_list("digest", flat=True).first() or ""
    if job.closed_at is not None and target in CLOSING:
        return seal_of(sealed_part({**record_head(job), "state": job.state}), document_digests(job))
    return ""


def document_digests(job: Job) -> dict[str, str]:
    """The digests of the profiles that a job rests on, by their names in its package."""
    return {name: revision.digest for name, revision in documents_of(job).items()}


def documents_carried(job: Job) -> dict[str, str]:
    """The digests of the profiles of the sheet at hand, as the entry carries them that chose one of them."""
    folder = folder_of(job.board)
    return {
        folder + name: revision.digest
        for name, revision in zip(DOCUMENTS, revisions_of(job), strict=True)
        if revision is not None
    }


def documents_of(job: Job) -> dict[str, FamilyRevision | BoardRevision]:
    """The profiles that a job rests on, by their names in its package: those of its other boards in a folder of each."""
    found: dict[str, FamilyRevision | BoardRevision] = {}
    for each in sheets_of(job):
        folder = folder_of(each.board)
        for name, revision in zip(DOCUMENTS, revisions_of(each), strict=True):
            if revision is not None:
                found[folder + name] = revision
    return found
