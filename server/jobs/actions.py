"""Use cases of a job: open it, and add entries. Permission, transaction and log stand here together."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import IntegrityError, connection, transaction
from django.db.models import Max, Q, QuerySet

from config.compiled import Compiled
from jobs.cases import case_of
from jobs.confirming import settles
from jobs.ledger.chaining import attachment_of, chain, closed_as, moment, opening
from jobs.ledger.room import take_room
from jobs.models import Entry, Job
from jobs.queries import as_read
from jobs.sheets import HELD, keep, sheet, with_revisions
from jobs.steps.hand_over.feedback import count_outcome, exchanged
from jobs.targets import brings, value_of
from people.access import depot_of
from people.models import Depot, Person
from stock.actions import hear_of_closed_job
from twincore.job import (
    EntryMade,
    Target,
    about_supply,
    as_said,
    board_in_hand,
    board_of,
    changed,
    contradicts,
    current,
    empty_state,
    step_in_hand,
    supply_needed,
    supply_said,
    turned,
    value_at,
)
from twincore.job.adding import confirmation, declared
from twincore.job.given import Given
from twincore.job.values import is_name
from twinshown.refusals import Changed, Faulty, NotThere, Refused
from twinshown.sheet.accepting import (
    LastSaid,
    NewEntry,
    check_open,
    check_unchanged,
    check_waiting,
    made_before,
    rests_on_supply,
    takes_back,
)

MOST_TOLD = 6
MACHINE_LOCK = "select pg_advisory_xact_lock(hashtextextended(%s, 720412))"
"""Held until what was said of a machine's supply is kept."""


class NotTheMaker(Refused):
    """An entry that another person made and left on the device."""

    status, title = 403, "Made by somebody else"


def machine_key(machine: str) -> str:
    """A machine's name as machines are told apart by it: without case, and spaces made even."""
    return " ".join(machine.split()).casefold()


@transaction.atomic
def open_job(person: Person, id: UUID, machine: str, complaint: str, now: datetime) -> Job:
    """Open a job in the person's depot; the id is made by the client, so that sending twice opens one."""
    depot = Depot.objects.select_for_update().get(pk=depot_of(person).pk)
    if there := Job.objects.filter(pk=id).first():
        if there.depot_id != depot.pk:
            raise Refused("This id is in use. Load the page again.")
        return there
    machine = " ".join(machine.split())
    if not machine or not is_name(machine):
        raise Faulty("Say which machine it is: its name, place or number, in letters that can be read.")
    last = depot.jobs.aggregate(last=Max("number"))["last"] or 0
    job = Job(
        id=id, depot=depot, number=last + 1, machine=machine, complaint=complaint.strip(),
        opened_at=now, changed_at=now, opened_by=person, state=empty_state(), machine_key=machine_key(machine),
    )  # fmt: skip
    job.opened_as = opening(depot, job.code, machine, job.complaint, now, person.shown_name)
    job.save(force_insert=True)
    return job


@transaction.atomic
def add_entry(person: Person, job_id: UUID, new: NewEntry, now: datetime) -> Job:
    """Add one entry and bring the job's state up to it. An entry that is there already changes nothing.

    Raises NotThere, Refused (closed, waiting, not possible), Faulty (a value that is none), Changed (somebody else
    changed the same thing since the client looked).
    """
    if new.maker and new.maker != person.username:
        raise NotTheMaker("Another person made this entry. It waits on the device until that person signs in again.")
    job = locked_job(person, job_id)
    if there := _sent_before(new.id):
        if (there.job_id, there.target, there.board) != (job.pk, new.target, board_of(new.target, new.board)):
            raise Refused("This entry's id is in use. Load the page again.")
        return job
    target = declared(new.target)
    check_open(job.state, job.closed_at is not None, job.origin is not None, new.target)
    mends = takes_back(job.void, new)
    job = sheet(job, board_of(new.target, new.board))
    if value_at(job.state, new.target) not in (as_said(new.before), as_said(new.after)):
        check_unchanged(job.state, new, _last_said(job, new.target))
    if not mends:
        check_waiting(job.state, new)
    _check_supply(job, new)
    _check_seen(job, person, new)
    before = value_at(job.state, new.target)
    at = _at(job, person, new, now)
    made = _made(job, target, new, Given(person.shown_name, at, new.reason, new.read_how, person.pk))
    job.state = changed(job.state, made)
    if mends:
        job.void = tuple(each for each in job.void if (each.target, each.board) != (made.target, made.board))
    if made.adds.get("closed_as"):
        job.closed_at = at
    if target is not None and target.kind == "feedback":
        count_outcome(job, now)
    job.entry_count = made.number
    entry = Entry(
        id=new.id, job=job, number=made.number, at=at, by=person, by_name=made.by, target=new.target,
        board=made.board, before=before, after=made.after, adds=made.adds or None, reason=made.reason, read_how=new.read_how,
        attachment=attachment_of(job, new.target, made.after), made=_joined(new, at, now), device=new.device,
    )  # fmt: skip
    take_room(job, entry)
    chain(job, entry)
    try:
        with transaction.atomic():
            entry.save(force_insert=True)
    except IntegrityError as error:
        # the same id was sent to another job at the same moment
        raise Refused("This entry's id is in use. Load the page again.") from error
    job.changed_at = now
    job.step = step_in_hand(turned(job.state, board_in_hand(job.state)))
    job = keep(job)
    if made.adds.get("closed_as"):
        hear_of_closed_job(person, job.pk, job.code, exchanged(job), now)
    return job


