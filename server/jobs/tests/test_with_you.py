"""A job taken along answers as the depot's server does, and takes the same entries."""

import json
import os
from collections.abc import Callable
from contextlib import suppress
from random import Random
from typing import Any, cast
from uuid import uuid4

from django.db import transaction
from django.utils import timezone

from jobs.actions import add_entry, open_job
from jobs.candidates import alternatives
from jobs.models import Entry, Job
from jobs.queries import job as read_job
from jobs.sheets import id_of, sheets_of
from jobs.tests.any_values import VALUES, AnyValue, a_target
from jobs.tests.world import WorldTestCase
from jobs.with_you.taking import taken
from people.models import Person
from twincore.errors import TwinError
from twincore.job import OVER_PORT, TARGETS, turned, value_at
from twinshown.entering.accepting import NewEntry
from twinshown.entering.entry import AT_THE_DEPOT
from twinshown.refusals import Refused, problem_body, refused_as
from twinshown.rendering import rendered
from twinshown.with_you.along import enter
from twinshown.with_you.answering import PARTS, answer
from twinshown.with_you.taken import TakenJob

STAGES, TRIES = (8, 40) if os.environ.get("TWIN_LONG") else (2, 20)
"""Stages of each demo job that entries are tried at, and how many at each."""
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

    def test_an_entry_of_any_kind_at_any_stage_is_taken_or_refused_by_both_in_the_same_words(self) -> None:
        """Defect: the device took a board judged "no" without a reason, and the depot refused it once it had been fitted."""
        said: dict[str, list[Any]] = {}
        done = list(Job.objects.filter(depot=self.person.depot).order_by("number"))
        for job in done:
            for each in job.entries.all():
                said.setdefault(each.target.partition(".")[0], []).append((each.target, each.after))
        rng, outcomes = Random(1), set[tuple[str, bool]]()
        for whole in done:
            entries = list(whole.entries.order_by("number"))
            for stage in sorted({rng.randrange(len(entries) + 1) for _ in range(STAGES)}) if entries else [0]:
                job = self.begun_anew(whole, entries[:stage])
                along = self.taken(job)
                for _ in range(TRIES):
                    new = self.any_entry(rng, along, said)
                    took = self.tried_by_both(job, along, new)
                    outcomes.add((new.target.partition(".")[0], took is None))
                    if took == AT_THE_DEPOT or took is None:
                        # what was chosen or judged anew is the depot's to say: it is taken along again
                        along = self.taken(job)
        kinds = {kind for kind, _ in outcomes}
        self.assertEqual(kinds, set(VALUES))
        self.assertGreater(len({kind for kind, took in outcomes if took}), len(VALUES) * 0.5)
        self.assertGreater(len({kind for kind, took in outcomes if not took}), len(VALUES) * 0.6)

    def test_a_board_judged_no_wants_a_reason_on_the_device_too(self) -> None:
        job = self.job(3)
        stood = alternatives(read_job(self.person, job.pk), timezone.now(), None)
        along = self.taken(job)
        unfit = next(each["part_number"] for each in stood if each["verdict"] == "no")
        new = NewEntry(uuid4(), "replacement", job.state["replacement"], unfit)
        along.document["now"]["boards"].setdefault(unfit, next(iter(along.document["boards"])))
        with self.assertRaisesRegex(Refused, "Say why it is taken all the same"):
            enter(along, new, timezone.now())
        self.assertEqual(along.case().state["replacement"], job.state["replacement"])

    def begun_anew(self, whole: Job, entries: list[Entry]) -> Job:
        """Another job, on a machine of its own, with the first entries of one."""
        id = uuid4()
        job = open_job(self.person, id, f"{whole.machine} {id}", whole.complaint, whole.opened_at)
        for entry in entries:
            state = turned(Job.objects.values_list("state", flat=True).get(pk=job.pk), entry.board)
            new = NewEntry(
                uuid4(), entry.target, value_at(state, entry.target), entry.after, entry.reason, entry.read_how, board=entry.board
            )  # fmt: skip
            with suppress(Refused, TwinError):
                add_entry(entry.by or self.person, job.pk, new, entry.at)
        return Job.objects.get(pk=job.pk)

    def any_entry(self, rng: Random, along: TakenJob, said: dict[str, list[Any]]) -> NewEntry:
        """One of any kind: as somebody once said it, made up, or taken back."""
        board = rng.choice(list(along.held)) if rng.random() < 0.8 else "6"
        kind = rng.choice(list(VALUES))
        state = along.case(board if board in along.held else "1").state
        elements = list(state["found"]) or ["S1"]
        target, after = rng.choice(said.get(kind, [(a_target(kind, rng, elements), None)]))
        if kind in ("original", "replacement") and rng.random() < 0.8:
            after = rng.choice(list(along.document["now"]["boards"]) or ["nothing"])
        elif rng.random() < 0.5:
            target = a_target(kind, rng, elements)
            after = AnyValue(rng, state["found"].values()).of(VALUES[kind]) if rng.random() < 0.8 else None
        before = value_at(state, target) if TARGETS.get(kind) or kind == "confirmed" else None
        if rng.random() < 0.05:
            before = {"another": 1}
        reason = rng.choice(["", "so it is"])
        return NewEntry(uuid4(), target, before, after, reason, rng.choice(["by eye", OVER_PORT, ""]), board=board)

    def tried_by_both(self, job: Job, along: TakenJob, new: NewEntry) -> str | None:
        """Why both refused it; None where both took it."""
        now = timezone.now()
        along.document = {**along.document, "person": _person(self.person)}
        refused = [_refused(lambda: add_entry(self.person, job.pk, new, now)), _refused(lambda: enter(along, new, now))]
        if refused[1] is not None and _at_the_depot(refused[1]["detail"]):
            return AT_THE_DEPOT
        if refused[0] is not None and refused[0]["detail"] == "Send the picture itself first.":
            # the device keeps it, and sends it before its entry
            return AT_THE_DEPOT
        for each in refused:
            # when and by whom something was changed is the depot's to say
            for change in (each or {}).get("changes", ()):
                change.pop("at")
        self.assertEqual(refused[0], refused[1], (new, job.state["confirmed"]))
        kept = Job.objects.values_list("state", flat=True).get(pk=job.pk)
        # how candidates stand now is the depot's to say
        self.assertEqual(_without(("choice", "rejudged"), along.state), _without(("choice", "rejudged"), kept), new)
        return None if refused[0] is None else str(refused[0]["detail"])

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
            "person": _person(by),
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
            for name in ("chosen", "rejudged", "code", "known_facts"):
                shown.pop(name, None)
        self.assertEqual(here, said, (entry.number, entry.target))


def _person(person: Person) -> dict[str, Any]:
    return {"id": person.pk, "username": person.username, "shown_name": person.shown_name}


def _refused(work: Callable[[], Any]) -> dict[str, Any] | None:
    """What an entry was refused with; None where it was taken."""
    try:
        with transaction.atomic():
            work()
    except Refused as error:
        return cast(dict[str, Any], json.loads(rendered(problem_body(error))))
    except TwinError as error:
        return cast(dict[str, Any], json.loads(rendered(problem_body(refused_as(error)))))
    return None


def _at_the_depot(detail: str) -> bool:
    return detail == AT_THE_DEPOT or "was not taken along" in detail


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
