import json
from typing import Any

from django.test import TestCase

from people.models import Depot, Person

GIVEN = {
    "depot": "Low Harbour", "code": "lh", "username": "tarl", "name": "Wennick Tarl", "password": "torch-light-lamp-42",
}  # fmt: skip


class Opening(TestCase):
    """The first depot of an installation: once, by whoever opens it first."""

    def open(self, status: int, **more: Any) -> Any:
        response = self.client.post("/api/opening", json.dumps(GIVEN | more), content_type="application/json")
        self.assertEqual(response.status_code, status, response.content)
        return json.loads(response.content)

    def test_the_first_depot_and_its_lead_are_made_and_signed_in(self) -> None:
        self.assertEqual(self.client.get("/api/opening").json(), {"first": True})
        me = self.open(200)
        self.assertEqual((me["depot"], me["role"], me["name"]), ("Low Harbour", "parts_lead", "Wennick Tarl"))
        self.assertEqual(self.client.get("/api/session").json()["username"], "tarl")
        self.assertEqual(self.client.get("/api/opening").json(), {"first": False})
        self.assertEqual(Depot.objects.get().code, "LH")
        self.assertTrue(Person.objects.get().check_password("torch-light-lamp-42"))

    def test_nobody_can_make_another_one_so(self) -> None:
        self.open(200)
        self.client.logout()
        self.assertIn("There is a depot already", self.open(400, code="XX", username="other")["detail"])
        self.assertEqual((Depot.objects.count(), Person.objects.count()), (1, 1))

    def test_what_is_wrong_is_said_at_its_place_and_nothing_is_half_made(self) -> None:
        wrong = self.open(422, code="a b", depot="  ", username="W T", password="password12")
        self.assertEqual({each["place"] for each in wrong["faults"]}, {"code", "depot", "username", "password"})
        self.assertEqual((Depot.objects.count(), Person.objects.count()), (0, 0))
