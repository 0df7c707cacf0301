"""Hand over: the papers read back by other programs, who signs, what may still be said, and what is counted."""

import io
from datetime import timedelta
from typing import Any
from uuid import uuid4
from zoneinfo import ZoneInfo

import pypdfium2
import zxingcpp
from django.utils import timezone
from pypdf import PdfReader

from catalogue.tests.test_queries import QueryCounts
from jobs.models import Entry, Job
from jobs.tests.steps.test_fit import FitTestCase
from jobs.tests.world import WorldTestCase
from references.models import Outcome, Statement


def words_of(data: bytes) -> str:
    return " ".join(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(data)).pages).split())


class Papers(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()
        self.closed = self.job(1)

    def pdf(self, path: str) -> bytes:
        response = self.client.get(f"/api/jobs/{self.closed.pk}/{path}")
        self.assertEqual(
            (response.status_code, response["Content-Type"]), (200, "application/pdf"), response.content[:200]
        )
        return bytes(response.content)

    def size_mm(self, data: bytes) -> tuple[float, float]:
        box = PdfReader(io.BytesIO(data)).pages[0].mediabox
        return round(float(box.width) * 25.4 / 72, 1), round(float(box.height) * 25.4 / 72, 1)

    def test_the_job_sheet_on_both_papers_says_what_the_record_says(self) -> None:
        # ISO 216 A4 and ANSI/ASME Y14.1 letter
        for paper, size in (("A4", (210.0, 297.0)), ("letter", (215.9, 279.4))):
            data = self.pdf(f"sheet.pdf?paper={paper}")
            self.assertEqual(self.size_mm(data), size)
            words = words_of(data)
            for expected in ("SQ-0001", "TVH-2214-A", "1110: left to right 4 to 1, on is down", "Run on the machine", "No flame: gas cock shut", "Supply under load",
                             "231.5", "core return", "4402-07", "Door gasket", "2026-06-30", "Hold points", "main switch",
                             "released in this order", "At once: worked"):  # fmt: skip
                self.assertIn(expected, words)
            seal = self.get(f"jobs/{self.closed.pk}/hand-over")["seal"]
            self.assertIn(seal, words)
        self.get(f"jobs/{self.closed.pk}/sheet.pdf?paper=papyrus", 400)

    def test_times_are_the_depots_own_and_say_so(self) -> None:
        closed = self.closed.closed_at
        assert closed is not None
        zone = ZoneInfo("Asia/Tokyo")
        with timezone.override(zone):
            words = words_of(self.pdf("sheet.pdf"))
            told = f"closed {closed.astimezone(zone):%-d %B %Y, %H:%M}"
            self.assertIn(told, words)
            self.assertIn("JST", words)
            self.assertNotIn("UTC", words)

    def test_the_label_has_its_size_and_its_code_says_by_itself_what_was_set(self) -> None:
        data = self.pdf("label.pdf")
        self.assertEqual((self.size_mm(data), len(PdfReader(io.BytesIO(data)).pages)), ((62.0, 100.0), 1))
        words = words_of(data)
        for expected in ("TVH-2214-A", "TVH-2210-B", "SW1", "R1 6", "2 flashes", "Not as from the maker"):
            self.assertIn(expected, words)
        # the bank runs from the right: its digits stand as the eye meets them, and say so
        self.assertIn("1110: left to right 4 to 1, on is down", words)
        # rendered by PDFium at 300 dots an inch, read by ZXing: neither made it
        image = pypdfium2.PdfDocument(data)[0].render(scale=300 / 72).to_pil()
        read = zxingcpp.read_barcodes(image)
        self.assertEqual(len(read), 1)
        seal = self.get(f"jobs/{self.closed.pk}/hand-over")["seal"]
        date = self.closed.closed_at.date().isoformat() if self.closed.closed_at else ""
        self.assertEqual(
            read[0].text, f"SQ-0001 {date} TVH-2214-A for TVH-2210-B; banks place 1 first; SW1=0111 R1=6; seal {seal}"
        )
        self.assertEqual(
            Entry.objects.get(job=self.closed, number=self.closed.entry_count).digest[:16], seal.replace(" ", "")
        )

    def test_a_board_with_many_settings_still_has_a_label_that_can_be_read(self) -> None:
        self.closed = self.job(2)
        data = self.pdf("label.pdf")
        self.assertEqual(len(PdfReader(io.BytesIO(data)).pages), 1)
        image = pypdfium2.PdfDocument(data)[0].render(scale=300 / 72).to_pil()
        self.assertIn("P01=20 P02=7", zxingcpp.read_barcodes(image)[0].text)

    def test_the_customers_page_is_in_plain_words(self) -> None:
        for paper in ("A4", "letter"):
            words = words_of(self.pdf(f"customer.pdf?paper={paper}"))
            for expected in ("What was wrong", "scorch mark", "in every situation we modelled, the new board behaves like the old one", "Still to be done", "Door gasket",
                             "everything came when it should (16 of 16)", "not worked out", "Time and cost"):  # fmt: skip
                self.assertIn(expected, words)
            for jargon in ("twin check", "carry-over", "register"):
                self.assertNotIn(jargon, words.lower())

    def test_papers_wait_for_what_they_tell(self) -> None:
        for number, path, word in (
            (3, "label.pdf", "plan"),
            (5, "customer.pdf", "proved"),
            (3, "customer.pdf", "plan"),
        ):
            self.assertIn(word, self.get(f"jobs/{self.job(number).pk}/{path}", 400)["detail"])

    def test_sums_are_made_from_what_was_entered(self) -> None:
        spent = self.get(f"jobs/{self.closed.pk}/hand-over")["spent"]
        self.assertEqual((spent["assumptions"]["minutes"], spent["assumptions"]["price"]), (95.0, 186.0))
        # by hand: (186 part + 95/60 h at 65 + 45 way) and 20 % tax, and 95/60 h of lost production at 40
        hours = 95 / 60
        net = 186 * 1.0 + hours * 65 + 45
        lost = 40 * (spent["assumptions"]["days"] * 8 + hours)
        self.assertAlmostEqual(spent["own_total"], net * 1.2 + lost, places=1)


class EndTestCase(FitTestCase):
    """The one-stage oven, proved."""

    def setUp(self) -> None:
        super().setUp()
        self.fit(self.open)
        self.add("confirmed.prove", {"note": "ran it by eye"})


class ToTheEnd(EndTestCase):
    def test_defects_numbers_and_the_old_board_are_written_down_or_refused(self) -> None:
        name = uuid4()
        self.add(f"defect.{name}", {"what": "Fan bearing loud", "until": "2026-05-01", "who": "Corm Haddle"})
        for after in (
            {"what": "x", "until": "soon", "who": "y"},
            {"what": "x", "who": "y"},
            {"what": "", "until": "2026-05-01", "who": "y"},
        ):
            self.add(f"defect.{uuid4()}", after, 422)
        self.add("defect.one", {"what": "x", "until": "2026-05-01", "who": "y"}, 422)
        self.add(f"numbered.{uuid4()}", {"what": "flame rod", "side": "new", "serial": "77-1"})
        self.add(f"numbered.{uuid4()}", {"what": "flame rod", "side": "new"}, 422)
        self.add("old_board", {"way": "sold"}, 422)
        self.add("old_board", {"way": "scrap", "note": ""})
        self.add("spent.minutes", 80)
        self.add("spent.other", "eighty", 422)
        self.add("spent.cake", 1, 422)

    def test_closing_seals_the_job_and_only_words_beside_it_are_added(self) -> None:
        self.add(f"correction.{uuid4()}", {"what": "x"}, 400)
        self.add("feedback.now", {"result": "worked"}, 400)
        shown = self.add("confirmed.hand_over", {"note": ""})
        self.assertTrue(shown["closed"])
        sealed = Entry.objects.get(job=self.open, number=shown["entry_count"])
        self.assertEqual(len(sealed.attachment), 64)
        self.assertIn(
            "Add a correction", self.add("found.S1", "111111", 400, before="010110", read_how="by eye")["detail"]
        )
        self.add(f"defect.{uuid4()}", {"what": "x", "until": "2026-05-01", "who": "y"}, 400)
        name = uuid4()
        self.add(f"correction.{name}", {"what": "The tag was 15", "entry": 3})
        self.add(f"correction.{uuid4()}", {"what": "x", "entry": 9999}, 422)
        self.add(f"correction.{uuid4()}", {"what": " "}, 422)
        self.entry(self.open, f"correction.{name}", {"what": "No, 16"}, {"what": "The tag was 15", "entry": 3}, 400)
        self.assertIn("The tag was 15", words_of(self.client.get(f"/api/jobs/{self.open.pk}/sheet.pdf").content))


class SecondPerson(EndTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.sign_in("corm")
        kept = self.get("depot")
        policies = {name: value for name, value in kept.items() if name not in ("name", "schools", "carry_schools")}
        self.assertTrue(self.put("depot", {**policies, "second_person": True})["second_person"])
        self.sign_in()

    def test_the_one_who_handed_over_does_not_sign_and_another_may_send_it_back(self) -> None:
        shown = self.add("confirmed.hand_over", {"note": "label inside"})
        self.assertFalse(shown["closed"])
        self.assertFalse(self.of("hand-over")["may_sign"])
        self.assertIn("second person", self.add("signed", {"ok": True, "note": ""}, 400)["detail"])
        self.assertIn("handed over", self.add("spent.minutes", 5, 400)["detail"])
        self.sign_in("corm")
        self.assertTrue(self.of("hand-over")["may_sign"])
        self.add("signed", {"ok": False, "note": ""}, 422)
        shown = self.add("signed", {"ok": False, "note": "The serial number is missing"})
        self.assertEqual((shown["closed"], shown["step"], shown["signed"]), (False, "hand_over", None))
        self.assertEqual(self.of("hand-over")["refused"][0]["note"], "The serial number is missing")
        self.sign_in()
        self.add(f"numbered.{uuid4()}", {"what": "control board", "side": "new", "serial": "4402-09"})
        self.add("confirmed.hand_over", {"note": "serial added"})
        self.sign_in("corm")
        shown = self.add("signed", {"ok": True, "note": "looked through"})
        self.assertTrue(shown["closed"])
        words = words_of(self.client.get(f"/api/jobs/{self.open.pk}/sheet.pdf").content)
        self.assertIn("Signed by Corm Haddle", words)
        self.assertIn("The serial number is missing", words)

    def test_a_hand_over_can_be_taken_back_before_it_is_signed(self) -> None:
        self.add("confirmed.hand_over", {"note": ""})
        self.entry(self.open, "confirmed.hand_over", None, {"note": ""})
        self.add("spent.minutes", 5)
        self.add("signed", {"ok": True}, 400)


class Feedback(WorldTestCase):
    pair = ("TVH-2210-B", "TVH-2214-A")

    def setUp(self) -> None:
        self.sign_in()

    def counts(self) -> tuple[int, int]:
        found = self.get(f"statements?board={self.pair[0]}&size=100")["items"]
        line = next(each for each in found if (each["original"], each["replacement"]) == self.pair)
        return line["worked"], line["failed"]

    def test_what_was_said_last_of_each_job_is_counted_into_the_pairing(self) -> None:
        job = self.job(1)
        own = Statement.objects.get(
            original=self.pair[0], replacement=self.pair[1], relation__in=("supersedes", "universal", "same", "kit")
        )
        self.assertEqual(self.counts(), (own.worked + 1, own.failed))
        candidates = self.get(f"jobs/{self.job(3).pk}/candidates?size=50")["items"]
        mine = next(each for each in candidates if each["part_number"] == self.pair[1])
        self.assertIn(str(own.worked + 1), str(mine))
        self.entry(job, "feedback.later", {"result": "did not", "note": ""}, status=422)
        self.entry(job, "feedback.later", {"result": "did not", "note": "Relay stuck after two weeks"})
        self.assertEqual(self.counts(), (own.worked, own.failed + 1))
        self.entry(job, "feedback.later", None, {"result": "did not", "note": "Relay stuck after two weeks"})
        self.assertEqual(self.counts(), (own.worked + 1, own.failed))
        self.assertEqual(Outcome.objects.count(), 1)
        self.entry(job, "feedback.sometime", {"result": "worked"}, status=422)
        self.entry(job, "feedback.now", {"result": "exploded"}, {"result": "worked", "note": ""}, 422)

    def test_a_pairing_that_nobody_listed_gets_a_statement_once_it_worked(self) -> None:
        Statement.objects.filter(original=self.pair[0]).delete()
        self.entry(self.job(1), "feedback.later", {"result": "worked with a change", "note": "longer spark lead"})
        self.assertEqual(self.counts(), (1, 0))

    def test_calls_to_make_are_those_nobody_made_after_a_month(self) -> None:
        self.assertEqual([each["code"] for each in self.get("calls")["items"]], ["SQ-0002", "SQ-0001"])
        Job.objects.filter(pk=self.job(1).pk).update(closed_at=timezone.now() - timedelta(days=29))
        self.assertEqual([each["code"] for each in self.get("calls")["items"]], ["SQ-0002"])
        self.entry(self.job(2), "feedback.later", {"result": "worked"})
        self.assertEqual(self.get("calls")["total"], 0)
        Job.objects.filter(pk=self.job(1).pk).update(closed_at=timezone.now() - timedelta(days=31))
        self.assertEqual([(e["code"], e["said"]) for e in self.get("calls")["items"]], [("SQ-0001", "worked")])


class Machines(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()

    def open_on(self, machine: str) -> Any:
        return self.post("jobs", {"id": str(uuid4()), "machine": machine, "complaint": "again"})

    def test_the_next_technician_starts_from_what_the_last_job_left(self) -> None:
        first = self.job(1)
        job = self.open_on("  deck oven 2,   SALTPAN lane Bakery ")
        earlier = self.get(f"jobs/{job['id']}/earlier")
        self.assertEqual(
            (earlier["board"], earlier["left"], earlier["by_job"]),
            ("TVH-2214-A", {"SW1": "0111", "R1": "6"}, "SQ-0001"),
        )
        self.assertIn("Door gasket", earlier["defects"][0])
        self.entry(first, f"correction.{uuid4()}", {"what": "R1 stands at 5"})
        self.assertEqual(self.get(f"jobs/{job['id']}/earlier")["corrections"], ["R1 stands at 5"])
        now = self.get(f"machines/now?machine={first.machine}")
        self.assertEqual((now["board"], now["by_job"]), ("TVH-2214-A", "SQ-0001"))
        jobs = self.get(f"machines/jobs?machine={first.machine}")
        self.assertEqual([each["code"] for each in jobs["items"]], [job["code"], "SQ-0001"])

    def test_a_machine_without_a_closed_job_is_what_was_found(self) -> None:
        self.assertIsNone(self.get(f"jobs/{self.job(3).pk}/earlier")["board"])
        lines = {each["machine"]: each for each in self.get("machines?size=100")["items"]}
        self.assertEqual(
            (lines[self.job(1).machine]["board"], lines[self.job(3).machine]["board"]), ("TVH-2214-A", None)
        )
        self.get("machines/now?machine=No such oven", 404)

    def test_another_depot_sees_none_of_it(self) -> None:
        self.sign_in("ildro")
        self.assertEqual(self.get("machines")["total"], 0)
        self.get(f"machines/now?machine={self.job(1).machine}", 404)
        self.assertEqual(self.get("calls")["total"], 0)


class Queries(QueryCounts):
    def test_the_pages_of_the_end_take_a_fixed_number_of_queries(self) -> None:
        job = self.job(1).pk
        for path, queries in (
            (f"jobs/{job}/fitting", 6), (f"jobs/{job}/proving", 3), (f"jobs/{job}/runs", 3), (f"jobs/{job}/hand-over", 7),
            (f"jobs/{job}/earlier", 3), ("machines", 6), (f"machines/now?machine={self.job(1).machine}", 3),
            (f"machines/jobs?machine={self.job(1).machine}", 4), ("calls", 4), ("statements", 4),
        ):  # fmt: skip
            self.get(path)
            with self.subTest(path):
                self.counted(queries, path)
