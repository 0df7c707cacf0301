import json
from typing import Any

from django.test import Client

from jobs.tests.world import PASSWORDS, WorldTestCase


class SignIn(WorldTestCase):
    def sign(self, username: str, password: str) -> Any:
        body = json.dumps({"username": username, "password": password})
        return self.client.post("/api/session", body, content_type="application/json")

    def test_right_and_wrong(self) -> None:
        self.assertEqual(self.sign("wennick", "wrong").status_code, 401)
        self.assertEqual(
            self.sign("wennick", PASSWORDS["wennick"]).json()["depot"], "Saltmarsh Quay Bakery Plant Service"
        )
        self.assertEqual(self.get("session")["role"], "technician")
        self.assertEqual(self.client.delete("/api/session").status_code, 204)
        self.get("session", 401)

    def test_five_wrong_passwords_mean_rest_even_for_the_right_one(self) -> None:
        for _ in range(5):
            last = self.sign("wennick", "wrong")
        self.assertEqual(last.status_code, 429)
        again = self.sign("wennick", PASSWORDS["wennick"])
        self.assertEqual((again.status_code, again["Content-Type"]), (429, "application/problem+json"))
        self.assertEqual(self.sign("corm", PASSWORDS["corm"]).status_code, 200)

    def test_everything_but_signing_in_needs_a_sign_in(self) -> None:
        for path in ("jobs", "boards", "families", "session", "board/TVH-2205", f"jobs/{self.job(1).pk}/sheet.pdf"):
            self.get(path, 401)
        self.post("jobs", {}, 401)

    def test_changes_need_the_form_token(self) -> None:
        strict = Client(enforce_csrf_checks=True)
        strict.cookies = self.client.cookies
        self.sign("wennick", PASSWORDS["wennick"])
        response = strict.post("/api/jobs", "{}", content_type="application/json")
        self.assertEqual(response.status_code, 403)


class Pages(WorldTestCase):
    def test_unknown_addresses_are_problems_in_the_api_and_the_client_elsewhere(self) -> None:
        self.get("nothing-here", 404)
        page = self.client.get("/jobs/anything")
        self.assertEqual(page.status_code, 200)
        self.assertIn("default-src 'self'", page["Content-Security-Policy"])
