"""From a symptom to a recorded choice, three ways; a cleared board; the parts desk away and back; a bad CSV."""

import csv
import re
from pathlib import Path
from tempfile import TemporaryDirectory
from threading import Thread

import httpx
from django.test import override_settings
from playwright.sync_api import Page

from e2e.support import PHONE, BrowserTestCase
from jobs.models import Job, KeptAnswer
from parts.models import Offer
from references.models import Statement
from standins.parts_desk import serve
from twincore.choose import COLUMNS

MACHINE = "Prover 2, Tidegate Bakery"


class FrontTestCase(BrowserTestCase):
    def open_job(self, page: Page, machine: str, kind: str) -> None:
        page.get_by_text("Open a new job").click()
        page.get_by_label("Machine", exact=True).fill(machine)
        page.get_by_role("button", name="Open job").click()
        page.get_by_role("button", name=kind).click()
        page.get_by_text("Who is suspected").wait_for()
        self.make_safe(page)
        page.get_by_role("button", name="Make safe").first.click()

    def say(self, page: Page, symptom: str, answer: str = "yes") -> None:
        page.get_by_role("radiogroup", name=symptom).get_by_role("radio", name=answer, exact=True).click()
        self.saved(page)

    def pick_test(self, page: Page, title: str) -> None:
        options = page.get_by_label("Other tests").locator("option").all_inner_texts()
        page.get_by_label("Other tests").select_option(label=next(each for each in options if each.startswith(title)))

    def condemn(self, page: Page) -> None:
        """Scorched, nothing else found: the tests and the person condemn the board."""
        self.pick_test(page, "The board itself")
        page.get_by_label("First write down").fill("C1 left, C2 right")
        page.get_by_label("Put back").check()
        page.get_by_role("button", name="Damage to be seen").click()
        page.get_by_text("Then leading: The control board").first.wait_for()
        page.get_by_label("Age: dry capacitor").click()
        page.get_by_label("What was seen").wait_for()
        self.saved(page)
        page.get_by_label("What was measured").fill("Scorched under the first relay")
        page.get_by_role("button", name="The board is the cause").click()
        page.get_by_role("button", name="Rule out Board condemned").wait_for()

    def take(self, page: Page, part_number: str, verdict: str, reason: str = "") -> None:
        page.get_by_role("button", name=f"{part_number} {verdict}").click()
        if reason:
            page.get_by_label("Why", exact=False).last.fill(reason)
        page.get_by_role("button", name=f"Take {part_number}").click()
        page.get_by_role("button", name=f"Choose Replacement: {part_number}").wait_for()
        self.saved(page)

    def last_job(self) -> Job:
        return Job.objects.get(machine=MACHINE)


class CleanNumber(FrontTestCase):
    def test_symptom_readings_marking_plate_and_choice(self) -> None:
        with self.page() as page:
            self.open_job(page, MACHINE, "Retarder-prover")
            self.say(page, "Does not cool")
            page.get_by_role("heading", name="Next best test").wait_for()
            self.pick_test(page, "Chamber probe")
            page.get_by_label("Read: probe resistance").fill("12400")
            self.assertTrue(page.get_by_role("button", name="Keep this reading").is_disabled())
            page.get_by_label("Temperature at the sensor").fill("20")
            page.get_by_label("Put back").check()
            self.check_accessible(page)
            page.get_by_role("button", name="Keep this reading").click()
            page.get_by_text("On the curve (inside").wait_for()
            self.pick_test(page, "Fuse on the board")
            page.get_by_role("button", name="Not sure").click()
            page.get_by_text("counts for nothing").wait_for()
            self.condemn(page)
            page.get_by_label("Marking on the board").fill("UMC 40-118")
            page.get_by_role("button", name="This is it: UMC 40-118", exact=True).click()
            page.get_by_role("button", name="Recognise Original: UMC 40-118").wait_for()
            page.get_by_role("button", name="Recognise Original").click()
            page.get_by_label("Number on it").fill("RP2W0SH")
            page.get_by_text("Perhaps 05?").wait_for()
            page.get_by_label("Number on it").fill("RP2W05H")
            page.get_by_role("button", name="Keep this number").click()
            page.get_by_text("from the plate").first.wait_for()
            page.get_by_label("Serial number of the machine").fill("12345678")
            page.get_by_text("1234\u20025678").wait_for()
            page.get_by_role("button", name="It reads the same").click()
            self.check_accessible(page)
            self.saved(page)
            self.take(page, "UMC 40-118/2", "with work", "stands in the stores")
        job = self.last_job()
        self.assertEqual((job.state["replacement"], job.state["serial"]), ("UMC 40-118/2", "1234 5678"))
        self.assertEqual(job.state["choice"]["reason"], "stands in the stores")
        self.assertGreater(len(job.state["choice"]["alternatives"]), 5)


