"""What is limited: how much somebody sends, how often a password is tried; and what ends with a sign-out."""

import json
from datetime import UTC, datetime, timedelta
from typing import Any
from unittest.mock import patch

from axes.models import AccessFailureLog, AccessLog
from django.contrib.auth import SESSION_KEY
from django.http import HttpRequest
from django.test import Client, RequestFactory

from jobs.tests.world import PASSWORDS, WorldTestCase
from people import bodies
from people.access import still_signed_in
from people.models import Person, Sent
from people.tries import MOST_FOR_ONE_NAME, MOST_FROM_ONE_ADDRESS, address_of, too_many

NOW = datetime(2026, 3, 2, 3, 20, tzinfo=UTC)


class Bodies(WorldTestCase):
    def sent(self, path: str, size: int, username: str = "", kind: str = "application/octet-stream") -> int:
        """The status of a request that says it is of this size, before anything of it is read; 0 where it goes on."""
        request = RequestFactory().post(path, b"", content_type=kind, headers={"Content-Length": str(size)})
        request.META["CONTENT_LENGTH"] = str(size)
        request.user = Person.objects.get(username=username) if username else None  # type: ignore[assignment]
        answer = bodies.refused(request, NOW)
        return answer.status_code if answer else 0

    def test_what_is_too_large_is_refused_before_it_is_read(self) -> None:
        mb = 1_000_000
        for path, size, username, status in (
            ("/api/session", 20_000, "", 413),
            ("/api/session", 200, "", 0),
            ("/api/packages", 150 * mb, "", 413),
            ("/api/packages", 150 * mb, "wennick", 403),
            ("/api/packages", 150 * mb, "corm", 0),
            ("/api/packages", 450 * mb, "corm", 413),
            ("/api/imports", 150 * mb, "wennick", 403),
            ("/api/jobs/x/entries", 3 * mb, "wennick", 413),
            ("/api/jobs/x/pictures/y", 11 * mb, "wennick", 0),
            ("/api/jobs/x/pictures/y/bank", 11 * mb, "wennick", 413),
            ("/api/pictures/table", 13 * mb, "wennick", 413),
            ("/api/board-picture/y/of/TVH-2205", 11 * mb, "wennick", 0),
            ("/nothing", 3 * mb, "wennick", 413),
        ):
            self.assertEqual(self.sent(path, size, username), status, (path, size, username))

    def test_of_what_is_refused_nothing_is_read(self) -> None:
        with patch.object(HttpRequest, "read", side_effect=AssertionError("read")):
            answer = self.client.post("/api/jobs", b"x" * 20_000, content_type="application/json")
        self.assertEqual((answer.status_code, answer["Content-Type"]), (413, "application/problem+json"))
        self.assertIn("10 kB", answer.json()["detail"])

    def test_one_person_sends_so_much_an_hour_and_no_more(self) -> None:
        sends = [self.sent("/api/jobs/x/pictures/y", 12_000_000, "wennick") for _ in range(52)]
        self.assertEqual((sends[:50], set(sends[50:])), ([0] * 50, {429}))
        # somebody else does, and the next hour the same person does
        self.assertEqual(self.sent("/api/jobs/x/pictures/y", 12_000_000, "corm"), 0)
        Sent.objects.update(hour=NOW - timedelta(hours=1))
        self.assertEqual(self.sent("/api/jobs/x/pictures/y", 12_000_000, "wennick"), 0)


class Tries(WorldTestCase):
    def sign(self, username: str, password: str, **headers: Any) -> Any:
        body = json.dumps({"username": username, "password": password})
        return Client().post("/api/session", body, content_type="application/json", **headers)

    def test_one_address_does_not_try_name_after_name(self) -> None:
        statuses = [self.sign(f"name{n}", "wrong").status_code for n in range(MOST_FROM_ONE_ADDRESS + 1)]
        self.assertEqual((set(statuses[:-1]), statuses[-1]), ({401}, 429))
        self.assertEqual(self.sign("wennick", PASSWORDS["wennick"]).status_code, 429)
        # from elsewhere the same person signs in, and after a while from here
        self.assertEqual(self.sign("wennick", PASSWORDS["wennick"], REMOTE_ADDR="10.0.0.9").status_code, 200)
        AccessFailureLog.objects.update(attempt_time=datetime.now(UTC) - timedelta(minutes=16))
        self.assertEqual(self.sign("wennick", PASSWORDS["wennick"]).status_code, 200)

    def test_one_name_is_not_tried_from_address_after_address(self) -> None:
        # the other ones were before its last sign-in
        for address, minutes in (("10.1.1.1", 10), ("10.1.1.2", 5)):
            at = datetime.now(UTC) - timedelta(minutes=minutes)
            AccessFailureLog.objects.bulk_create(
                AccessFailureLog(username="wennick", ip_address=address) for _ in range(MOST_FOR_ONE_NAME)
            )
            AccessFailureLog.objects.filter(ip_address=address).update(attempt_time=at)
            if address == "10.1.1.1":
                self.assertEqual(self.sign("wennick", "x").status_code, 429)
                AccessLog.objects.create(username="wennick")
                AccessLog.objects.update(attempt_time=at + timedelta(minutes=1))
                self.assertEqual(self.sign("wennick", PASSWORDS["wennick"]).status_code, 200)
                AccessLog.objects.update(attempt_time=at + timedelta(minutes=1))
        self.assertEqual(self.sign("wennick", PASSWORDS["wennick"]).status_code, 429)
        # the next day it opens by itself
        tomorrow = datetime.now(UTC) + timedelta(days=1)
        self.assertFalse(too_many(RequestFactory().get("/"), "wennick", tomorrow))
        # the depot's lead lets that person in again at once, with another password
        self.sign_in("corm")
        self.put("people/wennick/password", {"password": "another-lamp-77-lit"})
        self.assertEqual(self.sign("wennick", "another-lamp-77-lit").status_code, 200)

    def test_behind_our_own_proxies_the_address_is_what_the_outermost_saw(self) -> None:
        request = RequestFactory().get("/", headers={"X-Forwarded-For": "6.6.6.6, 10.0.0.1, 10.0.0.2"})
        for proxies, address in ((0, "127.0.0.1"), (1, "10.0.0.2"), (2, "10.0.0.1"), (5, "127.0.0.1")):
            with self.settings(PROXIES=proxies):
                self.assertEqual(address_of(request), address)


class SignedOut(WorldTestCase):
    def request(self) -> HttpRequest:
        """A request of the one who is signed in, as an answer that goes on for long keeps it."""
        request = RequestFactory().get("/")
        request.session = self.client.session
        request.user = Person.objects.get(pk=request.session[SESSION_KEY])
        return request

    def test_an_answer_that_goes_on_ends_with_the_sign_out_or_the_person(self) -> None:
        self.sign_in()
        request = self.request()
        self.assertTrue(still_signed_in(request))
        self.client.delete("/api/session")
        self.assertFalse(still_signed_in(request))
        self.sign_in()
        request = self.request()
        Person.objects.filter(username="wennick").update(is_active=False)
        self.assertFalse(still_signed_in(request))
