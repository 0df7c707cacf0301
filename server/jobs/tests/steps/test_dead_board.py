"""A board of which nothing can be read: said at once, and its positions assumed from where somebody says."""

import io
from typing import Any
from uuid import uuid4

from pypdf import PdfReader

from jobs.models import Job
from jobs.tests.world import FrontTestCase


class DeadBoard(FrontTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.add("original", "TVH-2210-B")

    def sources(self) -> dict[str, Any]:
        return {each["source"]: each for each in self.of("assumable")}

    def test_one_entry_says_that_nothing_can_be_read_and_takes_it_back(self) -> None:
        shown = self.add("unread", {"why": "burnt"})
        self.assertEqual((shown["found"], shown["answers"]), ({"S1": "??????"}, "no"))
        self.assertEqual(shown["how"], {"S1": "nothing could be read"})
        again = self.entry(self.open, "unread", None, {"why": "burnt"})
        self.assertEqual((again["found"], again["answers"], again["unread"]), ({}, None, None))
        self.assertEqual(self.replayed(), [])

    def test_what_was_read_before_stays(self) -> None:
        self.make_dead(self.open)
        self.add("found.S1", "01?110", read_how="by eye")
        self.assertEqual(self.add("unread", {"why": "broken"})["found"], {"S1": "01?110"})
        self.assertEqual(self.entry(self.open, "unread", None, {"why": "broken"})["found"], {"S1": "01?110"})

    def test_only_what_cannot_be_read_is_assumed_and_every_place_of_it(self) -> None:
        assumed = {"value": "010110", "source": "factory"}
        self.add("assumed.S1", assumed, 400)
        self.add("unread", {"why": "burnt"})
        for wrong in ("01?110", "0101", "01011x"):
            self.add("assumed.S1", {**assumed, "value": wrong}, 422)
        self.add("assumed.S9", assumed, 422)
        self.add("assumed.S1", {**assumed, "source": "a dream"}, 422)
        self.assertEqual(self.add("assumed.S1", assumed)["assumed"]["S1"]["by"], "Wennick Tarl")

    def test_it_comes_from_another_machine_of_the_kind_or_from_the_maker(self) -> None:
        self.add("unread", {"why": "burnt"})
        sources = self.sources()
        self.assertEqual(sources["factory"]["positions"], {"S1": "000000"})
        sister = sources["sister machine"]
        self.assertIn("As on another machine of the kind: SQ-00", sister["words"])
        self.assertEqual(len(sister["positions"]["S1"]), 6)
        # its own leaflet's row holds once the machine's model is known
        self.assertNotIn("leaflet", sources)
        self.add("fact.model", {"value": "DK2", "source": "plate"})
        self.assertEqual(self.sources()["leaflet"]["of"], "leaflet 7, row 2")

    def test_an_earlier_job_on_this_machine_stands_first(self) -> None:
        other = self.job(5)
        Job.objects.filter(pk=other.pk).update(machine_key=self.open.machine_key)
        self.add("unread", {"why": "burnt"})
        first = self.of("assumable")[0]
        self.assertEqual((first["source"], first["of"]), ("earlier job", f"{other.code}, {other.machine}"))
        self.assertEqual(first["positions"], {"S1": other.state["found"]["S1"]})

    def test_jobs_of_another_depot_are_not_looked_at(self) -> None:
        self.add("unread", {"why": "burnt"})
        self.sign_in("ildro")
        self.get(f"jobs/{self.open.pk}/assumable", 404)
        Job.objects.exclude(pk=self.open.pk).update(state={})
        self.sign_in()
        self.assertEqual(set(self.sources()), {"factory"})

    def test_the_plan_rests_on_it_and_every_paper_says_so(self) -> None:
        self.add("replacement", "TVH-2210-C", reason="its successor")
        self.add("unread", {"why": "burnt"})
        open_before = [row["verdict"] for row in self.of("comparison")["rows"]]
        self.assertIn("open", open_before)
        self.add("assumed.S1", {"value": "010110", "source": "sister machine", "of": "SQ-0005, Deck oven 4"})
        comparison = self.of("comparison")
        self.assertNotIn("open", [row["verdict"] for row in comparison["rows"]])
        self.assertEqual(comparison["found"], {"S1": "010110"})
        sheet = PdfReader(io.BytesIO(self.client.get(f"/api/jobs/{self.open.pk}/sheet.pdf").content))
        text = " ".join(" ".join(page.extract_text() for page in sheet.pages).split())
        self.assertIn(
            "Assumed: S1 could not be read and is taken as 010110, as on another machine of the kind, SQ-0005, Deck oven 4",
            text,
        )
        self.assertIn("Nothing on the old board could be read: burnt", text)

    def test_what_is_read_after_all_takes_the_place_of_the_assumption(self) -> None:
        self.make_dead(self.open)
        self.add("unread", {"why": "burnt"})
        self.add("assumed.S1", {"value": "010110", "source": "factory"})
        shown = self.add("found.S1", "110110", before="??????", read_how="by eye")
        self.assertEqual((shown["assumed"], shown["found"]), ({}, {"S1": "110110"}))
        self.assertEqual(self.replayed(), [])

    def replayed(self) -> list[str]:
        return self.partings(Job.objects.get(pk=self.open.pk))


class WayIn(FrontTestCase):
    def test_what_came_off_the_last_time_is_offered_piece_by_piece(self) -> None:
        self.assertIsNone(self.of("way-in"))
        self.add("original", "TVH-2210-B")
        other = self.job(3)
        for what, kind in (("front panel", "panel"), ("lid screws", "screw")):
            self.entry(other, f"removed.{uuid4()}", {"what": what, "kind": kind, "count": 4 if kind == "screw" else 1})
        way = self.of("way-in")
        self.assertEqual(way["of"], f"{other.code}, {other.machine}")
        self.assertEqual(
            [(each["what"], each["count"]) for each in way["pieces"]], [("front panel", 1), ("lid screws", 4)]
        )
        self.make_dead(self.open)
        self.add(f"removed.{uuid4()}", {"what": "front panel", "kind": "panel"})
        self.assertEqual([each["what"] for each in self.of("way-in")["pieces"]], ["lid screws"])