class BurntLabel(FrontTestCase):
    def test_a_misread_marking_and_a_question_on_the_machine(self) -> None:
        with self.page(dark=True, size=PHONE, touch=True) as page:
            self.open_job(page, MACHINE, "Spiral dough mixer")
            self.say(page, "Does not start")
            self.check_accessible(page)
            self.condemn(page)
            page.get_by_label("Marking on the board").fill("QN7-OO4Z, Q7-42")
            page.get_by_text("read O, may be 0").first.wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="This is it: QN7-0042", exact=True).click()
            page.get_by_text("More that may do").click()
            page.get_by_role("button", name="QN8-0100 to check").click()
            page.get_by_text("To find out on the machine").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="two windings", exact=True).click()
            self.saved(page)
            page.get_by_text("Motor two windings is accepted").wait_for()
            page.get_by_text("goes on J1 as it is").wait_for()
            page.get_by_text("Laid on the original").click()
            page.get_by_role("img", name="Outlines laid on each other").wait_for()
            page.get_by_text("What it costs, against").click()
            page.get_by_text("Our own repair").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="Close").click()
            self.take(page, "QN7-0042-R", "fits")
        self.assertEqual(self.last_job().state["facts"]["motor.kind"]["value"], "two windings")


class NoLabel(FrontTestCase):
    def test_the_key_of_features_and_a_wanted_upgrade(self) -> None:
        with self.page() as page:
            self.open_job(page, MACHINE, "Oven steam generator")
            self.condemn(page)
            page.get_by_text("No number to be read").click()
            page.get_by_text("13 of 13 boards left").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="Cannot tell").click()
            self.saved(page)
            page.locator("details li button", has_text="board").first.click()
            page.get_by_text("13 of 13 boards left").wait_for(state="detached")
            page.get_by_role("list", name="Answers so far").get_by_role("button").first.wait_for()
            with page.expect_download() as download:
                page.get_by_role("link", name="One page for the depot").click()
            self.assertTrue(download.value.suggested_filename.endswith("summary.pdf"))
            while page.get_by_role("button", name="Take back").count():
                page.get_by_role("button", name="Take back").first.click()
                self.saved(page)
            page.get_by_text("13 of 13 boards left").wait_for()
            page.get_by_text("Choose from the list").click()
            page.get_by_role("button", name="This is it: ISB 310").last.click()
            page.get_by_text("Something is wanted otherwise").click()
            page.get_by_label("What should be otherwise").select_option(label="Steam dose")
            page.get_by_label("Wanted, in s").fill("8")
            page.get_by_role("button", name="It is wanted").click()
            self.saved(page)
            self.take(page, "ISB 312", "fits")
        job = self.last_job()
        self.assertEqual((job.state["replacement"], job.state["wishes"]), ("ISB 312", {"dose": 8}))


class ClearedBoard(FrontTestCase):
    def test_it_was_not_the_board_and_the_job_closes_with_what_was_found(self) -> None:
        with self.page(size=PHONE, touch=True) as page:
            self.open_job(page, MACHINE, "Cooling conveyor")
            self.say(page, "The bus does not see it")
            self.pick_test(page, "Resistance along the bus")
            page.get_by_label("Read: resistance between A and B").fill("119,5")
            page.get_by_label("Put back").check()
            page.get_by_role("button", name="Keep this reading").click()
            page.get_by_text("a terminator is missing").first.wait_for()
            self.assertTrue(page.get_by_role("button", name="It was not the board").is_disabled())
            page.get_by_label("What was measured").fill("Terminator of the last section missing, put in: bus answers")
            self.check_accessible(page)
            page.get_by_role("button", name="It was not the board").click()
            # the job goes on: what was put right, what is seen to work, price and papers, and then it asks before it closes
            page.get_by_label("What was done").fill("Terminator of the last section")
            page.get_by_role("radio", name="Something else").click()
            page.get_by_role("button", name="Put right").click()
            back = page.get_by_role("region", name="Back to power")
            back.wait_for()
            self.check_accessible(page)
            for box in back.get_by_role("checkbox").all():
                box.check()
            back.get_by_role("button", name="The supply is on").click()
            page.get_by_role("list", name="Check list").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name=re.compile("^Good: Supply off and on again")).click()
            page.get_by_role("button", name="It works again").click()
            page.get_by_role("list", name="What was put right").wait_for()
            page.get_by_role("button", name="Time and cost").click()
            page.get_by_label("Minutes of work").fill("25")
            self.check_accessible(page)
            page.get_by_role("button", name="Close the job").click()
            page.get_by_text("Nothing in this job changes any more").wait_for()
            page.get_by_role("link", name="Customer’s page, A4").wait_for()
            self.check_accessible(page)
        job = self.last_job()
        self.assertIsNotNone(job.closed_at)
        self.assertEqual(job.state["confirmed"]["rule_out"]["end"], "cleared")
        self.assertEqual([each["what"] for each in job.state["repairs"].values()], ["Terminator of the last section"])


