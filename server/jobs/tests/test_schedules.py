"""Devices that come and go: whatever is cut, doubled, killed or off by hours, nothing is lost and all end with the same sheet."""

import json
import os
from contextlib import suppress
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from random import Random
from typing import Any
from uuid import UUID

from django.conf import settings
from django.db import transaction

from jobs.actions import add_entry
from jobs.demo import load_job
from jobs.ledger.chaining import entry_node
from jobs.models import Job
from jobs.queries import job as read_job
from jobs.sheets import revisions_of, sheets_of
from jobs.tests.world import NOW, SAID, WorldTestCase
from jobs.with_you.taking import taken
from people.models import Person
from twincore.chain import chained
from twincore.job import about_supply, value_at
from twincore.profile import open_document
from twinshown.entering.accepting import NewEntry, rests_on_supply
from twinshown.refusals import Refused
from twinshown.rendering import rendered
from twinshown.with_you.along import enter
from twinshown.with_you.answering import answer
from twinshown.with_you.taken import TakenJob

SCHEDULES = int(os.environ.get("TWIN_SCHEDULES", "40"))
"""How many are played here; a thousand take some minutes."""
ACTIONS = 24
CHANGES: tuple[tuple[str, tuple[Any, ...]], ...] = (
    ("found.S1", ("010110", "111111", "000000", None)), ("serial", ("77-1", "77-2", None)),
    ("hold.dead", (SAID, {**SAID, "where": "at the motor"}, None)), ("hold.isolate", (SAID, None)), ("power", ("on",)),
    ("confirmed.make_safe", ({"note": ""}, None)), ("fact.altitude_m", (250, 900, None)),
    ("confirmed.record", ({"note": "read twice"}, None)), ("defect.0d5e6c3a-3f0e-4a65-9a2b-0d3c5f8f0001", ({"what": "hinge", "place": "door"}, None)),
    ("confirmed.hand_over", ({"note": "done"},)),
)  # fmt: skip


@dataclass
class Device:
    """One device: what it took along, what waits on it, what was refused to it."""

    name: str
    person: Person
    ahead: timedelta
    along: TakenJob
    known: int
    waits: list[NewEntry] = field(default_factory=list)
    refused: list[NewEntry] = field(default_factory=list)
    made: list[NewEntry] = field(default_factory=list)

    def make(self, chance: Random, now: datetime) -> None:
        """Somebody enters something on it."""
        target, values = chance.choice(CHANGES)
        before = value_at(self.along.case().state, target)
        new = NewEntry(
            UUID(int=chance.getrandbits(128), version=4), target, before, chance.choice(values), maker=self.person.username,
            made_at=now + self.ahead, clock_ahead_ms=int(self.ahead / timedelta(milliseconds=1)), seen=self.known,
            device=self.name,
        )  # fmt: skip
        self.made.append(new)
        try:
            enter(self.along, new, now)
        except Refused as error:
            if error.status != 503:
                self.refused.append(new)
                return
        self.waits.append(new)

    def send(self, chance: Random, job: Job, now: datetime, cuts: bool) -> None:
        """Send what waits, in order, until the line is cut: before the depot had it, or before the device heard of it."""
        while self.waits:
            if cuts and chance.random() < 0.15:
                return
            new = self.waits[0]
            try:
                for _ in range(1 + (cuts and chance.random() < 0.2)):
                    with transaction.atomic():
                        add_entry(self.person, job.pk, new, now)
            except Refused:
                self.refused.append(new)
            if cuts and chance.random() < 0.15:
                # it will be sent again, refused or not
                self.refused = [each for each in self.refused if each is not new]
                return
            self.waits.pop(0)

    def take(self, job: Job, now: datetime) -> None:
        """Take the job along anew; or come back after a crash, with what the device kept."""
        row = read_job(self.person, job.pk)
        entries = [{**entry_node(each), "here": str(each.pk)} for each in row.entries.order_by("number")]
        head = {**self.along.document["job"], "changed_at": row.changed_at.isoformat()}
        head["closed_at"] = row.closed_at.isoformat() if row.closed_at else None
        sheets = {
            each.board: [None if rev is None else str(rev.pk) for rev in revisions_of(each)] for each in sheets_of(row)
        }
        held = {
            board: dict(zip(("family", "original", "replacement"), each, strict=True)) for board, each in sheets.items()
        }
        self.along = TakenJob(
            {**self.along.document, "job": head, "state": row.state, "entries": entries, "sheets": held}
        )
        self.known = row.entry_count
        for new in self.waits:
            with suppress(Refused):  # the depot says so when it is sent
                enter(self.along, new, now)


