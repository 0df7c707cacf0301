from typing import Any
from uuid import uuid4

from jobs.models import Job
from jobs.tests.world import WorldTestCase

LINES = "S1 bank 4, on up, from left; R1 dial 0..3; C1 plug 3, keyed"


class SketchJob(WorldTestCase):
    """A job on a board that was sketched at the machine."""

    def setUp(self) -> None:
        self.sign_in("wennick")
        self.post("sketches", {"part_number": "K7-100", "kind": "Tray washer", "lines": LINES})
        self.job = str(uuid4())
        self.post("jobs", {"id": self.job, "machine": "Tray washer 1"})
        self.say("confirmed.rule_out", {"note": "burnt", "end": "condemned"})
        self.say("original", "K7-100")
        self.make_dead(Job.objects.get(pk=self.job))

    def say(self, target: str, after: Any, status: int = 200, before: Any = None, **more: Any) -> Any:
        entry = {"id": str(uuid4()), "target": target, "before": before, "after": after, **more}
        return self.post(f"jobs/{self.job}/entries", entry, status)


class Following(SketchJob):
    """A job goes on with a board while the workshop completes it, and follows when somebody agrees."""

    def next_revision(self, lines: str) -> None:
        self.post("sketches", {"part_number": "K7-100", "kind": "Tray washer", "lines": lines})

    def test_a_job_stays_with_its_revision_until_somebody_takes_the_new_one_and_keeps_what_was_found(self) -> None:
        self.say("found.R1", "2", read_how="by eye")
        self.assertIsNone(self.get(f"jobs/{self.job}")["original_board"]["newer"])
        self.next_revision(f"{LINES}; J1 jumper 3")
        shown = self.get(f"jobs/{self.job}")
        self.assertEqual((shown["original_board"]["revision"], shown["original_board"]["newer"]), (1, 2))
        taken = self.say("original_profile", 2)
        self.assertEqual((taken["original_board"]["revision"], taken["original_board"]["newer"]), (2, None))
        self.assertEqual((taken["found"], taken["original"]), ({"R1": "2"}, "K7-100"))
        self.assertEqual(self.get(f"jobs/{self.job}")["original_profile"], 2)

    def test_what_jobs_could_not_read_is_told_at_the_board(self) -> None:
        self.say("found.S1", "01?0", read_how="by eye")
        self.assertEqual(self.get("board-uses/K7-100"), {
            "jobs": 1, "taught": [{"of": "S1.3", "title": "S1.3", "what": "unread", "jobs": 1}], "said": []})  # fmt: skip

    def test_a_revision_that_does_not_agree_with_what_was_recorded_says_where_and_changes_nothing(self) -> None:
        self.say("found.S1", "0110", read_how="by eye")
        self.next_revision("S1 bank 6, on up, from left")
        problem = self.say("original_profile", 2, 422)
        self.assertEqual(problem["faults"][0]["place"], "positions.S1")
        self.assertEqual(self.get(f"jobs/{self.job}")["original_board"]["revision"], 1)
        self.say("original_profile", 9, 404)
        self.say("original_profile", 0, 422)
        self.say("replacement_profile", 1, 400)


class Joining(SketchJob):
    """A sketch turns out to be a board that was there: whoever looks for it finds that one, and jobs move along."""

    KNOWN = "TVH-2210-B"

    def join(self, status: int = 200, **given: Any) -> Any:
        said = {"sketch": "K7-100", "board": self.KNOWN, "why": "the label was under the cover", **given}
        return self.post("sketches/join", said, status)

    def test_the_lead_joins_and_what_speaks_against_it_is_said_before(self) -> None:
        self.join(403)
        self.sign_in("corm")
        against = self.get(f"sketches/against?sketch=K7-100&board={self.KNOWN}")
        self.assertEqual(against["jobs"], 1)
        self.assertIn("S1 has 4 as positions on the sketch and 6 here", against["apart"])
        self.join(422, why=" ")
        self.join(400, board="K7-100")
        self.join(400, sketch=self.KNOWN)
        self.join()
        self.assertEqual([each["part_number"] for each in self.get("boards/marked?text=K7-100")], [self.KNOWN])
        self.assertIn("The same board as", self.get("board/K7-100")["withdrawn"])
        self.assertEqual(self.get("sketches")["total"], 0)

    def test_a_sketch_that_somebody_completes_is_not_joined(self) -> None:
        self.post("drafts", {"part_number": "K7-100"})
        self.sign_in("corm")
        self.assertIn("Put that draft away", self.join(400)["detail"])

    def test_a_job_moves_along_with_what_was_found_once_somebody_agrees(self) -> None:
        self.post("sketches", {"part_number": "K7-100", "kind": "Tray washer", "lines": "S1 bank 6"})
        self.say("original_profile", 2)
        self.say("found.S1", "010110", read_how="by eye")
        self.say("original_joined", self.KNOWN, 400)
        self.sign_in("corm")
        self.join()
        self.sign_in("wennick")
        self.assertEqual(self.get(f"jobs/{self.job}")["original_board"]["joined"], self.KNOWN)
        moved = self.say("original_joined", self.KNOWN)
        self.assertEqual((moved["original"], moved["family"]), (self.KNOWN, "deck-oven"))
        self.assertEqual((moved["found"], moved["original_board"]["joined"]), ({"S1": "010110"}, None))
        self.assertEqual(self.partings(Job.objects.get(pk=self.job)), [])

    def test_what_does_not_fit_the_board_is_taken_back_first(self) -> None:
        self.say("found.S1", "0110", read_how="by eye")
        self.sign_in("corm")
        self.join()
        problem = self.say("original_joined", self.KNOWN, 422)
        self.assertEqual(problem["faults"][0]["place"], "positions.S1")
        self.assertEqual(self.get(f"jobs/{self.job}")["original"], "K7-100")
