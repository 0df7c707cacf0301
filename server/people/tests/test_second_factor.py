"""Signing in with a second factor, where one is signed in, and what a depot's lead sees of it.

Codes are checked against the example values of RFC 6238, appendix B (SHA-1), in `test_the_codes_are_those_of_the_standard`.
"""

import base64
import hashlib
import hmac
import json
from typing import Any
from unittest.mock import patch

from django.test import Client
from django_otp.oath import TOTP
from django_otp.plugins.otp_static.models import StaticDevice

from jobs.tests.world import PASSWORDS, WorldTestCase
from people.models import Depot, Person, SignedIn, Taken
from people.session_store import SessionStore

PHONE = "Something/5.0 (Palm; Mobile)"


def code_at(secret: str, seconds: float) -> str:
    """RFC 4226, 5.3 and RFC 6238, 4.2: six digits of the HMAC over the count of half minutes."""
    key = base64.b32decode(secret + "=" * (-len(secret) % 8))
    digest = hmac.new(key, int(seconds // 30).to_bytes(8, "big"), hashlib.sha1).digest()
    at = digest[-1] & 15
    return f"{(int.from_bytes(digest[at : at + 4], 'big') & 0x7FFFFFFF) % 1_000_000:06d}"


class Standard(WorldTestCase):
    def test_the_codes_are_those_of_the_standard(self) -> None:
        """RFC 6238, appendix B, SHA-1, the last six of the eight digits; the key is its ASCII "12345678901234567890"."""
        secret = base64.b32encode(b"12345678901234567890").decode()
        for seconds, digits in (
            (59, "94287082"),
            (1111111109, "07081804"),
            (1234567890, "89005924"),
            (20000000000, "65353130"),
        ):
            self.assertEqual(code_at(secret, seconds), digits[-6:])
            counted = TOTP(b"12345678901234567890", digits=8)
            counted.time = seconds
            self.assertEqual(f"{counted.token():08d}", digits)


class SecondFactor(WorldTestCase):
    now = 1_900_000_000.0

    def setUp(self) -> None:
        self.clock = self.enterContext(patch("django_otp.plugins.otp_totp.models.time.time", lambda: self.now))

    def sign(self, username: str, status: int, code: str = "", client: Client | None = None, agent: str = "") -> Any:
        body = json.dumps({"username": username, "password": PASSWORDS[username], "code": code})
        who = client or self.client
        return self.answer(
            who.post("/api/session", body, content_type="application/json", headers={"User-Agent": agent}), status
        )

    def taken_into_use(self) -> tuple[str, list[str]]:
        self.sign("wennick", 200)
        offer = self.post("account/second-factor", {})
        self.assertTrue(offer["picture"].startswith("data:image/svg+xml"))
        self.assertIn(
            "expected the six digits",
            self.put("account/second-factor", {"code": "000000"}, 422)["faults"][0]["expected"],
        )
        # a wrong code slows down the next
        self.now += 30
        codes = self.put("account/second-factor", {"code": code_at(offer["secret"], self.now)})["codes"]
        return offer["secret"], codes

    def test_who_has_one_is_asked_for_a_code_and_each_code_counts_once(self) -> None:
        secret, written = self.taken_into_use()
        self.assertEqual(len(set(written)), 10)
        self.client.delete("/api/session")
        self.assertEqual(self.sign("wennick", 401)["title"], "A code is needed")
        self.now += 30
        code = code_at(secret, self.now)
        self.sign("wennick", 200, f"{code[:3]} {code[3:]}")
        self.client.delete("/api/session")
        self.assertIn("was used", self.sign("wennick", 401, code)["detail"])
        # the codes written down were slowed down by that as well
        StaticDevice.objects.update(throttling_failure_count=0)
        self.sign("wennick", 200, written[0].upper())
        self.client.delete("/api/session")
        self.sign("wennick", 401, written[0])

    def test_wrong_codes_count_as_wrong_passwords_do(self) -> None:
        self.taken_into_use()
        self.client.delete("/api/session")
        statuses = []
        for _ in range(7):
            body = json.dumps({"username": "wennick", "password": PASSWORDS["wennick"], "code": "123456"})
            statuses.append(self.client.post("/api/session", body, content_type="application/json").status_code)
        self.assertEqual(statuses[-1], 429)

    def test_it_is_taken_away_with_the_password_or_by_the_lead(self) -> None:
        self.taken_into_use()
        self.assertIn("already", self.post("account/second-factor", {}, 400)["detail"])
        self.ask_delete("account/second-factor", {"password": "no"}, 400)
        self.assertTrue(self.get("account")["second_factor"])
        self.assertFalse(
            self.ask_delete("account/second-factor", {"password": PASSWORDS["wennick"]}, 200)["second_factor"]
        )
        self.now += 300
        self.taken_into_use()
        self.ask_delete("people/wennick/second-factor", {}, 403)
        self.sign_in("corm")
        self.assertEqual(
            [each["username"] for each in self.get("people")["items"] if each["second_factor"]], ["wennick"]
        )
        self.assertFalse(self.ask_delete("people/wennick/second-factor", {}, 200)["second_factor"])
        self.sign("wennick", 200)

    def ask_delete(self, path: str, body: Any, status: int) -> Any:
        return self.answer(
            self.client.delete(f"/api/{path}", json.dumps(body), content_type="application/json"), status
        )

    def test_a_code_is_not_taken_without_the_password(self) -> None:
        secret, _ = self.taken_into_use()
        self.client.delete("/api/session")
        self.now += 30
        body = json.dumps({"username": "wennick", "password": "no", "code": code_at(secret, self.now)})
        answer = self.client.post("/api/session", body, content_type="application/json")
        self.assertEqual((answer.status_code, answer.json()["title"]), (401, "Not signed in"))

    def test_where_one_is_signed_in_is_listed_and_ended(self) -> None:
        elsewhere, third = Client(), Client()
        self.sign("wennick", 200)
        self.sign("wennick", 200, client=elsewhere, agent=PHONE)
        self.sign("corm", 200, client=third)
        shown = self.get("account")["sessions"]
        self.assertEqual([(each["here"], each["on_a_phone"]) for each in shown], [(False, True), (True, False)])
        self.ask_delete(f"account/sessions/{'0' * 16}", {}, 404)
        self.ask_delete(f"account/sessions/{shown[0]['id']}", {}, 200)
        self.answer(elsewhere.get("/api/session"), 401)
        self.answer(third.get("/api/session"), 200)
        self.assertEqual(len(self.get("account")["sessions"]), 1)
        # nobody ends another's
        corm = next(each.session_key for each in SignedIn.objects.filter(person__username="corm"))
        self.ask_delete(f"account/sessions/{hashlib.sha256(corm.encode()).hexdigest()[:16]}", {}, 404)

    def test_a_new_password_ends_the_other_sessions_and_keeps_this_one_listed(self) -> None:
        elsewhere = Client()
        self.sign("wennick", 200)
        self.sign("wennick", 200, client=elsewhere)
        new = {"present": PASSWORDS["wennick"], "password": "lantern under the quay"}
        self.answer(self.client.put("/api/session/password", json.dumps(new), content_type="application/json"), 204)
        self.answer(elsewhere.get("/api/session"), 401)
        self.assertEqual([each["here"] for each in self.get("account")["sessions"]], [True])

    def test_who_asks_and_their_depot_are_read_with_the_session_as_they_stand_in_the_database(self) -> None:
        Depot.objects.update(assumptions={"our.hour": 72})
        self.sign("wennick", 200)
        session = SessionStore(self.client.session.session_key)
        session.load()
        read = session.person
        assert read is not None and read.depot is not None
        with self.assertNumQueries(0):
            mine, its = vars(read), vars(read.depot)
        person = Person.objects.get(username="wennick")
        for found, row in ((mine, person), (its, Depot.objects.get(pk=person.depot_id))):
            for field in row._meta.concrete_fields:
                self.assertEqual(found[field.attname], getattr(row, field.attname), field)
        self.assertEqual(self.get("depot")["assumptions"]["our.hour"], 72)

    def test_the_lead_sees_who_signed_in_who_could_not_and_what_was_taken_away(self) -> None:
        self.sign("wennick", 200)
        self.client.get("/api/statements.csv")
        self.get("depot/happened", 403)
        wrong = json.dumps({"username": "wennick", "password": "no"})
        self.client.post("/api/session", wrong, content_type="application/json")
        self.sign("ildro", 200, client=Client())
        self.sign("corm", 200)
        with self.assertNumQueries(3):
            shown = self.get("depot/happened")
        self.assertEqual(
            [(each["who"], each["what"], each["file"]) for each in shown["items"]],
            [("corm", "signed in", ""), ("wennick", "could not sign in", ""), ("wennick", "took away", "statements.csv"),
             ("wennick", "signed in", "")],
        )  # fmt: skip
        self.assertEqual({each["came_from"] for each in shown["items"]}, {"127.0.0.1"})
        self.assertEqual((shown["total"], Taken.objects.count()), (4, 1))
        self.sign_in("ildro")
        Person.objects.filter(username="ildro").update(role="parts_lead")
        self.assertEqual({each["who"] for each in self.get("depot/happened")["items"]}, {"ildro"})
