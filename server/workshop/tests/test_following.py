from typing import Any
from uuid import uuid4

from jobs.models import Job
from jobs.tests.world import WorldTestCase

LINES = "S1 bank 4, on up, from left; R1 dial 0..3; C1 plug 3, keyed"


class Following(WorldTestCase):
    """A job goes on with a board while the workshop completes it, and follows when somebody agrees."""

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
            "jobs": 1, "taught": [{"of": "S1.3", "title": "S1.3", "what": "unread", "jobs": 1}]})  # fmt: skip

    def test_a_revision_that_does_not_agree_with_what_was_recorded_says_where_and_changes_nothing(self) -> None:
        self.say("found.S1", "0110", read_how="by eye")
        self.next_revision("S1 bank 6, on up, from left")
        problem = self.say("original_profile", 2, 422)
        self.assertEqual(problem["faults"][0]["place"], "positions.S1")
        self.assertEqual(self.get(f"jobs/{self.job}")["original_board"]["revision"], 1)
        self.say("original_profile", 9, 404)
        self.say("original_profile", 0, 422)
        self.say("replacement_profile", 1, 400)
