"""A machine and a board that nobody entered: sketched by thumb on a phone, and the job goes on to its papers."""

from playwright.sync_api import Page

from catalogue.models import Board
from e2e.support import PHONE, BrowserTestCase
from jobs.models import Job

MOST_TAPS = 20


class SketchTestCase(BrowserTestCase):
    """What a job with a sketched board takes, step by step."""

    taps = 0

    def tap(self, page: Page, name: str, asked: str = "") -> None:
        sheet = page.get_by_role("dialog")
        if asked:
            sheet.get_by_role("radiogroup", name=asked).get_by_role("radio", name=name, exact=True).tap()
        else:
            sheet.get_by_role("button", name=name, exact=True).tap()
        self.taps += 1

    def whole_job(self, page: Page) -> None:
        """From the first screen to the closed record."""
        page.get_by_text("Open a new job").tap()
        page.get_by_label("Machine", exact=True).fill("Tray washer 1, Fennick and Daughters")
        page.get_by_role("button", name="Open job").tap()
        self.to_recognise(page)
        page.get_by_label("Marking on the board").fill("K7-100")
        page.get_by_text("No board carries a marking like this").wait_for()
        page.get_by_role("button", name="Sketch it", exact=True).tap()
        self.taps = 1
        self.sketch(page)
        self.assertLessEqual(self.taps, MOST_TAPS)
        self.choose_again(page)
        self.make_safe(page)
        page.get_by_role("button", name="S1.1 unreadable").wait_for()
        page.get_by_label("S1 typed").fill("01101001")
        page.get_by_label("S1 typed").press("Enter")
        page.get_by_role("button", name="Next: R1").tap()
        page.get_by_role("radio", name="3", exact=True).tap()
        self.saved(page)
        self.record_plugs(page)
        page.get_by_role("button", name="The record is complete").tap()
        # the same number again: what its positions mean need not be known to set it as the old one stood
        refit = page.get_by_role("region", name="Refit")
        refit.get_by_label("S1 typed").fill("01101001")
        refit.get_by_role("radio", name="3", exact=True).tap()
        self.check_accessible(page)
        refit.get_by_role("button", name="All of this is done").tap()
        page.get_by_role("button", name="Released in this order: the supply is on").tap()
        page.get_by_label("Why go on").fill("Washed a tray; nobody timed the old board")
        page.get_by_role("button", name="Go on with this reason").tap()
        page.get_by_role("button", name="Close the job").tap()
        page.get_by_text("Nothing in this job changes any more").wait_for()
        job = Job.objects.get(machine__startswith="Tray washer 1")
        self.assertEqual(job.state["left"], {"S1": "01101001", "R1": "3"})
        board = Board.objects.get(part_number="K7-100")
        self.assertEqual((board.depot, board.family.title), (job.depot, "Tray washer"))

    def to_recognise(self, page: Page) -> None:
        """The board is said to be the cause though nobody entered tests for this kind of machine."""
        page.get_by_role("region", name="Next").wait_for()
        self.settled(page)  # a list of kinds pushes down what stands below
        page.get_by_text("It was tested already").tap()
        page.get_by_label("What was measured").fill("scorched beside the fuse")
        page.get_by_role("button", name="The board is the cause").tap()
        page.get_by_role("button", name="Rule out Board condemned").wait_for()
        page.get_by_label("Marking on the board").wait_for()

    def sketch(self, page: Page) -> None:
        sheet = page.get_by_role("dialog")
        sheet.get_by_label("What kind it is").fill("Tray washer")
        for name, asked in (
            ("Switch bank", ""), ("8", "How many"), ("up", "On is"), ("left", "Number 1"), ("Put it down", ""),
            ("Dial", ""), ("Put it down", ""),
            ("Plug", ""), ("8", "How many"), ("keyed", "Keyed"), ("Put it down", ""),
            ("Plug", ""), ("6", "How many"), ("not keyed", "Keyed"), ("Put it down", ""),
        ):  # fmt: skip
            self.tap(page, name, asked)
        sheet.get_by_text("C2: a plug with 6 pins, not keyed.").wait_for()
        self.check_accessible(page)
        self.tap(page, "Keep the sketch")

    def choose_again(self, page: Page) -> None:
        page.get_by_role("list", name="Candidates").get_by_role("button", name="K7-100").tap()
        page.get_by_role("button", name="Take K7-100").tap()
        self.saved(page)


class Sketched(SketchTestCase):
    def test_a_board_nobody_entered_goes_through_a_whole_job(self) -> None:
        with self.page(size=PHONE, touch=True) as page:
            self.whole_job(page)


class EmptyDepot(SketchTestCase):
    """Nobody, no board and no kind of machine: the first opening asks for the depot, and a whole job is done all the same."""

    def setUp(self) -> None:
        """Nothing is there."""

    def test_from_the_first_opening_to_the_papers_of_the_first_job(self) -> None:
        context = self.browser.new_context(viewport=PHONE, has_touch=True, reduced_motion="reduce")
        page = context.new_page()
        page.set_default_timeout(120_000)
        page.goto(self.live_server_url)
        page.get_by_label("Name of the depot").fill("Low Harbour Laundry Service")
        page.get_by_label("Its letters").fill("lh")
        page.get_by_label("Your name").fill("Wennick Tarl")
        page.get_by_label("Name to sign in with").fill("wennick")
        page.get_by_label("Password").fill("short")
        page.get_by_role("button", name="Open the depot").tap()
        page.get_by_text("too short").wait_for()
        self.check_accessible(page)
        page.get_by_label("Password").fill("torch light and lamp 42")
        page.get_by_role("button", name="Open the depot").tap()
        page.get_by_role("heading", name="Jobs").wait_for()
        self.whole_job(page)
        page.goto(self.live_server_url)
        page.get_by_role("heading", name="Jobs").wait_for()
        context.close()
        self.assertEqual(Job.objects.get().depot.code, "LH")