def add_entries(person: Person, job_id: UUID, news: Sequence[NewEntry], now: datetime) -> int:
    """Add entries in their order, each by itself, until one is not taken; how many were. The rest was not touched."""
    for taken, new in enumerate(news):
        try:
            add_entry(person, job_id, new, now)
        except Exception:
            # what was taken stays, and is said to; the next one is sent alone, and hears what is wrong with it
            return taken
    return len(news)


SENT = Compiled(lambda pk: Entry.objects.filter(pk=pk), pk=UUID(int=0))


def _sent_before(id: UUID) -> Entry | None:
    return SENT.first(pk=id)


def _made(job: Job, target: Target | None, new: NewEntry, given: Given) -> EntryMade:
    """The entry as it is kept, checked, with what it brings along."""
    name = new.target.partition(".")[2]
    value: Any
    if target is None:
        value = confirmation(case_of(job), name, new.after)
        adds = None if value is None else settles(job, name, given)
    else:
        value = value_of(job, target, name, new.after, given)
        adds = brings(job, target, name, value, given)
        if target.kind == "signed" and value is not None and value["ok"]:
            adds = {"closed_as": closed_as(job)}
    return EntryMade(
        job.entry_count + 1, given.now, given.by, new.target, value, new.reason.strip(), new.read_how,
        adds or {}, job.board,
    )  # fmt: skip


def locked_job(person: Person, job_id: UUID) -> Job:
    """A job of the person's depot, held until the transaction ends. Raises NotThere."""
    job = HELD.first(pk=job_id, depot=person.depot_id)
    if job is None:
        raise NotThere("Your depot has no such job.")
    with_revisions(job)
    return as_read(job)


def _check_supply(job: Job, new: NewEntry) -> None:
    """Refuse what cannot be true beside another open job on the same machine: one says dead, the other has power."""
    needed = supply_needed(job.state, new.target, new.read_how) if new.after is not None else None
    if needed is None and not about_supply(new.target):
        return
    # of two jobs on one machine the second waits here until the first is kept, and then sees what it said
    with connection.cursor() as cursor:
        cursor.execute(MACHINE_LOCK, [f"{job.depot_id} {job.machine_key}"])
    if needed is None:
        return
    for other in machine_jobs_open(job):
        if contradicts(needed, supply_said(current(other.state))):
            said = "has this machine locked off" if needed == "on" else "says that this machine has power again"
            raise Refused(
                f"{other.code} {said}. One of the two is wrong, or somebody is at work there: go and look, and say in "
                "the job that is wrong how the supply stands."
            )


def _check_seen(job: Job, person: Person, new: NewEntry) -> None:
    """Refuse what rests on the supply where somebody else, or the same person on another device, said meanwhile how it
    stands: hold points are never joined unseen.
    """
    if new.seen is None or new.seen >= job.entry_count or not rests_on_supply(job.state, new):
        return
    since = job.entries.filter(number__gt=new.seen)
    others = since.exclude(device=new.device, by=person) if new.device else since.exclude(by=person)
    told = [each for each in others.order_by("number") if about_supply(each.target)]
    if told:
        changes = [_told(each) for each in told[-MOST_TOLD:]]
        raise Changed(
            f"Meanwhile {told[-1].by_name} said otherwise how the supply of this machine stands. Go and look, then say it again.",
            changes=changes, now=value_at(job.state, new.target),
        )  # fmt: skip


def _at(job: Job, person: Person, new: NewEntry, now: datetime) -> datetime:
    """When an entry was made: the device tells, whose clock is doubted; but not before what it followed."""
    told = made_before(new, now)
    if told is None:
        return now
    followed = job.entries.filter(Q(number=new.seen) | Q(by=person)).aggregate(last=Max("at"))["last"]
    return min(max(told, followed or job.opened_at, job.opened_at), now)


def _joined(new: NewEntry, at: datetime, now: datetime) -> dict[str, Any] | None:
    """When an entry was made and when it joined, where these are not the same."""
    if new.made_at is None or at == now:
        return None
    return {"at": moment(new.made_at), "ahead_ms": new.clock_ahead_ms, "joined": moment(now)}


def machine_jobs_open(job: Job) -> QuerySet[Job]:
    """The other open jobs on a job's machine."""
    return (
        Job.objects.filter(depot=job.depot_id, machine_key=job.machine_key, closed_at__isnull=True, origin__isnull=True)
        .exclude(pk=job.pk)
        .select_related("depot")
        .order_by("number")
    )


def _last_said(job: Job, target: str) -> LastSaid | None:
    last = job.entries.filter(target=target, board=job.board).first()
    if last is None:
        return None
    return LastSaid((last.pk, last.known_as), last.by_name, _told(last))


def _told(entry: Entry) -> dict[str, Any]:
    return {
        "target": entry.target, "before": entry.before, "after": entry.after, "by": entry.by_name, "at": entry.at.isoformat()
    }  # fmt: skip
