from typing import Any
from uuid import uuid4

from django.db import connection
from django.test.utils import CaptureQueriesContext

from jobs.models import Job
from jobs.tests.world import WorldTestCase


class Asking(WorldTestCase):
    """A job asks the depot, in one place; the parts lead answers in the job."""

    def setUp(self) -> None:
        self.sign_in("wennick")
        self.job = str(uuid4())
        self.post("jobs", {"id": self.job, "machine": "Tray washer 1", "complaint": "dead"})

    def say(self, target: str, after: Any, status: int = 200, before: Any = None) -> Any:
        return self.entry(Job.objects.get(pk=self.job), target, after, before, status)

    def test_what_a_job_asks_waits_until_it_is_answered_and_is_open_again_when_asked_anew(self) -> None:
        asked = {"what": "Which board is this?"}
        self.say("asked", asked)
        self.sign_in("corm")
        (shown,) = self.get("asked")["items"]
        self.assertEqual(
            (shown["what"], shown["machine"], shown["complaint"]), ("Which board is this?", "Tray washer 1", "dead")
        )
        self.say("answered", {"what": "It is K7-100, completed now"})
        self.assertEqual(self.get("asked")["total"], 0)
        self.sign_in("wennick")
        state = self.say("asked", {"what": "And its plugs?"}, before=asked)
        self.assertIsNone(state["answered"])
        self.assertEqual(self.get("asked")["total"], 1)

    def test_the_paper_is_made_before_anything_is_known_of_the_board(self) -> None:
        self.say("asked", {"what": "Which board is this?"})
        answer = self.client.get(f"/api/jobs/{self.job}/summary.pdf")
        self.assertEqual((answer.status_code, answer["Content-Type"]), (200, "application/pdf"))

    def test_another_depot_sees_nothing_of_it_and_the_list_takes_as_many_queries_however_long_it_is(self) -> None:
        self.say("asked", {"what": "Which board is this?"})
        with CaptureQueriesContext(
            connection,
        ) as one:
            self.get("asked")
        for number in range(4):
            self.job = str(uuid4())
            self.post("jobs", {"id": self.job, "machine": f"Tray washer {number}"})
            self.say("asked", {"what": "This one?"})
        with CaptureQueriesContext(connection) as five:
            self.assertEqual(self.get("asked")["total"], 5)
        self.assertEqual(len(one), len(five))
