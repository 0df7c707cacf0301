"""Entries of every kind, with every value that their declared form allows and many that it does not: what is taken can be shown,
packed, verified and brought in elsewhere; what is not taken is answered, and changes nothing.
"""

from random import Random
from typing import Any, cast
from uuid import uuid4

from jobs.models import Job
from jobs.tests.any_entries import AnyEntries
from jobs.tests.any_values import VALUES
from jobs.tests.world import WorldTestCase, other_client
from people.models import Person


class AnyEntry(AnyEntries, WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()
        Person.objects.filter(username="ildro").update(role=Person.Role.PARTS_LEAD)
        self.elsewhere = other_client("ildro")

    def test_a_job_that_takes_an_entry_shows_packs_and_comes_in_again(self) -> None:
        taken: set[str] = set()
        for number in (3, 4, 5, 6, 7, 9, 10):
            with self.subTest(job=number):
                taken |= self.tried(self.job(number), Random(number))
                self.comes_in_again(self.job(number))
        # most kinds were taken at least once, or nothing was tried
        self.assertGreater(len(taken), len(VALUES) // 4, taken)

    def test_ordinary_numbers_and_long_names_pack_and_come_in_again(self) -> None:
        """Defects: 0.1 + 0.2 amperes, a third of a minute, a machine of 150 letters made packages that nobody could open."""
        opened = self.post("jobs", {"id": str(uuid4()), "machine": f"Oven\t{'of the long corridor ' * 6}3"})
        self.assertEqual(opened["machine"], f"Oven {'of the long corridor ' * 6}3")
        job = Job.objects.get(pk=opened["id"])
        self.entry(job, "fact.load.fan.line.amps", {"value": 0.1 + 0.2, "source": "measured"})
        self.entry(job, f"fact.{'n' * 90}", {"value": 1 / 3, "source": "seen"})
        self.entry(job, "spent.minutes", 100 / 3)
        facts = self.get(f"jobs/{job.pk}")["facts"]
        self.assertEqual(facts["load.fan.line.amps"]["value"], 0.3)
        self.comes_in_again(job)
        for machine in ("\t", "oven \x07 3", ""):
            self.post("jobs", {"id": str(uuid4()), "machine": machine}, 422)

    def test_what_is_no_text_or_number_is_answered_as_wrong_input(self) -> None:
        job = self.job(6)
        for raw in ('"a\\u0000b"', '"\\ud83d"', "NaN", "1e400", "[" * 60 + "]" * 60, "\xff"):
            for path in (f"jobs/{job.pk}/entries", "jobs", "session", "bench/compare"):
                body = f'{{"id": "{uuid4()}", "target": "serial", "before": null, "after": {raw}, "machine": {raw}}}'
                answer = self.client.post(f"/api/{path}", body.encode("latin-1"), content_type="application/json")
                self.assertIn(answer.status_code, (400, 403, 404, 405, 422), (path, raw, answer.content[:200]))
        self.get("jobs?search=%00", 400)
        self.get(f"jobs/{job.pk}%00", 404)
        self.assertEqual(self.get(f"jobs/{job.pk}")["serial"], None)

    def comes_in_again(self, job: Job) -> None:
        self.assertEqual(self.client.get(f"/api/jobs/{job.pk}/sheet.json").status_code, 200)
        data = b"".join(cast(Any, self.client.get(f"/api/jobs/{job.pk}/package.zip")).streaming_content)
        answer = self.elsewhere.post("/api/packages", data, content_type="application/zip")
        self.assertEqual(answer.status_code, 200, answer.content[:600])
        self.assertEqual(self.elsewhere.get(f"/api/jobs/{answer.json()['id']}").status_code, 200)
