import json
from typing import Any

from django.test import Client, TestCase

from people.models import Depot, Person

NEW = {"username": "tarl", "name": "Orla Tarl", "role": "technician", "password": "torch-light-lamp-42"}


class Staffing(TestCase):
    """The people of a depot: their parts lead adds them, and nobody else."""

    def setUp(self) -> None:
        self.depot = Depot.objects.create(name="Low Harbour", code="LH")
        self.lead = self.made("corm", self.depot, Person.Role.PARTS_LEAD)
        self.made("far", Depot.objects.create(name="High Harbour", code="HH"), Person.Role.PARTS_LEAD)
        self.enter("corm")

    def made(self, username: str, depot: Depot, role: Person.Role) -> Person:
        return Person.objects.create_user(username, password="spare-parts-77", depot=depot, role=role)

    def enter(self, username: str, password: str = "spare-parts-77", status: int = 200) -> None:
        self.say("post", "session", {"username": username, "password": password}, status)

    def say(self, how: str, path: str, body: Any = None, status: int = 200) -> Any:
        send = getattr(self.client, how)
        response = (
            send(f"/api/{path}", json.dumps(body), content_type="application/json") if body else send(f"/api/{path}")
        )
        self.assertEqual(response.status_code, status, response.content)
        return json.loads(response.content or "null")

    def test_somebody_added_signs_in_and_is_seen_by_this_depot_alone(self) -> None:
        self.say("post", "people", NEW)
        shown = self.say("get", "people")["items"]
        self.assertEqual([(each["username"], each["you"]) for each in shown], [("corm", True), ("tarl", False)])
        self.enter("tarl", "torch-light-lamp-42")
        self.say("post", "people", NEW | {"username": "more"}, 403)
        self.enter("far")
        self.assertEqual(self.say("get", "people")["total"], 1)
        self.say("put", "people/tarl", {"role": "technician", "active": False}, 404)

    def test_all_that_is_wrong_is_said_and_nobody_is_half_added(self) -> None:
        wrong = self.say("post", "people", NEW | {"username": "O T", "password": "password12"}, 422)
        self.assertEqual({each["place"] for each in wrong["faults"]}, {"username", "password"})
        taken = self.say("post", "people", NEW | {"username": "far"}, 422)
        self.assertEqual([each["place"] for each in taken["faults"]], ["username"])
        self.assertEqual(Person.objects.count(), 2)

    def test_who_does_not_sign_in_any_more_is_out_at_once(self) -> None:
        self.say("post", "people", NEW)
        theirs = Client()
        theirs.force_login(Person.objects.get(username="tarl"), "django.contrib.auth.backends.ModelBackend")
        self.say("put", "people/tarl", {"name": "Orla Tarl", "role": "technician", "active": False})
        self.assertEqual(theirs.get("/api/session").status_code, 401)
        self.enter("tarl", "torch-light-lamp-42", 401)

    def test_a_lost_device_is_out_and_told_once_to_forget_everything(self) -> None:
        self.say("post", "people", NEW)
        theirs = Client()
        theirs.post(
            "/api/session", {"username": NEW["username"], "password": NEW["password"]}, content_type="application/json"
        )
        self.assertEqual(theirs.get("/api/session").status_code, 200)
        kept = theirs.cookies["sessionid"].value
        self.say("delete", f"people/{NEW['username']}/devices", None)
        told = theirs.get("/api/session")
        self.assertEqual((told.status_code, told["Clear-Site-Data"]), (401, '"cache", "cookies", "storage"'))
        theirs.cookies["sessionid"] = kept
        self.assertNotIn("Clear-Site-Data", theirs.get("/api/session"))
        self.assertNotIn("Clear-Site-Data", Client().get("/api/session"))

    def test_a_depot_keeps_a_lead_who_signs_in(self) -> None:
        for change in ({"role": "technician", "active": True}, {"role": "parts_lead", "active": False}):
            self.say("put", "people/corm", {"name": "", **change}, 400)
        self.lead.refresh_from_db()
        self.assertEqual((self.lead.role, self.lead.is_active), ("parts_lead", True))

    def test_a_forgotten_password_is_given_anew_and_ones_own_is_changed_with_the_present_one(self) -> None:
        self.say("post", "people", NEW)
        self.say("put", "people/tarl/password", {"password": "12345678"}, 422)
        self.say("put", "people/tarl/password", {"password": "lantern-77-up-and-on"})
        self.enter("tarl", "lantern-77-up-and-on")
        self.say("put", "session/password", {"present": "no", "password": "lamp-oil-8812-more"}, 400)
        self.say("put", "session/password", {"present": "lantern-77-up-and-on", "password": "lamp-oil-8812-more"}, 204)
        self.assertEqual(self.say("get", "session")["username"], "tarl")
        self.enter("tarl", "lamp-oil-8812-more")
