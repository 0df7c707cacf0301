"""A job with half the knowledge: sketched on a picture, asked of the depot, known in the end, and meanings by one's own word."""

from django.conf import settings
from playwright.sync_api import Page

from catalogue.models import Board, BoardPicture
from e2e.support import PHONE
from e2e.test_sketch import SketchTestCase
from jobs.models import Job
from people.models import Person

PICTURE = settings.ROOT / "demo" / "pictures" / "board.jpg"
PLACES = {"Switch bank": (0.3, 0.35, "6"), "Plug": (0.7, 0.4, "3")}


class HalfKnown(SketchTestCase):
    def test_a_board_sketched_on_its_picture_is_asked_about_and_turns_out_to_be_one_that_was_there(self) -> None:
        with self.page(size=PHONE, touch=True) as page:
            self.sketch_on_picture(page)
            page.get_by_role("list", name="Candidates").wait_for()
            page.get_by_text("Ask the depot").tap()
            page.get_by_label("What you need to know").fill("Which board is this?")
            page.get_by_role("button", name="Ask", exact=True).tap()
            page.get_by_text("No answer yet").wait_for()
            self.check_accessible(page)
        picture = BoardPicture.objects.get()
        self.assertEqual((picture.part_number, picture.under), ("K7-100", True))
        with self.page("corm") as page:
            self.join(page)
        with self.page(size=PHONE, touch=True) as page:
            page.get_by_role("link", name="Tray washer 1").tap()
            page.get_by_text("It is the TVH-2210-B").wait_for()
            page.get_by_role("button", name="Go on with TVH-2210-B").tap()
            page.get_by_role("button", name="Go on with TVH-2210-B").wait_for(state="hidden")
            self.saved(page)
        job = Job.objects.get(machine="Tray washer 1")
        self.assertEqual((job.state["original"], job.state["family"]), ("TVH-2210-B", "deck-oven"))

    def sketch_on_picture(self, page: Page) -> None:
        page.get_by_text("Open a new job").tap()
        page.get_by_label("Machine", exact=True).fill("Tray washer 1")
        page.get_by_role("button", name="Open job").tap()
        page.get_by_role("region", name="Next").wait_for()
        self.settled(page)  # a list of kinds pushes down what stands below
        page.get_by_text("It was tested already").tap()
        page.get_by_label("What was measured").fill("scorched beside the fuse")
        page.get_by_role("button", name="The board is the cause").tap()
        page.get_by_role("button", name="Rule out Board condemned").wait_for()
        page.get_by_label("Marking on the board").fill("K7-100")
        page.get_by_role("button", name="Sketch it", exact=True).tap()
        sheet = page.get_by_role("dialog")
        sheet.get_by_label("What kind it is").fill("Tray washer")
        sheet.locator("input[type=file]").set_input_files(PICTURE)
        board = sheet.get_by_role("button", name="The board: tap where something is")
        board.wait_for()
        for kind, (across, down, count) in PLACES.items():
            box = board.bounding_box()
            assert box is not None
            board.tap(position={"x": box["width"] * across, "y": box["height"] * down})
            self.tap(page, kind)
            self.tap(page, count, "How many")
            self.tap(page, "Put it down")
        sheet.get_by_text("C1: a plug with 3 pins").wait_for()
        self.check_accessible(page)
        self.tap(page, "Keep the sketch")
        sheet.wait_for(state="hidden")

    def join(self, page: Page) -> None:
        page.get_by_role("link", name="Workshop").click()
        page.get_by_label("Answer to").fill("It is the TVH-2210-B, its label is under the cover")
        page.get_by_role("button", name="Answer", exact=True).click()
        page.get_by_role("heading", name="Asked by jobs").wait_for(state="hidden")
        page.get_by_role("button", name="K7-100 is a board that is there").click()
        sheet = page.get_by_role("dialog")
        sheet.get_by_label("Which one").fill("TVH-2210-B")
        sheet.get_by_role("button", name="TVH-2210-B").first.click()
        sheet.get_by_text("One open job has the sketch").wait_for()
        self.check_accessible(page)
        sheet.get_by_label("How it is known").fill("The label is under the cover")
        sheet.get_by_role("button", name="They are one board").click()
        sheet.wait_for(state="hidden")
        self.assertTrue((Board.objects.get(part_number="K7-100").withdrawn or {})["same"])

    def test_the_lead_adds_somebody_who_signs_in_and_changes_the_password(self) -> None:
        with self.page("corm") as page:
            page.goto(f"{self.live_server_url}/depot")
            page.get_by_text("Add somebody").click()
            form = page.locator("form").filter(has_text="Password to begin with")
            form.get_by_label("Name", exact=True).fill("Orla Tarl")
            form.get_by_label("Name to sign in with").fill("orla")
            form.get_by_label("Password to begin with").fill("12345678")
            form.get_by_role("button", name="Add them").click()
            page.get_by_text("too common").wait_for()
            form.get_by_label("Password to begin with").fill("lantern-77-up-the-quay")
            form.get_by_role("button", name="Add them").click()
            page.get_by_role("list", name="People of the depot").get_by_text("Orla Tarl").wait_for()
            self.check_accessible(page)
        self.assertTrue(Person.objects.get(username="orla").check_password("lantern-77-up-the-quay"))
