"""Whatever is stored, a job opens, says what is wrong with which entry, and lets it be taken back; lists never fail for one row."""

from random import Random
from typing import Any, cast
from unittest.mock import patch
from uuid import uuid4

from jobs.ledger.chaining import chain
from jobs.models import Entry, Job
from jobs.tests.world import NOW, WorldTestCase
from people.models import Person
from twincore.job import current

ODD: tuple[Any, ...] = (None, 123, "x", [], [1], {}, {"value": 1}, {"a": {"what": 1}}, True, -1.5, [[]], {"": None})
PARTS = (
    "assumable", "between", "boards/original", "candidates", "comparison", "costs", "customer.pdf", "earlier", "entries", "fitting",
    "hand-over", "have", "key", "label.pdf", "leaflet", "machine", "make-safe", "plan.csv", "plan.json", "plan.pdf", "presses",
    "proving", "reasoning.pdf", "record", "rule-out", "runs", "sheet.json", "sheet.pdf", "summary.pdf", "tags.pdf", "take-along",
    "traces", "way-in", "wiring",
)  # fmt: skip


class Damaged(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()

    def store(self, job: Job, **parts: Any) -> None:
        Job.objects.filter(pk=job.pk).update(state={**job.state, **parts})

    def said(self, job: Job, target: str, after: Any) -> None:
        """An entry as no version takes it any more, chained and counted as if one had."""
        entry = Entry(
            id=uuid4(), job=job, number=job.entry_count + 1, at=NOW, by=Person.objects.get(username="wennick"),
            by_name="Wennick", target=target, after=after,
        )  # fmt: skip
        chain(job, entry)
        entry.save(force_insert=True)
        Job.objects.filter(pk=job.pk).update(entry_count=entry.number)

    def test_an_entry_that_cannot_stand_is_told_and_taken_back(self) -> None:
        """Defect: such a value was saved once, and locked the job for good."""
        job = self.job(9)
        symptoms = self.get(f"jobs/{job.pk}")["symptoms"]
        self.assertTrue(symptoms)
        self.said(job, "test.fuse", {"restored": {"value": 1}})
        self.store(job, tests={"fuse": {"restored": {"value": 1}}}, original=123)
        shown = self.get(f"jobs/{job.pk}")
        self.assertEqual(
            [(each["number"], each["target"]) for each in shown["void"]], [(job.entry_count + 1, "test.fuse")]
        )
        # what the other entries said is there, as they said it
        self.assertEqual((shown["symptoms"], shown["original"]), (symptoms, job.state["original"]))
        refused = self.entry(job, "serial", "12", status=400)
        self.assertIn("test.fuse", refused["detail"])
        after = self.entry(job, "test.fuse", None)
        self.assertEqual((after["void"], "fuse" in after["tests"]), ([], False))
        self.entry(job, "serial", "12")
        job.refresh_from_db()
        self.assertEqual(self.partings(job), [])

    def test_what_no_entry_says_is_not_shown(self) -> None:
        job = self.job(4)
        before = self.get(f"jobs/{job.pk}")
        self.store(job, found={"S1": [1]}, defects={"a": {"what": 1}}, serial=[1], boards={"1": {}, "2": {"found": 5}})
        self.assertEqual(self.get(f"jobs/{job.pk}"), before)

    def test_no_stored_shape_makes_a_page_or_a_list_fail(self) -> None:
        rng = Random(15)
        for number in (3, 4, 5, 7, 9, 10):
            job = self.job(number)
            for stored in [*rng.sample(ODD[1:], 2), *(self.an_odd_state(job, rng) for _ in range(5))]:
                Job.objects.filter(pk=job.pk).update(state=stored)
                for path in (
                    f"jobs/{job.pk}",
                    "jobs?show=all",
                    "machines",
                    "asked",
                    f"machines/now?machine={job.machine}",
                    f"machines/jobs?machine={job.machine}",
                ):
                    answer = self.client.get(f"/api/{path}")
                    self.assertEqual(answer.status_code, 200, (number, path, str(stored)[:200], answer.content[:300]))
                for part in rng.sample(PARTS, 3):
                    answer = self.client.get(f"/api/jobs/{job.pk}/{part}")
                    self.assertLess(answer.status_code, 500, (number, part, str(stored)[:200], answer.content[:300]))

    def an_odd_state(self, job: Job, rng: Random) -> Any:
        """A job's state with some of its parts, or of what stands in them, made into something else."""
        state = cast(dict[str, Any], current(job.state))
        for _ in range(rng.randrange(1, 4)):
            key = rng.choice(list(state))
            inner = state[key]
            if isinstance(inner, dict) and inner and rng.random() < 0.6:
                name = rng.choice(list(inner))
                state = {**state, key: {**inner, name: rng.choice(ODD)}}
            else:
                state = {**state, key: rng.choice(ODD)}
        return state

    def test_nothing_is_saved_where_the_answer_cannot_be_made(self) -> None:
        """Defect: the entry was saved, and the answer said that nothing was."""
        job = self.job(6)
        with patch("jobs.api.sheet_shown", side_effect=KeyError("no such step")), self.assertLogs(level="ERROR"):
            self.entry(job, "serial", "12", status=500)
        self.assertEqual(Job.objects.get(pk=job.pk).entry_count, job.entry_count)
        self.assertIsNone(self.get(f"jobs/{job.pk}")["serial"])
