"""The demo world for server tests, and a client that speaks JSON."""

import json
from collections.abc import Iterable, Sequence
from datetime import UTC, datetime
from typing import Any
from uuid import uuid4

from django.test import Client, SimpleTestCase, TestCase

from jobs.demo import PEOPLE
from jobs.models import Job
from jobs.tests.prepared import prepare_demo_world
from people.models import Person
from twincore.job.record.replay import partings

NOW = datetime(2026, 3, 2, 3, 0, tzinfo=UTC)
SAID: dict[str, Any] = {
    "where": "main switch", "tag": "7", "instrument": "tester", "checked_before": True, "reading": 0,
    "checked_after": True,
}  # fmt: skip
"""What somebody says of a hold point so that it holds."""


def said_of(asks: Sequence[str], pairs: Iterable[str]) -> dict[str, Any]:
    """What makes a hold point hold: what it asks for, and 0 V between every two terminals."""
    return {name: dict.fromkeys(pairs, 0) if name == "readings" else SAID[name] for name in asks}


PASSWORDS = {username: password for username, password, *_ in PEOPLE}


class Calls(SimpleTestCase):
    """What a test says to the server as somebody who is signed in, and what it has done on the way; `open` is the job at hand."""

    open: Job

    def sign_in(self, username: str = "wennick") -> None:
        self.client.force_login(Person.objects.get(username=username), "django.contrib.auth.backends.ModelBackend")

    def job(self, number: int) -> Job:
        return Job.objects.get(depot__code="SQ", number=number)

    def job_shown(self, shown: dict[str, Any]) -> Job:
        """The job that an answer shows."""
        return Job.objects.get(pk=shown["id"])

    def get(self, path: str, status: int = 200) -> Any:
        return self.answer(self.client.get(f"/api/{path}"), status)

    def post(self, path: str, body: Any, status: int = 200) -> Any:
        return self.answer(self.client.post(f"/api/{path}", json.dumps(body), content_type="application/json"), status)

    def put(self, path: str, body: Any, status: int = 200) -> Any:
        return self.answer(self.client.put(f"/api/{path}", json.dumps(body), content_type="application/json"), status)

    def answer(self, response: Any, status: int) -> Any:
        self.assertEqual(response.status_code, status, response.content[:500])
        if status >= 400:
            self.assertEqual(response["Content-Type"], "application/problem+json")
        return response.json() if response.content else None

    def entry(self, job: Job, target: str, after: Any, before: Any = None, status: int = 200, **more: Any) -> Any:
        body = {"id": str(uuid4()), "target": target, "before": before, "after": after, **more}
        return self.post(f"jobs/{job.pk}/entries", body, status)

    def add(self, target: str, after: Any, status: int = 200, **more: Any) -> Any:
        state = self.get(f"jobs/{self.open.pk}")
        before = more.pop("before", None)
        kind, _, name = target.partition(".")
        keys = {"symptom": "symptoms", "test": "tests", "cause": "causes", "fact": "facts", "feature": "features"}
        if before is None and kind in keys:
            before = state[keys[kind]].get(name)
        return self.entry(self.open, target, after, before, status, **more)

    def of(self, what: str) -> Any:
        return self.get(f"jobs/{self.open.pk}/{what}")

    def partings(self, job: Job) -> list[str]:
        """Where a job's state is not what its entries lead to."""
        names = ("board", "target", "after", "reason", "read_how", "adds")
        entries = [
            {name: getattr(each, name) for name in names} | {"at": each.at.isoformat(), "by": each.by_name}
            for each in job.entries.order_by("number")
        ]
        return [str(each) for each in partings(entries, job.state)]

    def make_dead(self, job: Job) -> Any:
        """Every hold point held; the wait for stored energy skipped, for these tests do not wait."""
        for point in self.get(f"jobs/{job.pk}/make-safe")["points"]:
            if point["held"] is None:
                said = said_of(point["asks"], [pair["id"] for pair in point["pairs"]])
                skip = point["wait_s"] > 0
                self.entry(
                    job, f"hold.{point['id']}", {"skipped": True} if skip else said, reason="no wait" if skip else ""
                )
        return self.entry(job, "confirmed.make_safe", {"note": ""})

    def record_plugs(self, job: Job) -> None:
        """Plugs that move complete, or wire by wire to places of their own; one wire on every pin of the others."""
        for plug in self.get(f"jobs/{job.pk}/record")["plugs"]:
            if plug["complete"] or plug["one_by_one"]:
                self.entry(job, f"plug.{plug['id']}", "whole" if plug["complete"] else "one by one")
                continue
            for pin in plug["pins"]:
                self.entry(job, f"wire.{plug['id']}-{pin['pin']}", {"connector": plug["id"], "pin": pin["pin"]})

    def put_back_on(self, job: Job, note: str = "") -> Any:
        """Everything that fitting asks for, as planned, up to the supply."""
        fitting = self.get(f"jobs/{job.pk}/fitting")
        for line in fitting["kit"]:
            if line["needed"] == "needed":
                self.entry(job, f"kit.{line['item']}", line["count"])
        self.entry(job, "in_hand", {"number": self.get(f"jobs/{job.pk}")["replacement"]})
        for step in fitting["kit_steps"]:
            measured = {"measured_mm": float(step["measure"].split()[0])} if step["measure"] else {}
            self.entry(job, f"kit_step.{step['id']}", {"done": True, **measured})
        for name in fitting["by_hand"]:
            self.entry(job, f"readback.{name}", {"value": fitting["planned"][name]}, read_how="by eye")
        for part in fitting["moving"]:
            if part["value"] in (None, "to move"):
                self.entry(job, f"moving.{part['id']}", "moved", part["value"])
        looks = [each for each in fitting["looks"] if not each["key"].startswith("on ")]
        for look in looks:
            self.entry(job, f"look.{look['key']}", True)
        for step in self.get(f"jobs/{job.pk}/wiring")["steps"]:
            self.entry(job, f"ticked.{step['key']}", True)
        released = [each["id"] for each in self.get(f"jobs/{job.pk}/fitting")["release"]]
        return self.entry(job, "energised", {"released": released}, reason=note)

    def fit(self, job: Job) -> Any:
        """Fitted, powered and set as planned."""
        self.put_back_on(job)
        fitting = self.get(f"jobs/{job.pk}/fitting")
        for name in fitting["by_panel"]:
            self.entry(job, f"readback.{name}", {"value": fitting["planned"][name]}, read_how="by eye")
        for each in fitting["reenter"]:
            self.entry(job, f"reentered.{each['id']}", "as before")
        return self.entry(job, "confirmed.fit", {"note": ""})

    def measured(
        self, job: Job, run: dict[str, Any], late_s: float = 0.0, only: tuple[str, ...] = ()
    ) -> dict[str, Any]:
        """A run as the new board's own behaviour makes it, each event of `only` (or of all) so much later."""
        standing: list[str] = []
        seen = []
        for entry in run["replacement"]:
            for name in sorted({*standing} ^ {*entry["on"]}):
                if any(due["output"] == name for due in run["due"]):
                    late = late_s if not only or name in only else 0.0
                    at = min(entry["at"] + late, run["until"])
                    seen.append({"at": at, "output": name, "on": name in entry["on"], "within_s": 0.5})
            standing = entry["on"]
        steps = [{"at": step["at"], "set": {step["input"]: step["value"]}} for step in run["steps"]]
        seen.sort(key=lambda each: each["at"])
        return {
            "title": run["title"], "plan": run["id"], "steps": steps, "seen": seen, "until": run["until"], "timed": "by hand",
        }  # fmt: skip


class WorldTestCase(Calls, TestCase):
    """Every test starts from the demo world."""

    @classmethod
    def setUpTestData(cls) -> None:
        prepare_demo_world(NOW)


class FrontTestCase(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()
        self.open = self.job(6)


def other_client(username: str) -> Client:
    """A second person at another device."""
    client = Client()
    client.force_login(Person.objects.get(username=username), "django.contrib.auth.backends.ModelBackend")
    return client
