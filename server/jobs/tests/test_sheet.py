import io

from pypdf import PdfReader

from catalogue.tests.test_queries import QueryCounts
from jobs.models import Entry
from jobs.tests.world import WorldTestCase
from people.models import Depot, Person
from twincore.job import STEPS
from twincore.profile import open_document


class JobSheet(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()

    def test_the_pdf_read_back_says_what_the_record_says(self) -> None:
        response = self.client.get(f"/api/jobs/{self.job(5).pk}/sheet.pdf")
        self.assertEqual(response["Content-Type"], "application/pdf")
        text = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(response.content)).pages)
        words = " ".join(text.split())
        for expected in (
            "SQ-0005",
            "TVH-2210-B",
            "OFN-U3",
            "110110",
            "0110",
            "Off register",
            "pre-purge",
            "still open",
        ):
            self.assertIn(expected, words)

    def test_a_plain_job_has_two_pages_and_an_appendix(self) -> None:
        for paper in ("A4", "letter"):
            data = self.client.get(f"/api/jobs/{self.job(1).pk}/sheet.pdf?paper={paper}").content
            pages = [page.extract_text() for page in PdfReader(io.BytesIO(data)).pages]
            self.assertEqual([number for number, text in enumerate(pages, 1) if "Appendix" in text], [3], paper)
            self.assertIn("seal", pages[1])
            self.assertIn("Hold points", pages[2])

    def test_the_json_is_a_document_of_the_published_format(self) -> None:
        data = self.client.get(f"/api/jobs/{self.job(2).pk}/sheet.json").content
        root = open_document(data, "job").root
        self.assertEqual(root["twin_check"]["verdict"], "within tolerance")
        self.assertEqual(root["replacement"]["positions"]["P01"], 20)
        self.assertEqual(len(root["entries"]), self.job(2).entry_count)


class StepsDone(WorldTestCase):
    def test_a_step_is_known_to_whoever_ended_one_and_to_nobody_else(self) -> None:
        job = self.job(6)
        ends = {"original": "recognise", "replacement": "choose"}
        said = Entry.objects.filter(by__username="wennick").values_list("target", flat=True)
        done = {ends[target] for target in said if target in ends}
        done |= {
            entry.target.removeprefix("confirmed.")
            for entry in Entry.objects.filter(by__username="wennick")
            if "confirmed." in entry.target
        }
        self.sign_in("wennick")
        self.assertEqual(self.get("steps-done"), [step for step in STEPS if step in done])
        self.assertIn("rule_out", done)
        self.sign_in(self.another(job.depot))
        self.assertEqual(self.get("steps-done"), [])
        self.entry(job, "confirmed.rule_out", {"note": "fuse fine"})
        self.entry(job, "family", "deck-oven")
        self.entry(job, "original", "TVH-2210-B")
        self.assertEqual(self.get("steps-done"), ["rule_out", "recognise"])

    def another(self, depot: Depot) -> str:
        Person.objects.create_user("newcomer", password="torchlight-42", depot=depot)
        return "newcomer"


class Queries(QueryCounts):
    def test_a_jobs_pages_take_a_fixed_number_of_queries(self) -> None:
        self.counted(3, "steps-done")
        self.counted(4, "jobs?show=all")
        # the first time it is worked out and kept: what is kept is looked for, and put in its place; the history looks up what tests are called
        for path, first in ((f"jobs/{self.job(3).pk}", 6), (f"jobs/{self.job(1).pk}/entries", 9)):
            self.counted(first, path)
            self.counted(3, path)

    def test_a_comparison_and_its_candidates_ask_the_database_no_more_once_profiles_are_known(self) -> None:
        for path, queries in (("comparison", 3), ("candidates", 3), ("boards/original", 3)):
            for _ in range(2):  # whoever looks first has the parts desk asked, which is new to the catalogue
                self.get(f"jobs/{self.job(5).pk}/{path}")
            self.counted(queries, f"jobs/{self.job(5).pk}/{path}")
