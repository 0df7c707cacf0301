"""Hold points over the API: what makes them hold, what closes them again, and what is shown when one is skipped."""

import io
from datetime import timedelta
from typing import Any
from unittest.mock import patch

from django.utils import timezone
from pypdf import PdfReader

from jobs.tests.world import SAID, FrontTestCase


class MakeSafe(FrontTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.open = self.job(3)
        self.entry(self.open, "power", "on", "off")
        self.now = timezone.now()

    def hold(self, name: str, said: Any, status: int = 200, later_s: float = 0, **more: Any) -> Any:
        with patch("jobs.api.timezone.now", return_value=self.now + timedelta(seconds=later_s)):
            return self.entry(self.open, f"hold.{name}", said, status=status, **more)

    def points(self, later_s: float = 0) -> dict[str, Any]:
        with patch("jobs.steps.make_safe.api.timezone.now", return_value=self.now + timedelta(seconds=later_s)):
            return {point["id"]: point for point in self.of("make-safe")["points"]}

    def test_power_that_comes_back_starts_every_hold_point_anew(self) -> None:
        self.assertEqual({each["held"] for each in self.points().values()}, {None})
        self.add("found.S1", "010110", 400, read_how="by eye")
        self.make_dead(self.open)
        self.assertEqual(self.of("make-safe")["power"], "off")
        self.add("found.S1", "010110", read_how="by eye")
        self.add("family", "deck-oven", before="deck-oven")
        self.make_dead(self.open)
        self.add("test.control", {"value": 24.2, "restored": True})
        shown = self.get(f"jobs/{self.open.pk}")
        self.assertEqual((shown["power"], shown["holds"]), ("on", {}))
        self.assertEqual(next(s for s in shown["steps"] if s["id"] == "make_safe")["state"], "open")
        self.add("test.fuse", {"value": 0.4, "restored": True}, 400)

    def test_the_wait_runs_on_the_servers_clock_and_only_a_reading_ends_it(self) -> None:
        self.assertIn("starts when the supply is locked off", self.refused("stored", {"reading": 3}))
        self.hold("isolate", {"where": "main switch", "tag": "9"})
        wait = self.points()["stored"]
        self.assertAlmostEqual(wait["wait_s"], 8.18, places=1)
        self.assertAlmostEqual(wait["left_s"], wait["wait_s"], places=2)
        self.assertAlmostEqual(self.points(later_s=5)["stored"]["left_s"], wait["wait_s"] - 5, places=2)
        self.assertIn("more, then measure", self.hold("stored", {"reading": 3}, 422, later_s=4)["detail"])
        self.assertEqual(self.points(later_s=60)["stored"]["left_s"], 0)
        self.assertIsNone(self.points(later_s=60)["stored"]["held"])
        self.assertIn("not below 60 V", self.hold("stored", {"reading": 88}, 422, later_s=20)["detail"])
        self.hold("stored", {"reading": 3.5}, later_s=20)
        self.assertEqual(self.points()["stored"]["held"]["reading"], 3.5)

    def refused(self, name: str, said: Any) -> str:
        problem = self.entry(self.open, f"hold.{name}", said, status=400)
        return str(problem["detail"]) + " starts when the supply is locked off" if "First" in problem["detail"] else ""

    def test_proving_dead_asks_for_the_instrument_before_and_after(self) -> None:
        said = {name: SAID[name] for name in ("instrument", "checked_before", "reading", "checked_after")}
        self.assertIn("isolate", self.hold("dead", said, 400)["detail"].lower())
        self.hold("isolate", {"where": "main switch", "tag": "9"})
        self.assertIn("checked again after", self.hold("dead", {**said, "checked_after": False}, 422)["detail"])
        self.assertIn("still feeds it", self.hold("dead", {**said, "reading": 230}, 422)["detail"])
        self.hold("dead", {**said, "colour": "red"}, 422)
        self.hold("nothing", said, 422)
        for name, odd in (("instrument", []), ("checked_before", "yes"), ("instrument", {"a": 1})):
            self.hold("dead", {**said, name: odd}, 422)
        self.hold("dead", said)
        self.assertIn("Still open", self.add("confirmed.make_safe", {"note": ""}, 400)["detail"])

    def test_skipping_takes_a_reason_that_stands_on_every_later_page_and_on_the_sheet(self) -> None:
        self.assertIn("say why", self.hold("gas", {"skipped": True}, 422)["detail"])
        self.hold("gas", {"skipped": True}, reason="Cock is seized; gas shut in the street by the supplier")
        self.make_dead(self.open)
        shown = self.get(f"jobs/{self.open.pk}")["skipped"]
        self.assertEqual([each["title"] for each in shown], ["Gas cock shut", "Stored energy gone"])
        text = " ".join(PdfReader(io.BytesIO(self.client.get(f"/api/jobs/{self.open.pk}/sheet.pdf").content)).pages[0]
                        .extract_text().split())  # fmt: skip
        self.assertIn(
            "SKIPPED hold point: Gas cock shut — Cock is seized; gas shut in the street by the supplier", text
        )
        plan = PdfReader(io.BytesIO(self.client.get(f"/api/jobs/{self.open.pk}/plan.pdf").content)).pages[0]
        self.assertIn("Skipped hold point: Gas cock shut", " ".join(plan.extract_text().split()))

    def test_taking_the_lock_back_is_power_that_comes_back(self) -> None:
        self.make_dead(self.open)
        held = self.get(f"jobs/{self.open.pk}")["holds"]["isolate"]
        shown = self.entry(self.open, "hold.isolate", None, held)
        self.assertEqual((shown["power"], shown["holds"]), ("on", {}))

    def test_a_board_that_stores_more_opens_the_hold_points_again(self) -> None:
        self.open = self.job(6)
        self.make_dead(self.open)
        shown = self.add("original", "TVH-2210-C")
        self.assertIn("make_safe", [s["id"] for s in shown["steps"] if s["state"] == "open"])
        self.make_dead(self.open)
        shown = self.add("original", "TVH-2210-B", before="TVH-2210-C")
        self.assertEqual([p["id"] for p in self.of("make-safe")["points"] if p["held"] is None][:1], ["stored"])
