"""The end of jobs as people see it: a live board, a dead one, a failed proof that ends in another choice, a refused signature."""

import io
from typing import Any

from django.conf import settings
from django.test import override_settings
from playwright.sync_api import Page
from pypdf import PdfReader

from e2e.support import DESK, PHONE, BrowserTestCase
from jobs.models import Job
from people.models import Depot
from standins.board_port import PortServer, SteppedClock, live_board


class EndTestCase(BrowserTestCase):
    """Jobs taken to the end by somebody who reads only the screen."""

    def plan(self, page: Page) -> None:
        """The seeded one-stage oven, recorded and carried over."""
        page.get_by_role("link", name="Fennick and Daughters").click()
        page.get_by_label("S1 typed").fill("010110")
        self.saved(page)
        self.record_plugs(page)
        page.get_by_role("button", name="The record is complete").click()
        page.get_by_role("button", name="Confirm this plan").click()

    def run_by_taps(self, page: Page, *taps: str) -> None:
        """A run of one's own, timed by tapping, ended and kept."""
        page.get_by_role("button", name="Run it, timed by tapping").first.click()
        group = page.get_by_role("group", name="Run under way")
        for tap in taps:
            group.get_by_role("button", name=tap).click()
        group.get_by_role("button", name="End and keep this run").click()
        self.saved(page)


