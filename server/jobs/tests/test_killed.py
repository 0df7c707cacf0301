"""Nothing recorded is lost: a real server is killed in the middle of each kind of save, and started again."""

import contextlib
import io
import os
import signal
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from random import Random
from threading import Event, Thread
from typing import Any
from uuid import uuid4

import httpx
import psycopg
from django.conf import settings
from django.db import OperationalError, connection
from django.test import TransactionTestCase, tag
from PIL import Image

from jobs.demo import PEOPLE, load_demo_world
from jobs.ledger.chaining import entry_node
from jobs.models import Entry, Job, Picture
from jobs.tests.world import NOW
from tests.cost import rounds
from twincore.chain import chained
from twincore.job import partings

KINDS: dict[str, tuple[str, Any]] = {
    "a position": ("found.S1", "010110"),
    "a wire": ("wire.w1", {"connector": "C3", "pin": "1", "tag": "HT"}),
    "a plug": ("plug.C1", "whole"),
    "what came off": (f"removed.{uuid4()}", {"what": "cover screw", "kind": "screw", "count": 4}),
    "a state for now": ("temporary.link", {"what": "Shorting link"}),
    "a trace": (f"trace.{uuid4()}", {"title": "run", "steps": [], "seen": [], "until": 5}),
    "a hold point": ("hold.static", {"note": "strap on"}),
    "a defect": (f"defect.{uuid4()}", {"what": "gasket hard", "until": "2026-06-30", "who": "Corm"}),
    "power that is back": ("power", "on"),
}


ANSWERS_S = 60
"""The longest that a crowded machine may take to answer anybody."""


class Server:
    """The server as a process of its own, on the test's database."""

    def __init__(self, pictures: Path) -> None:
        given = settings.DATABASES["default"]
        address = f"postgres://{given['USER']}:{given['PASSWORD']}@{given['HOST']}:{given['PORT']}/{connection.settings_dict['NAME']}"
        # tests run on a database that acknowledges before it wrote; here it keeps its word, as every other does by itself
        careful = {"PGOPTIONS": "-c synchronous_commit=on"}
        self.environment = {**os.environ, **careful, "TWIN_DATABASE_URL": address, "TWIN_PICTURE_STORE": str(pictures)}
        self.client = httpx.Client(timeout=10)
        self.start()

    def start(self) -> None:
        command = [sys.executable, "-m", "gunicorn", "config.wsgi", "--chdir", str(settings.ROOT / "server"),
                   "--bind", "127.0.0.1:0", "--log-level", "info"]  # fmt: skip
        self.process = subprocess.Popen(
            command,
            env=self.environment,
            stderr=subprocess.PIPE,
            stdout=subprocess.DEVNULL,
            text=True,
            start_new_session=True,
        )
        assert self.process.stderr is not None
        for line in self.process.stderr:
            if "Listening at: " in line:
                self.url = line.split("Listening at: ")[1].split()[0]
                break
        # what it says is read on: a full pipe would hold up the process that brings workers back
        Thread(target=self.process.stderr.read, daemon=True).start()
        self.client = httpx.Client(base_url=self.url, timeout=10)
        self.client.headers["X-CSRFToken"] = self.client.get("/api/token").json()["token"]
        username, password, *_ = PEOPLE[0]
        self.client.post("/api/session", json={"username": username, "password": password}).raise_for_status()
        self.client.headers["X-CSRFToken"] = self.client.get("/api/token").json()["token"]

    def workers(self) -> list[int]:
        """The processes that answer."""
        children = Path(f"/proc/{self.process.pid}/task/{self.process.pid}/children").read_text()
        return [int(pid) for pid in children.split()]

    def kill(self) -> None:
        """Every process of it, at once, as a power cut would."""
        os.killpg(self.process.pid, signal.SIGKILL)
        self.process.wait()
        if self.process.stderr:
            self.process.stderr.close()
        self.client.close()


