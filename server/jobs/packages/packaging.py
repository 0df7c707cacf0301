"""A whole job as one file: taken out, and brought into another depot with nothing lost."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from datetime import datetime
from tempfile import SpooledTemporaryFile
from typing import IO, Any, BinaryIO, cast
from uuid import UUID, uuid4, uuid5

from django.core.files.base import ContentFile
from django.db import transaction
from django.db.models import Max

from catalogue.actions import keep_board, keep_family
from catalogue.models import BoardRevision, FamilyRevision
from jobs.actions import machine_key
from jobs.ledger.chaining import documents_of, picture_name
from jobs.models import Entry, Job, Picture
from jobs.papers.second import second_of_left
from jobs.papers.sheet import record_document, sheet_document
from jobs.queries import job as read_job
from jobs.sheets import Revisions, keep, sheets_of
from people.access import depot_of, require_parts_lead
from people.models import Depot, Person
from pictures.files import opened, whole
from twincore.chain import DOCUMENTS, PackageFile, open_package, write_package
from twincore.errors import DocumentError, Fault
from twincore.job import FIRST, board_in_hand, record_faults, step_in_hand, turned
from twincore.job.record.document import CERTIFICATE, HEAD, folder_of
from twincore.profile import dump
from twinshown.refusals import Faulty, Refused

KEPT_IN_MEMORY = 8_000_000


@dataclass(slots=True)
class Brought:
    """A job that was brought in; `new` is false where it was there already. `profiles` are those that were not known here."""

    job: Job
    new: bool
    pictures: int = 0
    profiles: list[str] = field(default_factory=list)


def package_of(job: Job) -> IO[bytes]:
    """The package of a job, at its beginning; whoever takes it closes it."""
    out = SpooledTemporaryFile(max_size=KEPT_IN_MEMORY)  # noqa: SIM115  # it is handed on open
    write_package(_files(job), cast(BinaryIO, out))
    out.seek(0)
    return out


def _files(job: Job) -> Iterator[PackageFile]:
    record = record_document(job)
    yield PackageFile("job.json", dump(record).encode())
    for name, revision in documents_of(job).items():
        yield PackageFile(name, _bytes_of(revision))
    for each in sheets_of(job):
        second = second_of_left(each)
        if second is not None and second.certificate:
            yield PackageFile(folder_of(each.board) + CERTIFICATE, second.certificate.encode())
    named = {each["file"] for each in record["pictures"]}
    for picture in job.pictures.all():
        if picture_name(picture) in named:
            with opened(picture.file) as file:
                yield PackageFile(picture_name(picture), file.read())


def _bytes_of(revision: FamilyRevision | BoardRevision) -> bytes:
    rows = FamilyRevision.objects if isinstance(revision, FamilyRevision) else BoardRevision.objects
    return bytes(rows.values_list("document", flat=True).get(pk=revision.pk))


def bring_in(person: Person, file: BinaryIO, now: datetime) -> Brought:
    """Bring a job into the person's depot, as it stood where it comes from; nothing in it changes here.

    Only a parts lead may: profiles that nobody has here come with it. Raises Faulty with everything that is wrong or was
    changed; of a refused package nothing is kept. The same package twice is one job.
    """
    require_parts_lead(person)
    try:
        package = open_package(file)
    except DocumentError as error:
        raise Faulty("This is no package of a job.", error.faults) from error
    if faults := record_faults(package):
        raise Faulty("This package was changed since it was written. Nothing of it is kept.", faults)
    saved: list[Picture] = []
    try:
        with transaction.atomic():
            return _bring(person, package.job, package.files, now, saved)
    except BaseException:
        for picture in saved:
            picture.file.delete(save=False)
        raise


def _bring(person: Person, node: dict[str, Any], files: Any, now: datetime, saved: list[Picture]) -> Brought:
    depot = Depot.objects.select_for_update().get(pk=depot_of(person).pk)
    known_as = _id(node["id"], "id")
    head = node["entries"][-1]["digest"] if node["entries"] else ""
    if (there := _there(depot, known_as)) is not None:
        last = there.entries.order_by("-number").values_list("digest", flat=True).first() or ""
        if there.origin is None:
            raise Refused(f"This job is your own depot's: {there.code}.")
        if last != head:
            raise Refused(f"{there.code} is this job as it stood earlier or later. It is kept as it is.")
        return Brought(there, False)
    brought = Brought(_job(person, depot, known_as, node, now), True)
    _profiles(brought, person, files, now)
    brought.job.save(force_insert=True)
    keep(brought.job)
    _entries(brought.job, node)
    brought.pictures = _pictures(brought.job, node, files, now, saved)
    _prove(person, brought.job)
    return brought


def _there(depot: Depot, known_as: UUID) -> Job | None:
    return Job.objects.filter(depot=depot, pk__in=[known_as, uuid5(known_as, str(depot.pk))]).first()


def _job(person: Person, depot: Depot, known_as: UUID, node: dict[str, Any], now: datetime) -> Job:
    last = depot.jobs.aggregate(last=Max("number"))["last"] or 0
    taken = Job.objects.filter(pk=known_as).exists()
    opened = node["opened"]
    state = node.get("state")
    if not isinstance(state, dict) or "at" not in opened:
        raise Faulty(
            "This package does not hold the whole record.", [Fault("state", "expected what the entries add up to")]
        )
    job = Job(
        id=uuid5(known_as, str(depot.pk)) if taken else known_as, depot=depot, number=last + 1, machine=node["machine"][:200],
        machine_key=machine_key(node["machine"])[:200], complaint=node.get("complaint", ""),
        opened_at=_time(opened["at"], "opened.at"), opened_by=person, state=state, entry_count=len(node["entries"]),
        closed_at=_time(node["closed_at"], "closed_at") if node.get("closed_at") else None, changed_at=now,
        opened_as={name: node[name] for name in HEAD} if "chain" in node else None,
        origin={
            "id": str(known_as), "number": node["number"], "depot": node["depot"], "opened": opened,
            "brought_by": person.shown_name, "brought_at": now.isoformat(timespec="seconds"),
        },
    )  # fmt: skip
    return job


def _profiles(brought: Brought, person: Person, files: Any, now: datetime) -> None:
    job = brought.job
    try:
        first = _revisions(brought, person, files, "", now)
        job.family_revision, job.original_revision, job.replacement_revision = first
        job.others = {
            name: _revisions(brought, person, files, folder_of(name), now) for name in job.state.get("boards", {})
        }
    except DocumentError as error:
        raise Faulty("A profile in this package breaks a rule.", error.faults) from error


def _revisions(brought: Brought, person: Person, files: Any, folder: str, now: datetime) -> Revisions:
    """The profiles of one board of a package, kept here where nobody has them yet."""
    family_name, *boards = (folder + name for name in DOCUMENTS)
    family: FamilyRevision | None = None
    kept: list[BoardRevision | None] = []
    if family_name in files:
        family, new = keep_family(person, files[family_name], now)
        brought.profiles += [family.family_id] if new else []
    for name in boards:
        if name not in files:
            kept.append(None)
            continue
        if family is None:
            raise DocumentError([Fault(family_name, "expected the family of the boards in the package")])
        revision, new = keep_board(person, files[name], family, now)
        kept.append(revision)
        brought.profiles += [revision.board.part_number] if new else []
    return Revisions(family, *kept)


def _entries(job: Job, node: dict[str, Any]) -> None:
    ids = [_id(each["id"], f"entries[{index}].id") for index, each in enumerate(node["entries"])]
    taken = set(Entry.objects.filter(pk__in=ids).values_list("pk", flat=True))
    Entry.objects.bulk_create(
        [
            Entry(
                id=uuid5(known_as, str(job.pk)) if known_as in taken else known_as,
                known_as=known_as if known_as in taken else None, job=job, number=each["number"],
                at=_time(each.get("at"), f"entries[{index}].at"), by_name=each["by"], target=each["target"][:100],
                before=each.get("before"), after=each["after"], reason=each.get("reason", ""),
                board=each.get("board", FIRST), read_how=each.get("read_how", ""), attachment=each.get("attachment", ""), digest=each["digest"], adds=each.get("adds"), made=each.get("made"),
            )
            for index, (known_as, each) in enumerate(zip(ids, node["entries"], strict=True))
        ],
        batch_size=500,
    )  # fmt: skip


def _pictures(job: Job, node: dict[str, Any], files: Any, now: datetime, saved: list[Picture]) -> int:
    for index, each in enumerate(node.get("pictures", ())):
        data = files[each["file"]]
        try:
            whole(data)
        except Faulty as error:
            raise Faulty("A picture in this package is none.", [Fault(each["file"], error.detail)]) from error
        name = _id(each["id"], f"pictures[{index}].id")
        picture = Picture(
            id=uuid4(), name=name, job=job, digest=each["digest"], width=each["width"], height=each["height"], added_at=now,
        )  # fmt: skip
        picture.file.save(f"{job.pk}/{name}.{each['file'].rsplit('.', 1)[-1]}", ContentFile(data), save=False)
        saved.append(picture)
        picture.save(force_insert=True)
    return len(saved)


def _prove(person: Person, job: Job) -> None:
    """A record that can be shown and printed whole is one; anything else is refused before it is kept."""
    job = read_job(person, job.pk)
    try:
        job.step = step_in_hand(turned(job.state, board_in_hand(job.state)))
        sheet_document(job)
    except (KeyError, TypeError, ValueError, AttributeError, AssertionError, IndexError, Faulty, Refused) as error:
        raise Faulty(
            "What this job's entries add up to cannot be read.",
            [Fault("state", f"expected a whole record: {error}"[:300])],
        ) from error
    Job.objects.filter(pk=job.pk).update(step=job.step)


def _id(text: Any, place: str) -> UUID:
    try:
        return UUID(str(text))
    except ValueError as error:
        raise Faulty("This package has an id that is none.", [Fault(place, "expected a UUID")]) from error


def _time(text: Any, place: str) -> datetime:
    try:
        at = datetime.fromisoformat(str(text))
    except ValueError as error:
        raise Faulty("This package has a time that is none.", [Fault(place, "expected a time, UTC")]) from error
    if at.tzinfo is None:
        raise Faulty("This package has a time without its zone.", [Fault(place, "expected a time, UTC")])
    return at
