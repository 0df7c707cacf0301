"""A job in which it was not the board: put right, power back in order, looked at, priced, papers, and closed when asked."""

import io
from typing import Any
from uuid import uuid4

from pypdf import PdfReader

from jobs.models import Job
from jobs.tests.world import FrontTestCase

FUSE: dict[str, Any] = {"kind": "fuse", "what": "2 A, in the panel", "part": "F-2A"}


class ClearedBoard(FrontTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.add("family", "deck-oven")

    def clear(self) -> Any:
        return self.add("confirmed.rule_out", {"note": "blown fuse", "end": "cleared"})

    def step(self, name: str) -> Any:
        return next(step for step in self.get(f"jobs/{self.open.pk}")["steps"] if step["id"] == name)

    def released(self) -> list[str]:
        return [point["id"] for point in self.of("make-safe")["points"]][::-1]

    def test_it_is_not_closed_by_being_cleared_and_leaves_out_what_is_not_needed(self) -> None:
        self.add("confirmed.rule_out", {"note": "", "end": "cleared"}, 400)
        shown = self.clear()
        self.assertEqual((shown["closed"], shown["step"]), (False, "rule_out"))
        self.assertEqual(shown["steps"][0]["result"], "Board cleared: blown fuse")
        left_out = [step["id"] for step in shown["steps"] if step["state"] == "left out"]
        self.assertEqual(left_out, ["recognise", "choose", "record", "carry_over", "fit"])
        self.add(f"repair.{uuid4()}", {"kind": "magic", "what": "x"}, 422)
        self.add(f"repair.{uuid4()}", {"kind": "fuse", "what": ""}, 422)
        self.assertEqual(self.add(f"repair.{uuid4()}", FUSE)["step"], "prove")

    def test_the_lock_off_goes_in_order_before_the_machine_is_looked_at_or_handed_over(self) -> None:
        self.make_dead(self.open)
        self.clear()
        removed = str(uuid4())
        self.add(f"removed.{removed}", {"what": "panel", "kind": "panel"})
        shown = self.add(f"repair.{uuid4()}", FUSE)
        self.assertEqual((shown["step"], self.step("prove")["waits_for"]), ("make_safe", ["energised"]))
        self.add("check.supply", {"ok": True}, 400)
        self.add("energised", {"released": self.released()[::-1]}, 422)
        refused = self.add("energised", {"released": self.released()}, 400)
        self.assertIn("taken off and not back on: panel", refused["detail"])
        kept = self.get(f"jobs/{self.open.pk}")["removed"][removed]
        self.entry(self.open, f"removed.{removed}", {"what": "panel", "kind": "panel", "back": True}, kept)
        shown = self.add("energised", {"released": self.released()})
        self.assertEqual((shown["power"], shown["step"]), ("on", "prove"))

    def test_it_is_looked_at_priced_printed_and_closed(self) -> None:
        self.clear()
        self.add(f"repair.{uuid4()}", FUSE)
        proving = self.of("proving")
        self.assertIn("nothing was looked at", proving["doubts"][0])
        self.assertEqual((proving["runs"], proving["unproved"]), ([], []))
        self.assertIn("speaks against it", self.add("confirmed.prove", {"note": ""}, 400)["detail"])
        fan = next(each for each in proving["checks"] if each["id"] == "output/fan")
        self.add(f"check.{fan['id']}", {"ok": True})
        self.assertEqual(self.add("confirmed.prove", {"note": ""})["step"], "hand_over")
        self.add("spent.minutes", 25)
        over = self.of("hand-over")
        self.assertEqual((over["codes"], over["findings"], over["unproved"]), ([], [], []))
        sheet = self.text("sheet.pdf")
        for words in ("It was not the board: blown fuse", "fuse: 2 A, in the panel, F-2A", "Looked at on the machine"):
            self.assertIn(words, sheet)
        customer = self.text("customer.pdf")
        for words in ("It was not the control board: blown fuse", "fuse: 2 A, in the panel, F-2A", "25 minutes"):
            self.assertIn(words, customer)
        self.assertTrue(self.add("confirmed.hand_over", {"note": ""})["closed"])
        self.assertEqual(self.partings(Job.objects.get(pk=self.open.pk)), [])

    def test_it_is_not_handed_over_while_the_lock_off_stands(self) -> None:
        self.clear()
        self.add(f"repair.{uuid4()}", FUSE)
        self.add("check.supply", {"ok": True})
        self.add("confirmed.prove", {"note": ""})
        self.make_dead(self.open)
        refused = self.add("confirmed.hand_over", {"note": ""}, 400)
        self.assertIn("lock-off still stands", refused["detail"])

    def test_a_board_that_is_not_cleared_any_more_was_not_looked_at(self) -> None:
        self.clear()
        self.add(f"repair.{uuid4()}", FUSE)
        self.add("check.supply", {"ok": True})
        self.add("confirmed.prove", {"note": ""})
        # a symptom that is said afterwards opens ruling out again
        shown = self.add("symptom.dead", "yes")
        self.assertEqual((shown["step"], self.step("prove")["state"]), ("rule_out", "waiting"))

    def test_a_machine_of_no_known_kind_is_looked_at_all_the_same(self) -> None:
        self.open = Job.objects.get(pk=self.job_shown(self.new_job()).pk)
        self.clear()
        self.add(f"repair.{uuid4()}", {"kind": "wire", "what": "loose on the switch"})
        self.assertEqual([each["id"] for each in self.of("proving")["checks"]], ["supply", "codes", "leaks"])
        self.add("check.supply", {"ok": True})
        self.add("confirmed.prove", {"note": ""})
        self.assertIn("wire: loose on the switch", self.text("customer.pdf"))

    def new_job(self) -> Any:
        return self.post("jobs", {"id": str(uuid4()), "machine": "Proofing cupboard", "complaint": ""})

    def text(self, paper: str) -> str:
        found = PdfReader(io.BytesIO(self.client.get(f"/api/jobs/{self.open.pk}/{paper}").content))
        return " ".join(" ".join(page.extract_text() for page in found.pages).split())
