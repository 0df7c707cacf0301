"""A machine with two boards, walked through as one job: one lock-off, two sheets, one hand-over."""

from io import BytesIO
from types import SimpleNamespace
from typing import Any, cast
from uuid import uuid4
from zipfile import ZipFile

from django.test import Client

from jobs.models import Job
from jobs.tests.world import WorldTestCase, other_client
from people.models import Person
from references.models import Outcome

TOLD = "looked at together with its mixer"


class Boards(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()
        self.mixer = self.job(10)
        # what a test says of a sheet it says by its id
        self.drive = cast(Job, SimpleNamespace(pk=f"{self.mixer.pk}.2"))
        self.both = (self.mixer, self.drive)

    def sheet(self, job: Job) -> Any:
        return self.get(f"jobs/{job.pk}")

    def step(self, job: Job, name: str) -> Any:
        return next(each for each in self.sheet(job)["steps"] if each["id"] == name)

    def record(self, job: Job) -> Any:
        for element in self.get(f"jobs/{job.pk}/boards/original")["elements"]:
            self.entry(job, f"found.{element['id']}", "0" * len(element["factory"]), read_how="by eye")
        self.record_plugs(job)
        return self.entry(job, "confirmed.record", {"note": ""})

    def fitted_dead(self, job: Job) -> None:
        fitting = self.get(f"jobs/{job.pk}/fitting")
        for line in fitting["kit"]:
            self.entry(job, f"kit.{line['item']}", line["count"])
        self.entry(job, "in_hand", {"number": self.sheet(job)["replacement"]})
        for name in fitting["by_hand"]:
            self.entry(job, f"readback.{name}", {"value": fitting["planned"][name]}, read_how="by eye")
        for look in fitting["looks"]:
            if not look["key"].startswith("on "):
                self.entry(job, f"look.{look['key']}", True)
        for step in self.get(f"jobs/{job.pk}/wiring")["steps"]:
            self.entry(job, f"ticked.{step['key']}", True)

    def test_one_lock_off_two_sheets_one_hand_over(self) -> None:
        # the longest wait of both boards, told on either sheet; the mixer drives the drive, so it comes first
        for job in self.both:
            stored = next(p for p in self.get(f"jobs/{job.pk}/make-safe")["points"] if p["kind"] == "stored energy")
            self.assertEqual(stored["wait_s"], 300)
        together = self.sheet(self.mixer)["together"]
        self.assertEqual([each["title"] for each in together["sheets"]], ["Mixer board", "Drive board"])
        self.assertEqual(together["because"], ["Mixer board drives Drive board (J1.4, J1.5)"])
        # locked off on one sheet, the other is dead too
        self.make_dead(self.drive)
        self.assertEqual([self.step(job, "make_safe")["state"] for job in self.both], ["done", "done"])
        self.record(self.mixer)
        self.assertEqual(self.sheet(self.mixer)["together"]["next"], "2")
        (line,) = self.get("jobs?search=QN9-0200")["items"]
        self.assertEqual((line["code"], line["original"], line["more_boards"]), ("SQ-0010", "QN7-0042", 1))
        self.entry(self.mixer, "school", "functions", reason="as it was")
        for name in self.reasons(self.mixer):
            self.entry(self.mixer, f"reason.{name}", TOLD)
        self.entry(self.mixer, "confirmed.carry_over", {"note": ""})
        # a lead to a board that nobody has recorded yet stays on
        refused = self.entry(self.mixer, f"ticked.{self.first_of_plug(self.mixer, 'J1')}", True, status=400)
        self.assertIn("leads to Drive board. Record that board first", refused["detail"])
        self.record(self.drive)
        self.entry(self.drive, "school", "functions", reason="as it was")
        for name in self.reasons(self.drive):
            self.entry(self.drive, f"reason.{name}", TOLD)
        self.entry(self.drive, "confirmed.carry_over", {"note": ""})
        lead = self.get(f"jobs/{self.drive.pk}/between")["between"][0]
        self.assertEqual([end["new"] for end in lead["ends"]], [["J1.4"], ["D2.1"]])
        self.fitted_dead(self.mixer)
        missing = self.get(f"jobs/{self.mixer.pk}/fitting")
        self.assertEqual(missing["missing_dead"], [])
        self.assertIn("Drive board: set and read back: R1, S1", missing["missing_beside"])
        release = {"released": [each["id"] for each in missing["release"]]}
        refused = self.entry(self.mixer, "energised", release, status=400)
        self.assertIn("Before power: Drive board", refused["detail"])
        self.fitted_dead(self.drive)
        self.entry(self.mixer, "energised", release)
        for job in self.both:
            self.assertEqual(self.sheet(job)["power"], "on")
            self.finish_power(job)
        self.entry(self.mixer, "confirmed.prove", {"note": TOLD})
        self.assertEqual(self.step(self.mixer, "hand_over")["waits_for"], ["boards"])
        refused = self.entry(self.mixer, "confirmed.hand_over", {"note": ""}, status=400)
        self.assertEqual(refused["detail"], "This step waits for: the machine's other boards.")
        self.entry(self.drive, "confirmed.prove", {"note": TOLD})
        # said from the drive's sheet, the whole job is handed over and closed
        self.entry(self.drive, "confirmed.hand_over", {"note": ""})
        closed = Job.objects.get(pk=self.mixer.pk)
        self.assertIsNotNone(closed.closed_at)
        self.assertEqual(self.partings(closed), [])
        self.papers_of(closed)
        self.known_afterwards(closed)
        self.taken_to_another_depot(closed)

    def reasons(self, job: Job) -> list[str]:
        rows = self.get(f"jobs/{job.pk}/comparison")["rows"]
        return [row["id"] for row in rows if row["missed"] or row["verdict"] == "open"]

    def first_of_plug(self, job: Job, plug: str) -> str:
        steps = self.get(f"jobs/{job.pk}/wiring")["steps"]
        return str(next(each["key"] for each in steps if plug in str(each)))

    def finish_power(self, job: Job) -> None:
        fitting = self.get(f"jobs/{job.pk}/fitting")
        for look in fitting["looks"]:
            if look["key"].startswith("on "):
                self.entry(job, f"look.{look['key']}", True)
        for name in fitting["by_panel"]:
            self.entry(job, f"readback.{name}", {"value": fitting["planned"][name]}, read_how="by eye")
        self.entry(job, "confirmed.fit", {"note": TOLD})

    def papers_of(self, job: Job) -> None:
        for paper in ("sheet.pdf", "label.pdf", "customer.pdf", "plan.pdf"):
            for sheet in self.both:
                with self.subTest(paper=paper, sheet=sheet.pk):
                    answer = self.client.get(f"/api/jobs/{sheet.pk}/{paper}")
                    self.assertEqual((answer.status_code, bytes(answer.content[:4])), (200, b"%PDF"))

    def known_afterwards(self, job: Job) -> None:
        """The machine, its pairings and its sisters know of both boards."""
        now = self.get(f"machines/now?machine={job.machine}")
        self.assertEqual((now["board"], [each["board"] for each in now["others"]]), ("QN7-0042-R", ["QN9-0210"]))
        self.entry(self.drive, "feedback.now", {"result": "worked"})
        counted = Outcome.objects.filter(result="worked", at__gte=job.opened_at).values_list("original", flat=True)
        self.assertLessEqual({"QN7-0042", "QN9-0200"}, set(counted))
        sister = self.get(f"machines/now?machine={job.machine}")
        self.assertEqual(sister["others"][0]["left"], {"R1": "1", "S1": "101"})
        # a drive that cannot be read may be taken to stand as this one was found
        other = self.post("jobs", {"id": str(uuid4()), "machine": "Spiral mixer 9, Tollgate"})
        another = Job.objects.get(pk=other["id"])
        self.entry(another, "original", "QN9-0200")
        self.entry(another, "unread", {"why": "burnt"})
        offered = self.get(f"jobs/{another.pk}/assumable")
        self.assertIn("sister machine", [each["source"] for each in offered])

    def taken_to_another_depot(self, job: Job) -> None:
        data = b"".join(cast(Any, self.client.get(f"/api/jobs/{job.pk}/package.zip")).streaming_content)
        self.assertIn("boards/2/original.board.json", ZipFile(BytesIO(data)).namelist())
        there = self.lead_elsewhere()
        answer = there.post("/api/packages", data, content_type="application/zip")
        self.assertEqual(answer.status_code, 200, answer.content[:400])
        brought = answer.json()["id"]
        drive = there.get(f"/api/jobs/{brought}.2").json()
        self.assertEqual((drive["original"], drive["replacement"], drive["closed"]), ("QN9-0200", "QN9-0210", True))
        self.assertEqual(there.get(f"/api/jobs/{brought}.2/boards/original").json()["part_number"], "QN9-0200")

    def lead_elsewhere(self) -> Client:
        Person.objects.filter(username="ildro").update(role=Person.Role.PARTS_LEAD)
        return other_client("ildro")

    def test_a_board_comes_and_goes(self) -> None:
        job = self.job(6)
        self.assertIsNone(self.sheet(job)["together"])
        self.entry(job, "board.2", {"title": "Display"})
        display = cast(Job, SimpleNamespace(pk=f"{job.pk}.2"))
        self.assertEqual(
            [each["title"] for each in self.sheet(display)["together"]["sheets"]], ["Main board", "Display"]
        )
        self.assertEqual(self.step(display, "rule_out")["state"], "open")
        self.entry(display, "original", "TVH-2420-A")
        self.assertEqual(self.sheet(job)["original"], None)
        self.assertEqual(self.sheet(display)["original"], "TVH-2420-A")
        history = self.get(f"jobs/{display.pk}/entries")["items"]
        self.assertEqual(
            [(each["target"], each["board"]) for each in history], [("original", "Display"), ("board.2", "")]
        )
        self.entry(job, "board.2", None, {"title": "Display"})
        self.get(f"jobs/{display.pk}", 404)
        self.entry(job, "board.2", {"title": "Display"})
        self.assertEqual(self.sheet(display)["original"], None)
        self.assertEqual(self.partings(Job.objects.get(pk=job.pk)), [])

    def test_of_two_people_on_two_sheets_neither_overwrites_the_other(self) -> None:
        corm = other_client("corm")
        self.make_dead(self.mixer)
        self.entry(self.drive, "found.S1", "1000", read_how="by eye")
        body = {
            "id": "00000000-0000-4000-8000-0000000000aa",
            "target": "found.S1",
            "before": None,
            "after": "01000000",
            "read_how": "by eye",
        }
        answer = corm.post(f"/api/jobs/{self.mixer.pk}/entries", body, content_type="application/json")
        self.assertEqual((answer.status_code, answer.json()["found"]), (200, {"S1": "01000000"}))
        self.assertEqual(self.sheet(self.drive)["found"], {"S1": "1000"})
        # the same place of the same board is told apart
        again = {**body, "id": "00000000-0000-4000-8000-0000000000ab", "after": "0001"}
        answer = corm.post(f"/api/jobs/{self.drive.pk}/entries", again, content_type="application/json")
        self.assertEqual(answer.status_code, 409)
        self.assertIn("Wennick Tarl set it to 1000", answer.json()["detail"])

    def test_what_the_sheets_of_a_job_ask_of_the_database_is_counted(self) -> None:
        for sheet in (self.mixer, self.drive):
            with self.assertNumQueries(8):
                self.sheet(sheet)
            with self.assertNumQueries(3):
                self.sheet(sheet)
