"""What whoever runs the server asks of it."""

import io
import json
import logging
import os
import secrets
import subprocess
import sys
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest.mock import patch
from zipfile import ZipFile

from django.conf import settings
from django.core.management import CommandError, call_command
from django.db import connection
from django.test import SimpleTestCase, TestCase, override_settings

from config.logs import Line
from config.operating import NEEDED, _looked_at
from jobs.tests.world import WorldTestCase

FAILING = {**NEEDED, "storage": lambda: (_ for _ in ()).throw(OSError("disk full at /srv/pictures"))}


class Asked(TestCase):
    def test_it_lives_and_is_ready_to_whoever_asks(self) -> None:
        self.assertEqual(self.client.get("/health").json(), {"alive": True})
        answer = self.client.get("/ready")
        self.assertEqual((answer.status_code, answer.json()["ready"]), (200, True))
        self.assertIn("no-store", answer["Cache-Control"])

    def test_not_ready_is_told_with_which_and_what_is_wrong_stands_in_the_log_alone(self) -> None:
        _looked_at.cache_clear()
        self.addCleanup(_looked_at.cache_clear)
        with patch("config.operating.NEEDED", FAILING), self.assertLogs("config.operating", "WARNING") as logged:
            answer = self.client.get("/ready")
        self.assertEqual((answer.status_code, answer.json()["storage"]), (503, "not in order"))
        self.assertEqual(answer.json()["database"], "in order")
        self.assertNotIn("srv", answer.content.decode())
        self.assertIn("disk full", logged.output[0])

    def test_counts_are_for_whoever_has_the_token(self) -> None:
        self.assertEqual(self.client.get("/metrics").status_code, 401)
        with override_settings(METRICS_TOKEN="a-long-token"):
            self.assertEqual(self.client.get("/metrics", headers={"Authorization": "Bearer other"}).status_code, 401)
            self.client.get("/api/jobs")
            told = self.client.get("/metrics", headers={"Authorization": "Bearer a-long-token"}).content.decode()
        self.assertIn('worthy_twin_requests_total{method="GET",route="api/jobs",status="4xx"}', told)
        self.assertIn("worthy_twin_request_seconds_bucket", told)

    def test_what_somebody_calls_a_method_is_not_counted_by_itself(self) -> None:
        with override_settings(METRICS_TOKEN="a-long-token"):
            self.client.generic("BREW", "/api/jobs")
            told = self.client.get("/metrics", headers={"Authorization": "Bearer a-long-token"}).content.decode()
        self.assertNotIn("BREW", told)
        self.assertIn('method="other"', told)

    def test_asked_again_and_again_it_is_looked_at_once_a_moment(self) -> None:
        _looked_at.cache_clear()
        with patch("config.operating.time.monotonic", return_value=7.5):
            self.client.get("/ready")
            with patch("config.operating.NEEDED", FAILING):
                self.assertEqual(self.client.get("/ready").status_code, 200)


class Logged(WorldTestCase):
    def test_every_request_has_an_id_and_a_line_with_nothing_of_what_was_said(self) -> None:
        self.sign_in()
        job = self.job(6)
        with self.assertLogs("worthy_twin.requests", "INFO") as logged:
            answer = self.client.get(f"/api/jobs/{job.pk}", headers={"X-Request-ID": "from-the-proxy-7"})
        self.assertEqual(answer["X-Request-ID"], "from-the-proxy-7")
        line = json.loads(Line().format(logged.records[0]))
        self.assertEqual((line["route"], line["status"], line["person"]), ("api/jobs/<job_id>", 200, "wennick"))
        self.assertNotIn(str(job.pk), json.dumps(line))
        for forged in ("x", 'a"b\n', "a" * 100):
            self.assertRegex(
                self.client.get("/health", headers={"X-Request-ID": forged})["X-Request-ID"], "^[0-9a-f]{32}$"
            )

    def test_what_went_wrong_is_one_line_too(self) -> None:
        try:
            raise KeyError("x")
        except KeyError as error:
            record = logging.LogRecord(
                "jobs", logging.ERROR, "", 1, "failed\nat %s", ("it",), (KeyError, error, error.__traceback__)
            )
        text = Line().format(record)
        self.assertNotIn("\n", text)
        self.assertIn("KeyError", json.loads(text)["trace"])


class Doctor(TestCase):
    def test_every_point_is_told_with_what_to_do(self) -> None:
        out = io.StringIO()
        with self.assertRaisesMessage(CommandError, "queue is worked on"):
            call_command("doctor", stdout=out)
        self.assertIn("start manage.py work", out.getvalue())
        for name in ("its version", "its extensions", "its tables", "clocks agree"):
            self.assertRegex(out.getvalue(), f"{name} +in order")

    def test_a_core_without_its_packages_is_told(self) -> None:
        """A defect: an installation that was started empty first had a core in the browser that lacked its packages."""
        for packed, told in (((), "is not built"), (("twincore/a.py",), "lacks pydantic, twinshown")):
            with self.subTest(told), TemporaryDirectory() as folder, self.settings(STATIC_ROOT=folder):
                if packed:
                    Path(folder, "core", "1").mkdir(parents=True)
                    with ZipFile(Path(folder, "core", "1", "core.zip"), "w") as archive:
                        for name in packed:
                            archive.writestr(name, "")
                out = io.StringIO()
                with self.assertRaisesMessage(CommandError, "core for browsers"):
                    call_command("doctor", stdout=out)
                self.assertRegex(out.getvalue(), f"core for browsers +.*{told}")

    def test_a_database_that_may_lose_what_it_acknowledged_is_told(self) -> None:
        """The tests' own is such a one."""
        out = io.StringIO()
        with connection.cursor() as cursor:
            cursor.execute("set local synchronous_commit = off")
        with self.assertRaisesMessage(CommandError, "it keeps its word"):
            call_command("doctor", stdout=out)
        self.assertRegex(out.getvalue(), "set .*synchronous_commit.* to on")


class Deployed(SimpleTestCase):
    def test_django_has_nothing_to_say_against_the_settings_of_an_installation(self) -> None:
        """`check --deploy` with what the README says to set, and nothing else."""
        environment = {
            name: value for name, value in os.environ.items() if not name.startswith(("TWIN_", "DJANGO_ALLOW"))
        }
        environment |= {
            "TWIN_SECRET_KEY": secrets.token_urlsafe(50), "TWIN_HTTPS": "1", "TWIN_DATABASE_URL": "postgres://none/none",
        }  # fmt: skip
        command = [sys.executable, "manage.py", "check", "--deploy", "--fail-level", "WARNING"]
        done = subprocess.run(
            command, cwd=settings.ROOT / "server", env=environment, capture_output=True, text=True, check=False
        )
        self.assertEqual(done.returncode, 0, done.stdout + done.stderr)
        self.assertIn("no issues", done.stdout)
        self.assertNotIn("WARNING", done.stdout + done.stderr)

    @override_settings(
        SECURE_SSL_REDIRECT=True, SECURE_HSTS_SECONDS=60, SECURE_PROXY_SSL_HEADER=("HTTP_X_FORWARDED_PROTO", "https"),
    )  # fmt: skip
    def test_behind_a_proxy_that_speaks_tls(self) -> None:
        plain = self.client.get("/api/session")
        self.assertEqual((plain.status_code, plain["Location"]), (301, "https://testserver/api/session"))
        self.assertEqual(self.client.get("/health").status_code, 200)
        safe = self.client.get("/api/session", headers={"X-Forwarded-Proto": "https"})
        self.assertEqual((safe.status_code, safe["Strict-Transport-Security"]), (401, "max-age=60"))