class Dead(EndTestCase):
    """No port, a phone in the dark: wires by hand, events by taps, every paper at the end."""

    def test_from_the_plan_to_the_papers_and_what_is_said_afterwards(self) -> None:
        with self.page(dark=True, size=PHONE, touch=True) as page:
            self.plan(page)
            self.go_wrong_and_right(page)
            self.fit(page)
            page.get_by_text("nothing was run on the machine").wait_for()
            self.check_accessible(page)
            self.run_by_taps(page, "Call for heat off", "Fan off")
            page.get_by_role("article", name="Run: No flame").wait_for()
            page.get_by_role("button", name="Readings").click()
            page.get_by_label("Supply under load in V").fill("hot")
            page.get_by_label("Supply under load in V").press("Enter")
            page.get_by_text("Not kept: give a number").wait_for()
            page.get_by_label("Supply under load in V").fill("231,5")
            page.get_by_label("Supply under load in V").press("Enter")
            page.get_by_text("inside, 21.50 V from the nearer end").wait_for()
            self.override(page)
            self.check_accessible(page)
            reason = page.get_by_label("Why go on all the same?").or_(page.get_by_label("What was run on the machine"))
            reason.fill("Lit at once, fan ran on")
            page.get_by_role("button", name="Go on with this reason").or_(
                page.get_by_role("button", name="Seen on the machine")
            ).click()  # fmt: skip
            self.hand_over(page)
            page.get_by_role("button", name="Close the job").click()
            page.get_by_text("Nothing in this job changes any more").wait_for()
            self.papers(page)
            page.get_by_role("button", name="At once: it worked", exact=True).click()
            page.get_by_text("worked (Wennick Tarl)").wait_for()
            page.get_by_label("What is wrong, and what it should say").fill("The tag was 15")
            page.get_by_role("button", name="Add the correction").click()
            page.get_by_text("The tag was 15").wait_for()
            self.saved(page)
            self.check_accessible(page)
        self.assertEqual(self.job(3).state["feedback"]["now"]["result"], "worked")
        self.next_time()

    def go_wrong_and_right(self, page: Page) -> None:
        """A position read back otherwise than planned, a wire moved and moved back, power before its time."""
        page.get_by_role("button", name="Set in the hand").wait_for()
        self.read_in_hand(page)
        page.get_by_role("button", name="Read it back, blind: SW1").click()
        page.get_by_role("dialog").get_by_label("SW1 typed").fill("0110")
        page.get_by_role("button", name="Compare with the plan").click()
        # it names the switch and stays open; who leaves it so finds it in the list
        page.get_by_role("dialog").get_by_text("Not as planned: SW1.4").wait_for()
        page.keyboard.press("Escape")
        page.get_by_text("reads 0110: not as planned").wait_for()
        self.saved(page)
        page.get_by_role("button", name="Wires, one at a time").click()
        page.keyboard.press("d")
        page.get_by_role("region", name="Next wire").get_by_text("2 of 3").wait_for()
        page.get_by_text("What is where at this moment").click()
        page.get_by_text("new board").first.wait_for()
        self.check_accessible(page)
        page.keyboard.press("b")
        page.get_by_role("region", name="Next wire").get_by_text("1 of 3").wait_for()
        page.get_by_role("button", name="Wires, one at a time").click()
        page.get_by_role("button", name="This cannot be done without power").click()
        self.assertTrue(page.get_by_role("button", name="The supply is on").is_disabled())
        page.reload()
        page.get_by_text("reads 0110: not as planned").wait_for()

    def override(self, page: Page) -> None:
        page.get_by_role("button", name="Overrides").click()
        page.get_by_role("button", name="Switched on: Door switch held by hand or magnet").click()
        page.get_by_text("ends by itself in").wait_for()
        self.saved(page)
        page.get_by_label("Why go on").or_(page.get_by_label("What was run on the machine")).first.fill("x")
        page.get_by_role("button", name="Go on with this reason").or_(
            page.get_by_role("button", name="Seen on the machine")
        ).click()  # fmt: skip
        page.get_by_text("Still overridden: Door switch held").wait_for()
        page.get_by_role("button", name="I have seen this").click()
        page.get_by_role("button", name="It is off again").click()
        page.get_by_text("Nothing is overridden").wait_for()

    def hand_over(self, page: Page) -> None:
        page.get_by_role("button", name="Parts and numbers").wait_for()
        page.get_by_label("Serial number").fill("0417-22")
        page.get_by_role("button", name="Write it down").click()
        page.get_by_text("serial 0417-22").wait_for()
        page.get_by_role("radio", name="core return").click()
        page.get_by_role("button", name="Defects left for later").click()
        page.get_by_label("What is wrong").fill("Door gasket hard")
        page.get_by_label("Put right until").fill("2027-06-30")
        page.get_by_role("button", name="Leave it for later").click()
        page.get_by_text("until 2027-06-30, Wennick Tarl").wait_for()
        page.get_by_role("button", name="Time and cost").click()
        page.get_by_label("Minutes of work").fill("80")
        page.get_by_label("Minutes of work").press("Enter")
        page.get_by_text("as entered").wait_for()
        self.check_accessible(page)

    def papers(self, page: Page) -> None:
        for name, text in (("Job sheet, A4", "0417-22"), ("Job sheet, letter", "core return"), ("Cabinet label", "SW1"),
                           ("Customer’s page, A4", "Door gasket hard")):  # fmt: skip
            with page.expect_download() as download:
                page.get_by_role("link", name=name).click()
            data = download.value.path().read_bytes()
            words = " ".join(each.extract_text() for each in PdfReader(io.BytesIO(data)).pages)
            self.assertIn(text, words, name)
        with page.expect_download() as download:
            page.get_by_role("link", name="Whole job, package").click()
        self.assertEqual(download.value.path().read_bytes()[:2], b"PK")

    def next_time(self) -> None:
        """The next technician at this machine starts from what was left."""
        with self.page() as page:
            page.get_by_text("Open a new job").click()
            page.get_by_label("Machine", exact=True).fill("deck oven 1, fennick and daughters")
            page.get_by_role("button", name="Open job").click()
            banner = page.get_by_role("region", name="From earlier jobs")
            banner.get_by_text("SW1 0111, R1 6").wait_for()
            banner.get_by_text("Door gasket hard").wait_for()
            self.check_accessible(page)
            banner.get_by_role("button", name="It is still this board: TVH-2214-A").click()
            page.get_by_role("button", name="Recognise Original: TVH-2214-A").wait_for()
            page.get_by_role("link", name="Machines").click()
            page.get_by_label("Machine").fill("Fennick")
            page.get_by_role("link", name="fennick and daughters").click()
            page.get_by_role("heading", name="In it now").wait_for()
            self.check_accessible(page)


