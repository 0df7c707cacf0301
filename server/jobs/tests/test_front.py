"""Policies, guides, and how often the pages of the front ask the database."""

from catalogue.tests.test_queries import QueryCounts
from jobs.models import Job
from jobs.tests.world import WorldTestCase
from people.models import Depot


class Policies(WorldTestCase):
    def test_a_parts_lead_sets_how_the_depot_works(self) -> None:
        self.sign_in("corm")
        depot = self.get("depot")
        body = {"rule_out_school": "trust the code", "change_companions": False,
                "assumptions": {**depot["assumptions"], "hour_rate": 80}}  # fmt: skip
        self.put("depot", body)
        self.assertEqual(Depot.objects.get(code="SQ").assumptions, {"hour_rate": 80})
        self.assertEqual(self.get("depot")["assumptions"]["hour_rate"], 80)
        self.put("depot", {**body, "rule_out_school": "guess"}, 422)
        self.put("depot", {**body, "assumptions": {"weather": 1}}, 422)
        self.put("depot", {**body, "assumptions": {"travel": -1}}, 422)
        self.sign_in("wennick")
        self.put("depot", body, 403)


class Queries(QueryCounts):
    def test_pages_of_the_front_take_a_fixed_number_of_queries(self) -> None:
        job = Job.objects.get(number=3, depot__code="SQ")
        for path, queries in (("rule-out", 5), ("machine", 3), ("key", 7), ("beside/OFN-U3", 5), ("costs", 5)):
            self.get(f"jobs/{job.pk}/{path}")
            with self.subTest(path):
                self.counted(queries, f"jobs/{job.pk}/{path}")


class Guides(WorldTestCase):
    def test_rule_out_data_and_nameplates_are_edited_as_files(self) -> None:
        self.sign_in("corm")
        self.assertEqual(self.get("guides")["total"], 11)
        text = self.client.get("/api/guide-file/rule-out/deck-oven").content.decode()
        changed = text.replace('"A blown fuse"', '"The fuse"')
        loaded = self.answer(self.client.post("/api/documents", changed, content_type="application/json"), 200)
        self.assertEqual((loaded["kind"], loaded["name"], loaded["revision"]), ("rule-out", "deck-oven", 2))
        broken = text.replace('"rest": true', '"rest": false', 1)
        self.answer(self.client.post("/api/documents", broken, content_type="application/json"), 422)
        elsewhere = text.replace('"family": "deck-oven"', '"family": "kettle"')
        answer = self.answer(self.client.post("/api/documents", elsewhere, content_type="application/json"), 422)
        self.assertIn("kettle", str(answer["faults"]))
        self.get("guide-file/rule-out/none", 404)