class Schedules(WorldTestCase):
    def test_nothing_is_lost_doubled_or_out_of_order_and_hold_points_are_joined_by_people(self) -> None:
        people = [Person.objects.get(username=name) for name in ("wennick", "corm")]
        jobs = [self.job(3), self.job(5), self.almost_done()]
        bases = {job.pk: taken(read_job(people[0], job.pk), people[0], NOW) for job in jobs}
        for seed in range(SCHEDULES):
            job = jobs[seed % 3]
            with self.subTest(seed=seed), transaction.atomic():
                self.play(Random(seed), job, json.loads(rendered(bases[job.pk])), people)
                transaction.set_rollback(True)

    def almost_done(self) -> Job:
        """A job that waits for nothing but being handed over."""
        document = open_document((settings.ROOT / "demo" / "jobs" / "1.job.json").read_bytes(), "job").root
        ids = Random(1)
        entries = [{**each, "id": str(UUID(int=ids.getrandbits(128), version=4))} for each in document["entries"][:-1]]
        whole = {**document, "id": str(UUID(int=7, version=4)), "machine": "Oven of the schedules", "entries": entries}
        return load_job(whole, {each.username: each for each in Person.objects.all()}, NOW)

    def play(self, chance: Random, job: Job, base: dict[str, Any], people: list[Person]) -> None:
        now = max(job.changed_at, NOW)
        devices = []
        for index in range(chance.choice((2, 3))):
            person = people[index % 2]
            told = {"id": person.pk, "username": person.username, "shown_name": person.shown_name}
            along = TakenJob({**base, "person": told})
            ahead = timedelta(hours=chance.choice((-5, 0, 0, 3)), seconds=chance.randrange(60))
            devices.append(Device(f"device {index}", person, ahead, along, len(base["entries"])))
        for _ in range(ACTIONS):
            now += timedelta(seconds=chance.choice((1, 20, 400)))
            device = chance.choice(devices)
            match chance.choice(("make", "make", "make", "send", "take")):
                case "make":
                    device.make(chance, now)
                case "send":
                    device.send(chance, job, now, cuts=True)
                case "take":
                    device.take(job, now)
        for device in devices:
            device.send(chance, job, now, cuts=False)
        for device in devices:
            device.take(job, now)
        self.check(job, devices, base, now)

    def check(self, job: Job, devices: list[Device], base: dict[str, Any], now: datetime) -> None:
        rows = list(Job.objects.get(pk=job.pk).entries.order_by("number"))
        there = {each.pk: each for each in rows}
        self.assertEqual([each.number for each in rows], list(range(1, len(rows) + 1)))
        self.assertEqual(
            [each.digest for each in rows], chained(str(job.pk), [entry_node(each) for each in rows], job.opened_as)
        )
        for device in devices:
            refused = {each.id for each in device.refused}
            self.assertEqual(device.waits, [])
            self.assertEqual({each.id for each in device.made}, refused | {e.id for e in device.made if e.id in there})
            joined = [there[each.id] for each in device.made if each.id in there and each.id not in refused]
            self.assertEqual([each.number for each in joined], sorted(each.number for each in joined))
            self.assertEqual([each.at for each in joined], sorted(each.at for each in joined))
            self.assertTrue(all(each.at <= now for each in joined))
            self.unseen(device, rows)
        said = {
            rendered(json.loads(answer(each.along, "GET", f"/api/jobs/{job.pk}", "", now).body)) for each in devices
        }
        self.assertEqual(len(said), 1)
        self.sign_in()
        self.assertEqual(said, {rendered(self.get(f"jobs/{job.pk}"))})
        self.assertEqual(self.partings(Job.objects.get(pk=job.pk)), [])

    def unseen(self, device: Device, rows: list[Any]) -> None:
        """Nothing that rests on how the supply stands was joined behind what somebody else said of it meanwhile."""
        state = device.along.case().state
        for new in device.made:
            row = next((each for each in rows if each.pk == new.id), None)
            if row is None or not (about_supply(new.target) and rests_on_supply(state, new)):
                continue
            between = [
                each for each in rows if (new.seen or 0) < each.number < row.number and each.device != device.name
            ]
            self.assertEqual([each.target for each in between if about_supply(each.target)], [], new.target)