class Live(EndTestCase):
    """The new board has a port: written over it, streamed from it, dying and coming back in the middle of a run."""

    def setUp(self) -> None:
        super().setUp()
        demo = settings.ROOT / "demo"
        self.live = live_board(
            demo / "families/deck-oven.family.json", demo / "boards/OFN-U5.board.json", None, clock=SteppedClock()
        )
        self.server = PortServer(self.live).start()
        self.addCleanup(lambda: self.server.stop())
        self.enterContext(override_settings(NEW_BOARD_PORT=f"127.0.0.1:{self.server.port}"))
        job = self.job(2)
        for step in ("fit", "prove", "hand_over"):
            del job.state["confirmed"][step]
        job.state["looks"] = {name: True for name in job.state["looks"] if not name.startswith("on ")}
        job.state |= {"readbacks": {"J1": job.state["readbacks"]["J1"]}, "reentered": {}, "left": None, "runs": {}}
        job.closed_at, job.step = None, "fit"
        job.save()

    def test_written_streamed_and_proved(self) -> None:
        with self.page() as page:
            page.get_by_role("link", name="Two-stage oven").click()
            self.live.mood = "forgetful"
            page.get_by_role("button", name="Write the settings").click()
            page.get_by_text("The settings from before stand again").wait_for()
            self.live.mood = "healthy"
            page.get_by_role("button", name="Write the settings").click()
            page.get_by_text("8 of 8 read back").wait_for()
            self.slip(page)
            page.get_by_label("The new board shows now").fill("14:05")
            page.get_by_label("The new board shows now").press("Enter")
            page.get_by_role("button", name="Fitted and set as planned").click()
            page.get_by_role("button", name="Run it, timed over the port").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="Run it, timed over the port").click()
            page.get_by_text("Streamed from the port").wait_for()
            self.live.change("call", True)
            page.get_by_text("1 made, 1 seen").wait_for()
            port = self.server.port
            self.server.stop()
            page.get_by_text("The port is silent").wait_for()
            self.server = PortServer(self.live, port).start()
            page.get_by_text("Streamed from the port").wait_for()
            self.live.change("call", False)
            page.get_by_text("2 made, 2 seen").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="End and keep this run").click()
            page.get_by_role("article", name="Run: No flame").get_by_text("over the port").wait_for()
            self.check_accessible(page)
        (run,) = self.job(2).state["runs"].values()
        self.assertEqual([(e["output"], e["on"]) for e in run["seen"]], [("fan", True), ("fan", False)])
        self.assertEqual(run["timed"], "over the port")

    def slip(self, page: Page) -> None:
        """Keyed in by hand instead: tried on the simulated panel, then a slip found and put right."""
        page.get_by_role("button", name="Key it in").click()
        panel = page.get_by_role("region", name="Front keys")
        panel.get_by_role("button", name="Try it on a simulated panel first").click()
        panel.get_by_role("button", name="SET enter, simulated key").click()
        panel.get_by_role("status", name="Simulated display").get_by_text("30").wait_for()
        panel.get_by_role("button", name="Put it away").click()
        for _ in range(2):
            panel.get_by_role("button", name="That is what I see").click()
        panel.get_by_text("3 of").wait_for()
        page.reload()
        page.get_by_role("button", name="Key it in").click()
        panel.get_by_text("3 of").wait_for()
        panel.get_by_role("button", name="I see something else").click()
        panel.get_by_label("What does it show?").fill("30")
        panel.get_by_role("button", name="Where was the slip?").click()
        panel.get_by_text("did not take").first.wait_for()
        self.check_accessible(page)
        panel.get_by_role("button", name="Go on so").first.click()
        panel.get_by_text("1 of").wait_for()


