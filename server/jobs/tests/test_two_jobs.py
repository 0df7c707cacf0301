"""Two open jobs on one machine: they see each other, and where one says dead and the other on, both are stopped."""

from typing import Any
from uuid import uuid4

from django.db import connection
from django.test.utils import CaptureQueriesContext

from jobs.models import Job
from jobs.tests.steps.test_fit import FitTestCase
from jobs.tests.world import said_of


class TwoJobs(FitTestCase):
    """The job of the fitting tests stands ready to be powered; another is opened for a second board of the machine."""

    def setUp(self) -> None:
        super().setUp()
        shown = self.post("jobs", {"id": str(uuid4()), "machine": self.open.machine, "complaint": "drive board"})
        self.other = Job.objects.get(pk=shown["id"])

    def other_says(self, target: str, after: Any, status: int = 200, before: Any = None) -> Any:
        return self.entry(self.other, target, after, before, status)

    def test_they_see_each_other_with_what_each_says_of_the_supply(self) -> None:
        also = self.of("earlier")["also_open"]
        self.assertEqual([(each["code"], each["supply"]) for each in also], [(self.other.code, None)])
        there = self.get(f"jobs/{self.other.pk}/earlier")["also_open"]
        self.assertEqual(
            [(each["code"], each["supply"], each["by"]) for each in there], [(self.open.code, "off", "Wennick Tarl")]
        )

    def test_the_supply_does_not_come_on_while_the_other_has_it_locked_off(self) -> None:
        self.other_says("original", "TVH-2210-C")
        self.make_dead(self.other)
        released = [each["id"] for each in self.of("fitting")["release"]]
        refused = self.entry(self.open, "energised", {"released": released}, status=400, reason="trying")
        self.assertIn(f"{self.other.code} has this machine locked off", refused["detail"])
        # the other takes its lock off, and says so: then it may come on
        self.other_says("power", "on", before="off")
        self.put_back_on(self.open)

    def test_nobody_works_in_a_machine_that_the_other_says_has_power(self) -> None:
        self.other_says("original", "TVH-2210-C")
        self.make_dead(self.other)
        Job.objects.filter(pk=self.other.pk).update(machine_key="elsewhere")
        self.put_back_on(self.open)
        Job.objects.filter(pk=self.other.pk).update(machine_key=self.open.machine_key)
        for target, after in (("found.S1", "000000"), (f"removed.{uuid4()}", {"what": "lid", "kind": "panel"})):
            refused = self.other_says(target, after, 400)
            self.assertIn(f"{self.open.code} says that this machine has power again", refused["detail"])
        # and the one with power makes no run while the other says dead
        refused = self.entry(self.open, "learned", {"cycles": 1, "shown": "L"}, status=400)
        self.assertIn("locked off", refused["detail"])
        # what is wrong can always be put right
        self.other_says("power", "on", before="off")

    def test_what_one_is_about_to_say_of_the_supply_the_other_waits_for(self) -> None:
        self.other_says("original", "TVH-2210-C")
        with CaptureQueriesContext(connection) as asked:
            self.make_dead(self.other)
        statements = [each["sql"] for each in asked.captured_queries]
        locks = [number for number, sql in enumerate(statements) if "pg_advisory_xact_lock" in sql]
        self.assertGreater(len(locks), 3)  # one for each hold point, and one for the end
        for number in locks[-1:]:
            # whoever else is there is read after the lock, and the entry is kept after that
            rest = " ".join(statements[number:])
            self.assertLess(rest.index("machine_key"), rest.index("INSERT INTO"))

    def test_dead_is_not_confirmed_beside_a_job_that_has_power(self) -> None:
        Job.objects.filter(pk=self.other.pk).update(machine_key="elsewhere")
        self.put_back_on(self.open)
        Job.objects.filter(pk=self.other.pk).update(machine_key=self.open.machine_key)
        self.other_says("original", "TVH-2210-C")
        for point in self.get(f"jobs/{self.other.pk}/make-safe")["points"]:
            skip = point["wait_s"] > 0
            said = {"skipped": True} if skip else said_of(point["asks"], [pair["id"] for pair in point["pairs"]])
            self.entry(self.other, f"hold.{point['id']}", said, reason="no wait" if skip else "")
        refused = self.other_says("confirmed.make_safe", {"note": ""}, 400)
        self.assertIn(f"{self.open.code} says that this machine has power again", refused["detail"])

    def test_jobs_on_other_machines_and_closed_ones_have_no_say(self) -> None:
        Job.objects.filter(pk=self.other.pk).update(machine_key="elsewhere")
        self.assertEqual(self.of("earlier")["also_open"], [])
