"""Use cases of a job: open it, and add an entry. Permission, transaction and log stand here together."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import Max

from bench.comparing import record_of
from catalogue import queries as catalogue
from catalogue.profiles import board_profile
from config.errors import Changed, Faulty, NotThere, Refused
from jobs.comparison import comparison_of
from jobs.models import Entry, Job
from jobs.state import STEPS, TARGETS, changed, empty_state, step_in_hand, step_of, value_at, waiting_for
from people.access import depot_of
from people.models import Depot, Person
from twincore.profile import written_positions
from twincore.profile.values import plain

IN_REGISTER = ("identical", "within tolerance")
READ_HOW = ("by eye", "by eye, twice", "from a picture", "told by somebody")


@dataclass(frozen=True, slots=True)
class NewEntry:
    """What a client sends: what it changes, what it believed to stand there, what shall stand there, and why."""

    id: UUID
    target: str
    before: Any
    after: Any
    reason: str = ""
    read_how: str = ""


@transaction.atomic
def open_job(person: Person, id: UUID, machine: str, complaint: str, now: datetime) -> Job:
    """Open a job in the person's depot; the id is made by the client, so that sending twice opens one."""
    depot = Depot.objects.select_for_update().get(pk=depot_of(person).pk)
    if there := Job.objects.filter(pk=id).first():
        if there.depot_id != depot.pk:
            raise Refused("This id is in use. Load the page again.")
        return there
    if not machine.strip():
        raise Faulty("Say which machine it is: its name, place or number.")
    last = depot.jobs.aggregate(last=Max("number"))["last"] or 0
    return Job.objects.create(
        id=id, depot=depot, number=last + 1, machine=machine.strip(), complaint=complaint.strip(),
        opened_at=now, changed_at=now, opened_by=person, state=empty_state(),
    )  # fmt: skip


@transaction.atomic
def add_entry(person: Person, job_id: UUID, new: NewEntry, now: datetime) -> Job:
    """Add one entry and bring the job's state up to it. An entry that is there already changes nothing.

    Raises NotThere, Refused (closed, waiting, not possible), Faulty (a value that is none), Changed (somebody else
    changed the same thing since the client looked).
    """
    job = Job.objects.select_for_update(of=("self",)).select_related("depot").filter(
        pk=job_id, depot=person.depot_id
    ).first()  # fmt: skip
    if job is None:
        raise NotThere("Your depot has no such job.")
    if there := Entry.objects.filter(pk=new.id).first():
        if there.job_id != job.pk or there.target != new.target:
            raise Refused("This entry's id is in use. Load the page again.")
        return job
    _check_target(new.target)
    if job.closed_at is not None:
        raise Refused("This job is closed; nothing in it changes any more. Open a new job for further work.")
    _check_unchanged(job, new)
    step = step_of(new.target)
    if waiting := waiting_for(job.state, step):
        raise Refused(f"This step waits for: {', '.join(w.replace('_', ' ') for w in waiting)}.", waits_for=waiting)
    before = value_at(job.state, new.target)
    after = _applied(job, new, person, now)
    job.entry_count += 1
    Entry.objects.create(
        id=new.id, job=job, number=job.entry_count, at=now, by=person, target=new.target,
        before=before, after=after, reason=new.reason.strip(), read_how=new.read_how,
    )  # fmt: skip
    job.step, job.changed_at = step_in_hand(job.state), now
    job.save()
    return job


def _check_target(target: str) -> None:
    kind, _, name = target.partition(".")
    single = kind in ("original", "replacement")
    if kind not in TARGETS or single == bool(name) or (kind == "confirmed" and name not in STEPS):
        raise Faulty(f"There is nothing called {target} in a job.")


def _check_unchanged(job: Job, new: NewEntry) -> None:
    now_there = value_at(job.state, new.target)
    if now_there == new.before or now_there == new.after:
        return
    last = job.entries.select_related("by").filter(target=new.target).first()
    changes = [] if last is None else [
        {"target": last.target, "before": last.before, "after": last.after, "by": last.by.shown_name, "at": last.at.isoformat()}
    ]  # fmt: skip
    who = f"{last.by.shown_name} set it" if last else "it was reset"
    raise Changed(
        f"Meanwhile {who} to {_words(now_there)}. Look at it and decide again.", changes=changes, now=now_there
    )


def _words(value: Any) -> str:
    if isinstance(value, dict):
        value = value.get("note") or "confirmed"
    return "nothing" if value is None else str(value)


