"""Use cases of a job: open it, and add an entry. Permission, transaction and log stand here together."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import Max

from config.errors import Changed, Faulty, NotThere, Refused
from jobs.confirming import conclude, confirmation
from jobs.finish.chaining import attachment_of, chain, close
from jobs.finish.feedback import count_outcome
from jobs.front import ruling_out
from jobs.front.choosing import alternatives
from jobs.models import Entry, Job
from jobs.state import (
    AFTER_CLOSING,
    NAMED,
    SINGLE,
    STEPS,
    changed,
    done,
    empty_state,
    step_in_hand,
    target_waits_for,
    value_at,
)
from jobs.steps import waiting_words
from jobs.targets import value_of
from jobs.work import holding, recording
from people.access import depot_of
from people.models import Depot, Person
from twincore.rule_out import UNKNOWN

MOST_ALTERNATIVES = 12
"""Candidates kept with a choice, best first."""


@dataclass(frozen=True, slots=True)
class NewEntry:
    """What a client sends: what it changes, what it believed to stand there, what shall stand there, and why."""

    id: UUID
    target: str
    before: Any
    after: Any
    reason: str = ""
    read_how: str = ""


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
    if not machine.strip():
        raise Faulty("Say which machine it is: its name, place or number.")
    last = depot.jobs.aggregate(last=Max("number"))["last"] or 0
    return Job.objects.create(
        id=id, depot=depot, number=last + 1, machine=machine.strip(), complaint=complaint.strip(),
        opened_at=now, changed_at=now, opened_by=person, state=empty_state(), machine_key=machine_key(machine),
    )  # fmt: skip


@transaction.atomic
def add_entry(person: Person, job_id: UUID, new: NewEntry, now: datetime) -> Job:
    """Add one entry and bring the job's state up to it. An entry that is there already changes nothing.

    Raises NotThere, Refused (closed, waiting, not possible), Faulty (a value that is none), Changed (somebody else
    changed the same thing since the client looked).
    """
    job = locked_job(person, job_id)
    if there := Entry.objects.filter(pk=new.id).first():
        if there.job_id != job.pk or there.target != new.target:
            raise Refused("This entry's id is in use. Load the page again.")
        return job
    _check_target(new.target)
    check_open(job, new.target)
    _check_unchanged(job, new)
    job.state = empty_state() | job.state
    if waiting := target_waits_for(job.state, new.target, new.read_how):
        raise Refused(f"This step waits for: {', '.join(map(waiting_words, waiting))}.", waits_for=waiting)
    before = value_at(job.state, new.target)
    after = _applied(job, new, person, now)
    job.entry_count += 1
    entry = Entry(
        id=new.id, job=job, number=job.entry_count, at=now, by=person, by_name=person.shown_name, target=new.target,
        before=before, after=after, reason=new.reason.strip(), read_how=new.read_how,
        attachment=attachment_of(job, new.target, after),
    )  # fmt: skip
    chain(job, entry)
    entry.save(force_insert=True)
    job.step, job.changed_at = step_in_hand(job.state), now
    job.save()
    return job


def locked_job(person: Person, job_id: UUID) -> Job:
    """A job of the person's depot, held until the transaction ends. Raises NotThere."""
    job = Job.objects.select_for_update(of=("self",)).select_related("depot").filter(
        pk=job_id, depot=person.depot_id
    ).first()  # fmt: skip
    if job is None:
        raise NotThere("Your depot has no such job.")
    return job


def check_open(job: Job, target: str) -> None:
    """Refuse what would change a job that is closed, handed over, or only kept here for another depot."""
    kind = target.partition(".")[0]
    if job.origin is not None:
        raise Refused("This job was brought from another depot as it stood there. Open a new job for further work.")
    if kind in AFTER_CLOSING:
        if job.closed_at is None:
            raise Refused("This is said of a job that is closed. As long as it is open, change what is wrong.")
        return
    if job.closed_at is not None:
        raise Refused(
            "This job is closed; nothing in it changes any more. Add a correction, or open a new job for further work."
        )
    handed = "hand_over" in job.state["confirmed"] and target not in ("signed", "confirmed.hand_over")
    if handed:
        raise Refused("This job is handed over and waits for a second person. Take the hand-over back to change it.")