class FailedProof(EndTestCase):
    """The counter-case shown on the machine: the choice is opened again, and another board goes in."""

    def test_ends_in_another_choice(self) -> None:
        with self.page(size=DESK) as page:
            page.get_by_role("link", name="Deck oven 4").click()
            page.get_by_role("button", name="The counter-case").wait_for()
            self.run_by_taps(page, "Call for heat off", "Igniter off")
            page.get_by_text("Igniter on: extra").wait_for()
            page.get_by_text("Perhaps:").first.wait_for()
            self.check_accessible(page)
            self.assertTrue(page.get_by_role("button", name="Go on with this reason").is_disabled())
            page.get_by_role("button", name="Choose Replacement: OFN-U3").click()
            page.get_by_role("button", name="TVH-2214-A").first.click()
            page.get_by_label("Why this one").or_(page.get_by_label("Why")).first.fill("Lit without air on the machine")
            page.get_by_role("button", name="Take TVH-2214-A").click()
            page.get_by_role("button", name="Choose Replacement: TVH-2214-A").wait_for()
            self.saved(page)
            self.make_safe(page)  # the board that failed comes out of a dead machine
            page.get_by_role("button", name="Confirm this plan").click()
            self.fit(page)
            page.get_by_text("no series of input changes makes the two").wait_for()
            page.get_by_text("with OFN-U3").wait_for()
        self.assertEqual(self.job(5).state["replacement"], "TVH-2214-A")
        self.assertEqual(len(self.job(5).state["runs"]), 1)


class SecondPerson(EndTestCase):
    """The depot wants two: a signature refused with a reason, put right, and given."""

    def test_a_refused_signature_comes_back_with_its_reason(self) -> None:
        Depot.objects.filter(code="SQ").update(second_person=True)
        job = self.job(1)
        del job.state["confirmed"]["hand_over"]
        job.state |= {"numbered": {}, "feedback": {}}
        job.closed_at, job.step = None, "hand_over"
        job.save()
        with self.page() as page:
            page.get_by_role("link", name="Deck oven 2").click()
            page.get_by_role("button", name="Hand over for a second person").click()
            page.get_by_text("Whoever handed it over does not sign it").wait_for()
            self.saved(page)
        self.sign(lambda page: self.refuse(page))
        with self.page(size=PHONE, dark=True) as page:
            page.get_by_role("link", name="Deck oven 2").click()
            page.get_by_text("The new board’s serial number is missing").wait_for()
            self.check_accessible(page)
            page.get_by_label("Side").select_option("new")
            page.get_by_label("Serial number").fill("4402-07")
            page.get_by_role("button", name="Write it down").click()
            self.saved(page)
            page.get_by_role("button", name="Hand over for a second person").click()
            page.get_by_text("A second person signs.").first.wait_for()
            self.saved(page)
        self.sign(lambda page: page.get_by_role("button", name="Sign and close the job").click())
        closed = Job.objects.get(pk=job.pk)
        self.assertIsNotNone(closed.closed_at)
        self.assertEqual(closed.state["signed"]["by"], "Corm Haddle")

    def refuse(self, page: Page) -> None:
        self.check_accessible(page)
        self.assertTrue(page.get_by_role("button", name="Send it back").is_disabled())
        page.get_by_label("What you looked at").fill("The new board’s serial number is missing")
        page.get_by_role("button", name="Send it back").click()
        page.get_by_text("Sent back by Corm Haddle").wait_for()

    def sign(self, work: Any) -> None:
        with self.page("corm") as page:
            page.get_by_role("link", name="Deck oven 2").click()
            page.get_by_role("region", name="Second person").wait_for()
            work(page)
            self.saved(page)
