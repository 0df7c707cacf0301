"""Use cases of cross-references: load, send a file for import, cancel, withdraw a statement, look for contradictions."""

from collections.abc import Iterable, Mapping
from datetime import datetime
from uuid import UUID, uuid4

from django.db import IntegrityError, transaction

from people.access import require_parts_lead
from people.models import Person
from references import contradicting, files
from references.models import Contradiction, Import, Outcome, Statement
from references.rows import values_of
from references.tasks import import_statements, look_for_contradictions
from twincore.choose import from_row, parse_statements
from twinshown.refusals import Faulty, NotThere, Refused

LARGEST_FILE = 600_000_000
FIELDS = [
    field.name
    for field in Statement._meta.concrete_fields
    if field.name not in ("id", "code", "withdrawn_at", "withdrawn_by", "withdrawn_because")
]


@transaction.atomic
def load_statements(person: Person | None, data: bytes) -> int:
    """Load a document of statements at once; one whose id is there already takes its place. How many there were.

    Raises DocumentError with every fault; nothing of a faulty document is kept.
    """
    if person is not None:
        require_parts_lead(person)
    found = parse_statements(data)
    Statement.objects.bulk_create(
        [Statement(**values_of(each)) for each in found],
        update_conflicts=True, unique_fields=["code"], update_fields=FIELDS, batch_size=1000,
    )  # fmt: skip
    contradicting.find_again()
    return len(found)


@transaction.atomic
def add_statement(person: Person, row: Mapping[str, str], now: datetime) -> Statement:
    """Add one cross-reference, written as a row of a file of them. Raises DocumentError with what is wrong and where."""
    require_parts_lead(person)
    found = from_row({**row, "id": f"by-{uuid4().hex[:12]}", "date": now.date().isoformat()})
    added = Statement.objects.create(**values_of(found))
    contradicting.find_again()
    return added


def send_import(person: Person, id: UUID, name: str, chunks: Iterable[bytes], now: datetime) -> Import:
    """Take a file of statements and have it imported in the background.

    The id is made by the client: sending twice imports once.
    """
    require_parts_lead(person)
    if there := _sent_already(person, id):
        return there
    try:
        with files.coming_in(chunks, LARGEST_FILE) as (path, size), transaction.atomic():
            if size == 0:
                raise Faulty("The file is empty. Expected a first line with the names of the columns.")
            job = Import.objects.create(id=id, name=name[:200], bytes=size, sent_at=now, sent_by=person)
            path.replace(files.upload_path(id))
            transaction.on_commit(lambda: import_statements.defer(import_id=str(id)))
            return job
    except ValueError as error:
        raise Faulty(f"Expected a file of at most {LARGEST_FILE // 1_000_000} MB. Send it in parts.") from error
    except IntegrityError:
        # sent more than once at the same moment: the first one is kept
        there = _sent_already(person, id)
        if there is None:
            raise
        return there


def _sent_already(person: Person, id: UUID) -> Import | None:
    there = Import.objects.filter(pk=id).select_related("sent_by").first()
    if there is not None and (there.sent_by is None or there.sent_by.depot_id != person.depot_id):
        raise Refused("This id is in use. Load the page again.")
    return there


@transaction.atomic
def cancel_import(person: Person, id: UUID, now: datetime) -> Import:
    """Stop an import; nothing of it is kept. One that is done stays done."""
    require_parts_lead(person)
    job = Import.objects.select_for_update(of=("self",)).filter(pk=id, sent_by__depot=person.depot_id).first()
    if job is None:
        raise NotThere("There is no such import.")
    if job.ended:
        raise Refused(f"This import is {job.state}; there is nothing left to stop.")
    job.cancel_wanted = True
    if job.state == Import.State.WAITING:
        job.state, job.ended_at = Import.State.CANCELLED, now
    job.save()
    return job


@transaction.atomic
def take_up_again() -> int:
    """Have imports that a stopped worker left in the middle begin anew; how many there were."""
    left = Import.objects.filter(state__in=[Import.State.READING, Import.State.KEEPING])
    ids = list(left.values_list("pk", flat=True))
    left.update(state=Import.State.WAITING)
    for id in ids:
        import_statements.defer(import_id=str(id))
    return len(ids)


@transaction.atomic
def withdraw_statement(person: Person, code: str, reason: str, now: datetime) -> Statement:
    """Let a statement count no more; it stays to be read, with who withdrew it and why."""
    require_parts_lead(person)
    found = Statement.objects.select_for_update(of=("self",)).filter(code=code).first()
    if found is None:
        raise NotThere(f"There is no statement {code}.")
    if not reason.strip():
        raise Faulty("Say why this statement is withdrawn.")
    found.withdrawn_at, found.withdrawn_by, found.withdrawn_because = now, person, reason.strip()
    found.save()
    Contradiction.objects.filter(codes__contains=[code]).delete()
    return found


@transaction.atomic
def restore_statement(person: Person, code: str) -> Statement:
    """Let a withdrawn statement count again."""
    require_parts_lead(person)
    found = Statement.objects.select_for_update(of=("self",)).filter(code=code).first()
    if found is None:
        raise NotThere(f"There is no statement {code}.")
    found.withdrawn_at, found.withdrawn_by, found.withdrawn_because = None, None, ""
    found.save()
    transaction.on_commit(lambda: look_for_contradictions.defer())
    return found


FIELD_WORDS = "Nobody listed this; a technician took it, and said how it did."


def count_outcome(job: UUID, original: str, replacement: str, result: str | None, now: datetime) -> None:
    """Count how a pairing did on one machine; None takes it back. A pairing that nobody listed gets a statement."""
    if result is None:
        Outcome.objects.filter(job=job).delete()
        return
    Outcome.objects.update_or_create(
        job=job, defaults={"original": original, "replacement": replacement, "result": result, "at": now}
    )
    listed = Statement.objects.filter(
        original=original, replacement=replacement, relation__in=("same", "supersedes", "universal", "kit")
    )
    if result != Outcome.Result.DID_NOT and not listed.exists():
        Statement.objects.get_or_create(
            code=f"seen: {original} > {replacement}"[:80],
            defaults={
                "original": original, "replacement": replacement, "relation": "universal", "words": FIELD_WORDS,
                "dated": now.date(),
            },
        )  # fmt: skip
