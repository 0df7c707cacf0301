from typing import Any
from uuid import uuid4

from jobs.models import Job
from jobs.tests.world import WorldTestCase
from people.models import Person

OLD, NEW = (
    "S1 bank 4, on up, from left; C1 plug 3, keyed",
    "S1 bank 3, on up, from left; R1 dial 0..2; C1 plug 3",
)
PURGE = {"title": "Drain", "type": "duration"}


class SaidTestCase(WorldTestCase):
    """Two sketches, and somebody who knows what their positions mean."""

    def setUp(self) -> None:
        self.sign_in("wennick")
        for number, lines in (("K7-100", OLD), ("K7-200", NEW)):
            self.post("sketches", {"part_number": number, "kind": "Tray washer", "lines": lines})
        self.job = str(uuid4())
        self.post("jobs", {"id": self.job, "machine": "Tray washer 1"})
        self.say("confirmed.rule_out", {"note": "burnt", "end": "condemned"})
        self.say("original", "K7-100")
        self.say("replacement", "K7-200", reason="seen to work")
        self.make_dead(Job.objects.get(pk=self.job))
        self.say("found.S1", "0110", read_how="by eye")
        # C1 has another place on the new board, and nobody knows what its pins carry: wire by wire
        for pin in ("1", "2", "3"):
            self.say(f"wire.{pin}", {"connector": "C1", "pin": pin})
        self.say("confirmed.record", {"note": ""})

    def say(self, target: str, after: Any, status: int = 200, before: Any = None, **more: Any) -> Any:
        entry = {"id": str(uuid4()), "target": target, "before": before, "after": after, **more}
        return self.post(f"jobs/{self.job}/entries", entry, status)

    def old(self, status: int = 200, **more: Any) -> Any:
        said = {**PURGE, "of": "K7-100", "points": ["S1.2", "S1.3"], "values": ["10 s", "", "30", "1 min"], **more}
        return self.say("meaning.original/drain", said, status)

    def new(self, status: int = 200, **more: Any) -> Any:
        said = {**PURGE, "of": "K7-200", "points": ["R1"], "values": ["30", "60", "1 min 30"], **more}
        return self.say("meaning.replacement/drain", said, status)

    def comparison(self) -> Any:
        return self.get(f"jobs/{self.job}/comparison")


class Said(SaidTestCase):
    def test_what_is_said_of_both_boards_is_carried_over_and_kept_with_the_job(self) -> None:
        self.assertEqual(self.comparison()["rows"], [])
        self.old()
        kept = self.new()["meanings"]
        self.assertEqual(kept["original/drain"]["values"], [10, None, 30, 60])
        self.assertTrue(kept["original/drain"]["by"])
        shown = self.comparison()
        self.assertEqual([(each["title"], each["verdict"]) for each in shown["rows"]], [("Drain", "same")])
        self.assertEqual(shown["plan"]["R1"], "1")
        self.assertEqual(shown["proof"]["verdict"], "not proved")
        self.assertEqual(self.partings(Job.objects.get(pk=self.job)), [])
        self.assertEqual(self.client.get(f"/api/jobs/{self.job}/sheet.pdf").status_code, 200)
        self.assertEqual(self.get("board/K7-100")["document"]["functions"], {})

    def test_values_with_fractions_are_exact_and_what_a_record_from_elsewhere_says_wrongly_means_nothing(self) -> None:
        self.old(values=["0,5 s", "0.1", 0.3, "30.25"])
        self.assertEqual(
            self.new(values=["30,25", "1", "2"])["meanings"]["original/drain"]["values"], [0.5, 0.1, 0.3, 30.25]
        )
        self.assertEqual([each["verdict"] for each in self.comparison()["rows"]], ["same"])
        job = Job.objects.get(pk=self.job)
        job.state["meanings"]["weather"] = job.state["meanings"]["original/drain"]
        for wrong in (["soon", 1, 2, 3], [1e300, 1, 2, 3], [-1, 1, 2, 3]):
            job.state["meanings"]["original/drain"]["values"] = wrong
            job.save()
            self.assertLessEqual(len(self.comparison()["rows"]), int(wrong[0] == 1e300))
            self.get("board-uses/K7-100")
            self.assertEqual(self.client.get(f"/api/jobs/{self.job}/sheet.pdf").status_code, 200)

    def test_what_cannot_be_is_refused_with_its_reason(self) -> None:
        self.assertIn("Expected seconds of at least 0 for Drain", self.old(422, values=["soon", "", "", ""])["detail"])
        self.assertIn("at least one value", self.old(422, values=["", "", "", None])["detail"])
        self.assertIn("a value for each way", self.old(422, values=["10"])["detail"])
        self.assertIn("places of K7-100", self.old(422, points=["S1.9", "S1.1"])["detail"])
        self.assertIn("not K7-300", self.old(422, of="K7-300")["detail"])
        self.assertIn(
            "Expected a board and a function",
            self.say("meaning.drain", PURGE | {"of": "K7-100", "points": ["S1.1"], "values": ["1", "2"]}, 422)[
                "detail"
            ],
        )

    def test_a_choice_is_out_of_what_was_said_of_either_board_and_is_told_at_the_board(self) -> None:
        self.say("meaning.original/mode", {
            "of": "K7-100", "title": "Mode", "type": "choice", "points": ["S1.2"], "values": ["trays", "racks"]})  # fmt: skip
        self.say("meaning.replacement/mode", {
            "of": "K7-200", "title": "Mode", "type": "choice", "points": ["R1"], "values": ["glass", "racks", None]})  # fmt: skip
        self.assertEqual(self.comparison()["plan"]["R1"], "1")
        told = self.get("board-uses/K7-200")["said"]
        self.assertEqual([(each["title"], each["words"]) for each in told], [("Mode", "R1 0: glass, R1 1: racks")])

    def test_taken_back_it_means_nothing_again_and_the_plan_is_open(self) -> None:
        self.old()
        kept = self.new()["meanings"]["replacement/drain"]
        self.say("confirmed.carry_over", {"note": ""})
        before = {name: each for name, each in kept.items() if name not in ("by", "at")}
        state = self.say("meaning.replacement/drain", None, before=before)
        self.assertEqual(list(state["meanings"]), ["original/drain"])
        self.assertEqual([each["verdict"] for each in self.comparison()["rows"]], [])


class SaidElsewhere(SaidTestCase):
    """A job with what was said in it, as one file in another depot."""

    def test_a_package_brings_along_what_was_said_and_asked(self) -> None:
        self.old()
        self.new()
        self.say("asked", {"what": "Is this right?"})
        here = self.comparison()
        data = b"".join(self.client.get(f"/api/jobs/{self.job}/package.zip").streaming_content)  # type: ignore[attr-defined]
        Person.objects.filter(username="ildro").update(role=Person.Role.PARTS_LEAD)
        self.sign_in("ildro")
        copy = self.answer(self.client.post("/api/packages", data, content_type="application/zip"), 200)
        there = self.get(f"jobs/{copy['id']}")
        self.assertEqual(there["asked"]["what"], "Is this right?")
        self.assertEqual(self.get(f"jobs/{copy['id']}/comparison")["rows"], here["rows"])