class KilledInTheMiddle(TransactionTestCase):
    def setUp(self) -> None:
        load_demo_world(settings.ROOT / "demo", NOW, lambda _: None)
        self.job = Job.objects.get(depot__code="SQ", number=3)
        folder = self.enterContext(tempfile.TemporaryDirectory())
        self.folder = Path(folder)
        self.server = Server(self.folder)
        self.addCleanup(lambda: self.server.kill() if self.server.process.poll() is None else None)

    def killed_while(self, lock: str, send: Any) -> None:
        """Hold a lock so that the save waits in its transaction; then kill the server, let go, and start it anew."""
        given = connection.settings_dict
        with psycopg.connect(
            host=given["HOST"], port=given["PORT"], user=given["USER"], password=given["PASSWORD"], dbname=given["NAME"]
        ) as other:
            other.execute(lock)
            with self.assertRaises(httpx.HTTPError):
                self.interrupted(send)
        # what the dead server's sessions still held is let go when the database notices
        for _ in range(100):
            with connection.cursor() as cursor:
                cursor.execute(
                    "select count(*) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()"
                    " and state <> 'idle'"
                )
                if cursor.fetchone() == (0,):
                    break
            time.sleep(0.05)
        self.server.start()

    def interrupted(self, send: Any) -> None:

        problem: list[Exception] = []

        def run() -> None:
            try:
                send(self.server.client)
            except Exception as error:
                problem.append(error)

        thread = Thread(target=run)
        thread.start()
        self.wait_until_it_waits()
        self.server.kill()
        thread.join()
        raise problem[0]

    def wait_until_it_waits(self) -> None:
        """Until the save stands at the lock."""
        for _ in range(200):
            with connection.cursor() as cursor:
                cursor.execute(
                    "select count(*) from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'"
                )
                if cursor.fetchone() != (0,):
                    return
            time.sleep(0.05)
        self.fail("the save never came to the lock")

    def test_every_kind_of_entry_is_there_once_or_not_at_all_and_sending_again_completes_it(self) -> None:
        path = f"/api/jobs/{self.job.pk}/entries"
        for kind, (target, after) in KINDS.items():
            with self.subTest(kind):
                shown = self.server.client.get(f"/api/jobs/{self.job.pk}").json()
                before = {"hold.static": {}, "power": "off"}.get(target)
                body = {"id": str(uuid4()), "target": target, "before": before, "after": after, "read_how": "by eye"}
                count = shown["entry_count"]
                self.killed_while("lock table jobs_entry in exclusive mode", lambda c, b=body: c.post(path, json=b))
                self.job.refresh_from_db()
                self.assertEqual((self.job.entry_count, Entry.objects.filter(pk=body["id"]).exists()), (count, False))
                for _ in range(2):
                    answer = self.server.client.post(path, json=body)
                    self.assertEqual(answer.status_code, 200, answer.text)
                self.job.refresh_from_db()
                self.assertEqual((self.job.entry_count, Entry.objects.filter(pk=body["id"]).count()), (count + 1, 1))

    def test_a_picture_is_there_whole_or_not_at_all(self) -> None:
        out = io.BytesIO()
        Image.new("RGB", (40, 30), "grey").save(out, "PNG")
        name = uuid4()
        path = f"/api/jobs/{self.job.pk}/pictures/{name}"
        self.killed_while("lock table jobs_picture in exclusive mode", lambda c: c.post(path, content=out.getvalue()))
        self.assertFalse(Picture.objects.filter(name=name).exists())
        self.assertEqual(self.server.client.get(path).status_code, 404)
        for _ in range(2):
            self.assertEqual(self.server.client.post(path, content=out.getvalue()).status_code, 200)
        self.assertEqual(Picture.objects.count(), 1)
        self.assertEqual(self.server.client.get(path).status_code, 200)

    def test_a_job_that_was_being_opened_is_opened_once(self) -> None:
        body = {"id": str(uuid4()), "machine": "Deck oven 3, Gullsway Rolls", "complaint": ""}
        self.killed_while("lock table jobs_job in exclusive mode", lambda c: c.post("/api/jobs", json=body))
        self.assertFalse(Job.objects.filter(pk=body["id"]).exists())
        codes = {self.server.client.post("/api/jobs", json=body).json()["code"] for _ in range(2)}
        self.assertEqual((len(codes), Job.objects.filter(pk=body["id"]).count()), (1, 1))