def _applied(job: Job, new: NewEntry, person: Person, now: datetime) -> Any:
    """Change the job's state; the value as it is kept."""
    kind, _, name = new.target.partition(".")
    match kind:
        case "original":
            return _choose_original(job, new)
        case "replacement":
            return _choose_replacement(job, new)
        case "found":
            value = _position(job.original_revision_id, name, new.after)
            if value is not None and new.read_how not in READ_HOW:
                raise Faulty(f"Say how it was read: {', '.join(READ_HOW)}.")
        case "override":
            value = _position(job.replacement_revision_id, name, new.after)
        case "reason":
            if comparison_of(job).family.function(name) is None:
                raise Faulty(f"There is no function {name} to give a reason for.")
            value = _text(new.after)
        case _:
            value = _confirmation(job, name, new, person, now)
    job.state = changed(job.state, new.target, value, new.read_how)
    if kind == "confirmed" and value is not None:
        _conclude(job, name, value, now)
    return {"note": value["note"]} if kind == "confirmed" and value else value


def _choose_original(job: Job, new: NewEntry) -> str:
    board = catalogue.board(str(new.after))
    job.original_revision = board.current
    job.family_revision = board.family.current
    job.replacement_revision = None
    job.state = changed(job.state, "original", board.part_number)
    return board.part_number


def _choose_replacement(job: Job, new: NewEntry) -> str | None:
    if new.after is None:
        job.replacement_revision = None
        job.state = changed(job.state, "replacement", None)
        return None
    board = catalogue.board(str(new.after))
    assert job.family_revision is not None  # choose waits for recognise
    if board.family_id != job.family_revision.family_id:
        raise Refused(f"{board.part_number} is of another family ({board.family.title}).")
    job.replacement_revision = board.current
    job.state = changed(job.state, "replacement", board.part_number)
    return board.part_number


def _position(revision_id: int | None, element: str, written: Any) -> Any:
    """A position as this board writes it, checked; None takes it back."""
    assert revision_id is not None  # the steps that need it wait for it
    if written is None:
        return None
    board = board_profile(revision_id)
    record = record_of(board, {element: written})
    return plain(written_positions(board, record.points))[element]


def _text(value: Any) -> str | None:
    if value is None or (isinstance(value, str) and not value.strip()):
        return None
    if not isinstance(value, str) or len(value) > 2000:
        raise Faulty("Expected a text of at most 2,000 characters.")
    return value.strip()


def _confirmation(job: Job, step: str, new: NewEntry, person: Person, now: datetime) -> dict[str, Any] | None:
    if new.after is None:
        return None
    if not isinstance(new.after, dict) or set(new.after) != {"note"}:
        raise Faulty('Expected {"note": text}.')
    note = _text(new.after["note"]) or ""
    if step in ("recognise", "choose"):
        raise Refused("This step is done by choosing a board.")
    {"record": _check_record, "carry_over": _check_plan, "prove": _check_verdict}.get(step, _nothing)(job, note)
    return {"note": note, "by": person.shown_name, "at": now.isoformat(timespec="seconds")}


def _nothing(job: Job, note: str) -> None:
    """Steps that only take a note and a confirmation."""


def _check_record(job: Job, note: str) -> None:
    assert job.original_revision_id is not None  # record waits for recognise
    elements = [element.id for element in board_profile(job.original_revision_id).elements]
    if unread := [name for name in elements if name not in job.state["found"]]:
        raise Refused(f"Not read yet: {', '.join(unread)}. Read them, or mark what cannot be read as unreadable.")


def _check_plan(job: Job, note: str) -> None:
    comparison = comparison_of(job)
    record = comparison.plan_record()
    if record is None:
        raise Refused("There are no positions that mean something on this board. Choose another replacement.")
    from_plan = rows_needing_reason(job)
    if missing := [title for name, title in from_plan.items() if name not in job.state["reasons"]]:
        raise Refused(f"Give a reason for going on with: {', '.join(missing)}.")


def rows_needing_reason(job: Job) -> dict[str, str]:
    """Functions that the plan does not meet or leaves open, with their titles."""
    comparison = comparison_of(job)
    return {name: comparison.family.titles[name] for name in comparison.unmet()}


def _check_verdict(job: Job, note: str) -> None:
    record = comparison_of(job).plan_record()
    assert record is not None  # prove waits for a confirmed plan
    verdict = comparison_of(job).proof(record).verdict
    if verdict not in IN_REGISTER and not note:
        raise Refused(f"The twin check says: {verdict}. Give a reason for going on, or choose another replacement.")


def _conclude(job: Job, step: str, value: dict[str, Any], now: datetime) -> None:
    """What a confirmation settles besides itself."""
    if step in ("fit", "prove"):
        comparison = comparison_of(job)
        record = comparison.plan_record()
        assert record is not None  # both wait for a confirmed plan
        if step == "fit":
            job.state["left"] = plain(written_positions(comparison.replacement, record.points))
        else:
            job.state["verdict"] = comparison.proof(record).verdict
    elif step == "hand_over":
        job.closed_at = now