class PartsDeskAway(FrontTestCase):
    def test_last_answers_stay_with_their_age_and_new_ones_come_in(self) -> None:
        server = serve()
        Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        url = f"http://127.0.0.1:{server.server_address[1]}"
        with override_settings(PARTS_DESK_URL=url), self.page() as page:
            httpx.put(f"{url}/mood", json={"mood": "failing"})
            page.get_by_role("link", name="Fennick and Daughters").click()
            page.get_by_role("button", name="Choose Replacement").click()
            page.get_by_role("button", name="TVH-2210-C fits").click()
            page.get_by_text("The parts desk is being asked").wait_for()
            self.work()
            page.reload()
            page.get_by_role("button", name="Choose Replacement").click()
            page.get_by_text("The parts desk is away (it answered with error 503)").wait_for()
            httpx.put(f"{url}/mood", json={"mood": "well"})
            Offer.objects.update(asked_at=None)
            KeptAnswer.objects.all().delete()  # a minute later the desk is asked again by who looks
            page.reload()
            page.get_by_role("button", name="Choose Replacement").click()
            page.get_by_role("button", name="TVH-2210-C fits").click()
            self.work()
            page.reload()
            page.get_by_role("button", name="Choose Replacement").click()
            page.get_by_role("button", name="TVH-2210-C fits").click()
            page.get_by_text("just now").first.wait_for()
            self.assertIsNotNone(Offer.objects.get(part_number="TVH-2210-C").price)


class BadCsv(FrontTestCase):
    def test_refused_rows_are_taken_back_repaired_and_sent_again(self) -> None:
        with TemporaryDirectory() as folder, override_settings(UPLOADS=Path(folder)), self.page("corm") as page:
            file = Path(folder) / "list.csv"
            file.write_text("id,original,replacement,relation\nz-1,A-1,A-2,supersedes\nz-2,A-1,,kit\n")
            page.get_by_role("link", name="Catalogue").click()
            page.get_by_role("link", name="Cross-references").click()
            page.get_by_role("link", name="Import").click()
            page.get_by_label("File").set_input_files(file)
            page.get_by_role("button", name="Send it").click()
            page.get_by_text("waits for its turn").wait_for()
            self.check_accessible(page)
            self.work()
            page.get_by_text("2 rows read, 1 refused, 1 new").wait_for()
            with page.expect_download() as download:
                page.get_by_role("link", name="The refused rows").click()
            report = Path(folder) / "report.csv"
            download.value.save_as(report)
            with report.open(newline="") as lines:
                rows = list(csv.DictReader(lines))
            self.assertIn("replacement: expected a part number", rows[0]["fault"])
            rows[0]["replacement"] = "A-3"
            with report.open("w", newline="") as lines:
                writer = csv.DictWriter(lines, [*COLUMNS, "line", "fault"])
                writer.writeheader()
                writer.writerows(rows)
            page.get_by_label("File").set_input_files(report)
            page.get_by_role("button", name="Send it").click()
            page.get_by_text("waits for its turn").wait_for()
            self.work()
            page.get_by_text("1 rows read, 0 refused, 1 new").wait_for()
        self.assertEqual(Statement.objects.filter(code__startswith="z-").count(), 2)

    def test_a_contradiction_is_settled(self) -> None:
        for dark, size in ((False, None), (True, PHONE)):
            with self.page("corm", dark=dark, size=size) as page:
                page.goto(f"{self.live_server_url}/references/contradictions")
                page.get_by_text("They supersede each other in a ring").first.wait_for()
                self.check_accessible(page)
        with self.page("corm") as page:
            page.goto(f"{self.live_server_url}/references/contradictions")
            wrong = Statement.objects.get(original="TVH-2424-A", replacement="TVH-2420-A").code
            page.get_by_role("button", name=f"Withdraw {wrong}").click()
            page.get_by_label(f"Why {wrong} counts no more").fill("typed the wrong way round")
            page.get_by_role("button", name="Withdraw it").click()
            page.get_by_label(f"Why {wrong} counts no more").wait_for(state="detached")  # it was answered
            page.goto(f"{self.live_server_url}/references?withdrawn=true")
            page.get_by_text("withdrawn: typed the wrong way round").wait_for()
            self.check_accessible(page)
            page.goto(f"{self.live_server_url}/depot")
            page.get_by_label("Our hour", exact=True).fill("72")
            page.get_by_role("button", name="Keep these").click()
            page.get_by_text("Kept.").wait_for()
            self.check_accessible(page)


class CondemnedAtOnce(BrowserTestCase):
    """The kind of machine is known, and the board is seen to be burnt before any test is run."""

    def test_what_killed_it_can_be_said_without_a_test(self) -> None:
        with self.page(size=PHONE, dark=True, touch=True) as page:
            page.get_by_text("Open a new job").tap()
            page.get_by_label("Machine", exact=True).fill("Deck oven 9")
            page.get_by_role("button", name="Open job").tap()
            page.get_by_role("button", name="Gas deck oven").tap()
            page.get_by_label("What was measured").fill("Scorched through")
            # why it died is asked in the same place, and opens the way
            self.assertTrue(page.get_by_role("button", name="The board is the cause").is_disabled())
            page.get_by_role("group", name="Why it died").get_by_role("button", name="Not known").tap()
            self.saved(page)
            page.get_by_role("button", name="The board is the cause").tap()
            page.get_by_role("button", name="Rule out Board condemned").wait_for()
            page.get_by_label("Marking on the board").wait_for()
