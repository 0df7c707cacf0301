"""Several people and several requests at the same instant, on real transactions."""

from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime
from threading import Event
from unittest.mock import patch
from uuid import uuid4

from django.conf import settings
from django.db import connection
from django.test import TransactionTestCase

from jobs.actions import add_entry, open_job
from jobs.demo import load_demo_world
from jobs.models import Entry, Job
from people.models import Person
from twinshown.entering.accepting import NewEntry
from twinshown.refusals import Changed

NOW = datetime(2026, 3, 2, 3, 0, tzinfo=UTC)


class Together(TransactionTestCase):
    def setUp(self) -> None:
        load_demo_world(settings.ROOT / "demo", NOW, lambda _: None)
        self.job = Job.objects.get(depot__code="SQ", number=3)
        self.people = [Person.objects.get(username=name) for name in ("wennick", "corm")]

    def at_once(self, work: list) -> list:  # type: ignore[type-arg]
        def run(each):  # type: ignore[no-untyped-def]
            try:
                return each()
            except Exception as error:
                return error
            finally:
                connection.close()

        with ThreadPoolExecutor(max_workers=len(work)) as pool:
            return list(pool.map(run, work))

    def entry(self, person: Person, value: str) -> Job:
        new = NewEntry(uuid4(), "found.S1", None, value, read_how="by eye")
        return add_entry(person, self.job.pk, new, NOW)

    def test_of_two_at_the_same_instant_one_is_kept_and_the_other_is_told(self) -> None:
        values = ["010110", "111110"]
        answers = self.at_once([lambda p=p, v=v: self.entry(p, v) for p, v in zip(self.people, values, strict=True)])
        refused = [each for each in answers if isinstance(each, Changed)]
        self.assertEqual(len(refused), 1)
        self.job.refresh_from_db()
        self.assertIn(self.job.state["found"]["S1"], values)
        self.assertEqual(self.job.entry_count, Entry.objects.filter(job=self.job).count())

    def test_the_same_entry_sent_from_many_places_is_there_once(self) -> None:
        new = NewEntry(uuid4(), "found.S1", None, "010110", read_how="by eye")
        answers = self.at_once([lambda: add_entry(self.people[0], self.job.pk, new, NOW)] * 6)
        self.assertTrue(all(isinstance(each, Job) for each in answers), answers)
        self.assertEqual(Entry.objects.filter(pk=new.id).count(), 1)

    def test_jobs_opened_at_once_get_numbers_of_their_own(self) -> None:
        answers = self.at_once([lambda: open_job(self.people[0], uuid4(), "Oven", "", NOW)] * 5)
        numbers = [job.number for job in answers]
        self.assertEqual(len(set(numbers)), 5)

    def test_of_two_jobs_on_one_machine_the_second_waits_for_what_the_first_says_of_its_supply(self) -> None:
        first, second = (open_job(person, uuid4(), "Oven 9, Saltmarsh", "", NOW) for person in self.people)
        inside, seen = Event(), list[bool]()

        def keeps(job: Job, entry: Entry) -> None:
            inside.set()
            with connection.cursor() as cursor:
                for _ in range(1_000):
                    cursor.execute(
                        "select count(*) from pg_locks, pg_sleep(0.01) where locktype = 'advisory' and not granted"
                    )
                    if cursor.fetchone()[0]:
                        seen.append(True)
                        return

        def says_first() -> Job:
            with patch("jobs.entries.take_room", side_effect=keeps):
                return add_entry(self.people[0], first.pk, NewEntry(uuid4(), "power", "on", "on"), NOW)

        def says_second() -> Job:
            inside.wait(30)
            return add_entry(self.people[1], second.pk, NewEntry(uuid4(), "power", "on", "on"), NOW)

        answers = self.at_once([says_first, says_second])
        self.assertTrue(all(isinstance(each, Job) for each in answers), answers)
        self.assertEqual(seen, [True])

    def test_nothing_is_half_saved_when_saving_fails(self) -> None:
        before = (self.job.state, Entry.objects.count())
        with (
            patch.object(Job, "save", side_effect=RuntimeError("the lights went out")),
            self.assertRaises(RuntimeError),
        ):
            self.entry(self.people[0], "010110")
        self.job.refresh_from_db()
        self.assertEqual((self.job.state, Entry.objects.count()), before)