@tag("alone")
class KilledAllTheTime(TransactionTestCase):
    """Workers are killed one after another while several people work, and the database too; what was acknowledged is there."""

    KILLS, OF_THE_DATABASE, PEOPLE = rounds(30, 1000), rounds(2, 20), 4

    def setUp(self) -> None:
        load_demo_world(settings.ROOT / "demo", NOW, lambda _: None)
        self.jobs = list(
            Job.objects.filter(depot__code="SQ", closed_at=None, origin__isnull=True).order_by("number")[: self.PEOPLE]
        )
        self.server = Server(Path(self.enterContext(tempfile.TemporaryDirectory())))
        self.addCleanup(lambda: self.server.kill() if self.server.process.poll() is None else None)
        self.over = Event()
        self.acknowledged: list[tuple[Job, str]] = []
        self.wrong: list[str] = []

    def work(self, job: Job) -> None:
        """One person: makes entries, and sends each again until it is acknowledged."""
        with httpx.Client(
            base_url=self.server.url, timeout=10, headers=self.server.client.headers, cookies=self.server.client.cookies
        ) as client:
            # one thing said again and again: of many things a job has room for so many
            target, said, number = f"defect.{uuid4()}", None, 0
            while not self.over.is_set():
                number += 1
                after = {
                    "what": f"gasket hard, seen {number} times",
                    "until": "2026-06-30",
                    "who": "Corm",
                    "done": False,
                }
                body = {"id": str(uuid4()), "target": target, "before": said, "after": after}
                while not self.over.is_set():
                    try:
                        answer = client.post(f"/api/jobs/{job.pk}/entries", json=body)
                    except httpx.HTTPError:
                        time.sleep(0.02)
                        continue
                    if answer.status_code == 200:
                        self.acknowledged.append((job, str(body["id"])))
                        said = after
                        break
                    if answer.status_code < 500:
                        self.wrong.append(answer.text[:300])
                        return
                    time.sleep(0.05)

    def somebody_is_heard(self) -> None:
        """Until one more entry is acknowledged: after a while without any, the server does not answer any more."""
        before, until = len(self.acknowledged), time.monotonic() + ANSWERS_S
        while len(self.acknowledged) == before:
            if time.monotonic() > until:
                self.over.set()
                self.fail(f"nobody was answered for {ANSWERS_S} s, with workers {self.server.workers()}: {self.wrong}")
            time.sleep(0.01)

    def kill_a_worker(self, rng: Random) -> None:
        for _ in range(200):
            if found := self.server.workers():
                with contextlib.suppress(ProcessLookupError):
                    os.kill(rng.choice(found), signal.SIGKILL)
                return
            time.sleep(0.01)
        self.fail("no worker came back")

    def crash_the_database(self) -> None:
        """Kill one of its processes: it takes every other down with it and recovers from its log (PostgreSQL's manual, 19.5)."""
        with connection.cursor() as cursor:
            cursor.execute(
                "select pid from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid() limit 1"
            )
            found = cursor.fetchone()
        connection.close()
        if found:
            with contextlib.suppress(ProcessLookupError):  # it may have ended by itself meanwhile
                os.kill(found[0], signal.SIGKILL)
        for _ in range(400):
            try:
                connection.ensure_connection()
                return
            except OperationalError:
                connection.close()
                time.sleep(0.05)
        self.fail("the database did not come back")

    def test_nothing_acknowledged_is_lost_or_there_twice(self) -> None:
        rng, threads = Random(7), [Thread(target=self.work, args=[job]) for job in self.jobs]
        for thread in threads:
            thread.start()
        for kill in range(self.KILLS):
            self.somebody_is_heard()
            time.sleep(rng.uniform(0.01, 0.2))
            self.kill_a_worker(rng)
            if kill % (self.KILLS // self.OF_THE_DATABASE) == 7:
                self.crash_the_database()
        self.somebody_is_heard()
        self.over.set()
        for thread in threads:
            thread.join()
        self.assertEqual(self.wrong, [])
        self.assertGreater(len(self.acknowledged), self.KILLS)
        for job in self.jobs:
            entries = list(Entry.objects.filter(job=job).order_by("number"))
            known = [str(each.pk) for each in entries]
            self.assertEqual([each.number for each in entries], list(range(1, len(entries) + 1)))
            self.assertEqual(len(set(known)), len(known))
            self.assertLessEqual({id for of, id in self.acknowledged if of == job}, set(known))
            nodes = [entry_node(each) for each in entries]
            self.assertEqual([each.digest for each in entries], chained(job.known_as, nodes, job.opened_as))
            job.refresh_from_db()
            self.assertEqual(job.entry_count, len(entries))
            self.assertEqual(partings(nodes, job.state), [])
