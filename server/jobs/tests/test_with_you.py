"""A job taken along answers as the depot's server does, and takes the same entries."""

import json
from typing import Any
from uuid import uuid4

from django.utils import timezone

from jobs.actions import add_entry, open_job
from jobs.models import Entry, Job
from jobs.queries import job as read_job
from jobs.sheets import id_of, sheets_of
from jobs.tests.world import WorldTestCase
from jobs.with_you.taking import taken
from people.models import Person
from twincore.job import turned, value_at
from twinshown.refusals import Refused
from twinshown.rendering import rendered
from twinshown.sheet.accepting import NewEntry
from twinshown.with_you.answering import PARTS, answer
from twinshown.with_you.entering import enter
from twinshown.with_you.taken import TakenJob

CLOCK = ("now", "left_s")
"""What an answer says of the moment at which it was asked."""


class WithYou(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()
        self.person = Person.objects.get(username="wennick")

    def taken(self, job: Job) -> TakenJob:
        document = taken(read_job(self.person, job.pk), self.person, timezone.now())
        return TakenJob(json.loads(rendered(document)))

    def test_every_page_of_every_demo_job_is_the_same_to_the_byte(self) -> None:
        asked = 0
        for job in Job.objects.filter(depot=self.person.depot):
            along = self.taken(job)
            for sheet in sheets_of(read_job(self.person, job.pk)):
                for method, part in PARTS:
                    if method == "GET":
                        self.assert_same(along, f"/api/jobs/{id_of(sheet)}{f'/{part}' if part else ''}")
                        asked += 1
        self.assertGreater(asked, 150)

    def assert_same(self, along: TakenJob, address: str) -> None:
        said = self.client.get(address)
        here = answer(along, "GET", address, "", timezone.now())
        self.assertEqual(here.status, said.status_code, (address, here.body[:300], said.content[:300]))
        if address.endswith("/make-safe"):
            self.assertEqual(_without(CLOCK, json.loads(here.body)), _without(CLOCK, said.json()), address)
        elif said.status_code == 200:
            self.assertEqual(here.body, said.content.decode(), address)
        else:
            self.assertEqual(json.loads(here.body), said.json(), address)

    def test_the_sheet_after_every_entry_of_every_demo_job_is_the_same(self) -> None:
        for done in Job.objects.filter(depot=self.person.depot):
            along = self.taken(done)
            job = open_job(self.person, uuid4(), f"{done.machine} again", done.complaint, done.opened_at)
            along = TakenJob({**along.document, **_begun(job, along)})
            for entry in done.entries.order_by("number"):
                self.enter_both(job, along, entry)

    maxDiff = None

    def enter_both(self, job: Job, along: TakenJob, entry: Entry) -> None:
        now = entry.at
        state = turned(Job.objects.values_list("state", flat=True).get(pk=job.pk), entry.board)
        new = NewEntry(
            uuid4(), entry.target, value_at(state, entry.target), entry.after, entry.reason, entry.read_how, board=entry.board
        )  # fmt: skip
        by = entry.by or self.person
        along.document = {
            **along.document,
            "person": {"id": by.pk, "username": by.username, "shown_name": by.shown_name},
        }
        refused: list[Any] = [None, None]
        for index, take in enumerate((lambda: add_entry(by, job.pk, new, now), lambda: enter(along, new, now))):
            try:
                take()
            except Refused as error:
                refused[index] = (error.status, error.detail)
        self.assertEqual(refused[0], refused[1], entry.target)
        here = json.loads(answer(along, "GET", f"/api/jobs/{job.pk}", "", now).body)
        said = self.get(f"jobs/{job.pk}")
        for shown in (here, said):
            # how candidates stand now is the depot's to say
            for name in ("choice", "rejudged", "code", "known_facts"):
                shown.pop(name, None)
        self.assertEqual(here, said, (entry.number, entry.target))


def _begun(job: Job, along: TakenJob) -> dict[str, Any]:
    told = {
        **along.document["job"],
        "id": str(job.pk),
        "machine": job.machine,
        "closed_at": None,
        "changed_at": job.changed_at.isoformat(),
    }
    told["opened_by"], told["opened_at"] = job.opened_by.shown_name, job.opened_at.isoformat()
    return {"job": told, "state": job.state, "entries": [], "sheets": {}}


def _without(names: tuple[str, ...], node: Any) -> Any:
    if isinstance(node, dict):
        return {name: _without(names, each) for name, each in node.items() if name not in names}
    return [_without(names, each) for each in node] if isinstance(node, list) else node