def _check_target(target: str) -> None:
    kind, _, name = target.partition(".")
    known = name == "" if kind in SINGLE else bool(name) and (kind in NAMED or (kind == "confirmed" and name in STEPS))
    if not known:
        raise Faulty(f"There is nothing called {target} in a job.")


def _check_unchanged(job: Job, new: NewEntry) -> None:
    now_there = value_at(job.state, new.target)
    if now_there == new.before or now_there == new.after:
        return
    last = job.entries.filter(target=new.target).first()
    changes = [] if last is None else [
        {"target": last.target, "before": last.before, "after": last.after, "by": last.by_name, "at": last.at.isoformat()}
    ]  # fmt: skip
    who = f"{last.by_name} set it" if last else "it was reset"
    raise Changed(
        f"Meanwhile {who} to {_words(now_there)}. Look at it and decide again.", changes=changes, now=now_there
    )


def _words(value: Any) -> str:
    if isinstance(value, dict):
        told = [str(each) for each in value.values() if each not in (None, "", False)]
        value = ", ".join(told) or "confirmed"
    return "nothing" if value is None else str(value)


def _applied(job: Job, new: NewEntry, person: Person, now: datetime) -> Any:
    """Change the job's state; the value as a client sees it."""
    kind, _, name = new.target.partition(".")
    if kind == "confirmed":
        value = confirmation(job, name, new.after, person, now)
    else:
        value = value_of(job, new.target, new.after, new, person, now)
    if kind == "test" and value is not None and value.get("result") not in UNKNOWN:
        _check_power(job, name)
    job.state = changed(job.state, new.target, value, new.read_how)
    if kind == "replacement" and value is not None:
        job.state["choice"] = _choice(job, new.reason.strip(), person, now)
    if kind == "confirmed" and value is not None:
        conclude(job, name, value, now)
    if kind == "signed" and value is not None and value["ok"]:
        close(job, now)
    if kind == "feedback":
        count_outcome(job, now)
    _follow(job, kind, name, value)
    return value_at(job.state, new.target)


def _check_power(job: Job, test: str) -> None:
    """A test on a dead machine waits for the hold points."""
    if ruling_out.risk_of(job, test) == "dead" and not done(job.state, "make_safe"):
        raise Refused(
            "This test needs the machine dead. Make safe comes first: its hold points hold, or were skipped with a reason.",
            waits_for=["make_safe"],
        )


def _follow(job: Job, kind: str, name: str, value: Any) -> None:
    """What an entry brings with it: what a board tells only while it lives, the supply off or back, a mark by angle."""
    state = job.state
    if kind == "original" and job.original_revision_id is not None:
        board = recording.original_of(job)[1]
        state["powered"] = recording.powered_elements(board)
        state["remembered"] = [each["id"] for each in recording.remembered(board)]
        if done(state, "make_safe") and holding.unsettled(job):
            del state["confirmed"]["make_safe"]
    if kind == "hold" and value is not None and state.get("energised") is not None:
        # somebody goes back to dead work: what was found in order before is looked at again
        job.state = state = changed(state, "energised", None)
    if kind == "hold" and any(each.id == name and each.kind == "isolate" for each in holding.points_of(job)):
        job.state = state if value is not None else changed(state, "power", "on")
        job.state["power"] = "on" if value is None or value.get("skipped") else "off"
    if (
        kind == "test"
        and value is not None
        and value.get("result") not in UNKNOWN
        and ruling_out.risk_of(job, name) != "dead"
    ):
        job.state = changed(state, "power", "on")
    if kind == "angle" and value is not None:
        state["found"][name], state["how"][name] = value["nearest"], "by angle"


def _choice(job: Job, reason: str, person: Person, now: datetime) -> dict[str, Any]:
    """The choice with the alternatives as they stand now. Refuses a board that does not fit without a reason."""
    stood = alternatives(job, now)
    chosen = next((each for each in stood if each["part_number"] == job.state["replacement"]), None)
    if chosen is not None and chosen["verdict"] == "no" and not reason:
        raise Faulty(f"{chosen['part_number']} does not fit as it is judged. Say why it is taken all the same.")
    return {
        "reason": reason,
        "by": person.shown_name,
        "at": now.isoformat(timespec="seconds"),
        "verdict": chosen["verdict"] if chosen else "to check",
        "alternatives": stood[:MOST_ALTERNATIVES],
    }
