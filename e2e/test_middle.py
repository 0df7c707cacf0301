"""Make safe, record, carry over: a live board and a dead one, schools that disagree, pictures, and power that comes back."""

import re
import tempfile
from pathlib import Path

from django.conf import settings
from django.test import override_settings
from PIL import Image
from playwright.sync_api import Page

from catalogue.models import Board
from e2e.support import PHONE, BrowserTestCase
from standins.board_port import LiveBoard, PortServer, SteppedClock, live_board


class MiddleTestCase(BrowserTestCase):
    def start(self, page: Page, board: str, replacement: str, verdict: str, reason: str = "") -> None:
        """A fresh job with both boards."""
        page.get_by_role("link", name="Cobble Stair").click()
        page.get_by_role("button", name="Gas deck oven").wait_for()  # the list pushes down what stands below
        page.get_by_text("It was tested already").click()
        page.get_by_role("button", name="The board is the cause").click()
        page.get_by_role("button", name="Rule out Board condemned").wait_for()
        page.get_by_label("Marking on the board").fill(board)
        page.get_by_role("button", name=f"This is it: {board}", exact=True).click()
        page.get_by_role("button", name=f"{replacement} {verdict}").click()
        if reason:
            page.get_by_label("Why", exact=False).last.fill(reason)
        page.get_by_role("button", name=f"Take {replacement}").click()
        page.get_by_role("button", name=f"Choose Replacement: {replacement}").wait_for()
        self.saved(page)


class OnThePort(MiddleTestCase):
    """The board's stand-in on its service port, over a real connection."""

    def setUp(self) -> None:
        super().setUp()
        demo = settings.ROOT / "demo"
        family, board = demo / "families/deck-oven.family.json", demo / "boards/TVH-2420-A.board.json"
        self.live: LiveBoard = live_board(family, board, None, clock=SteppedClock())
        server = PortServer(self.live).start()
        self.addCleanup(server.stop)
        self.enterContext(override_settings(BOARD_PORT=f"127.0.0.1:{server.port}"))

    def test_a_live_board_is_read_and_timed_before_it_is_switched_off(self) -> None:
        with self.page() as page:
            self.start(page, "TVH-2420-A", "OFN-U5", "fits", "stands on the van, and the other is weeks away")
            page.get_by_text("Does the old board still answer?").first.wait_for()
            page.get_by_label("P01 in s").fill("45")
            page.get_by_label("P01 in s").press("Enter")
            self.saved(page)
            page.get_by_role("button", name="Read over the service port").click()
            page.get_by_text("It calls itself TVH-2420-A").wait_for()
            page.get_by_text("by eye: 45").wait_for()
            page.get_by_label("P01 in s").fill("17")
            page.get_by_label("P01 in s").press("Enter")
            page.get_by_text("Not possible here").wait_for()
            page.get_by_role("button", name="Take all that nobody read yet").click()
            self.saved(page)
            self.assertEqual((self.job(6).state["found"]["P01"], self.job(6).state["found"]["S1"]), (45, "00"))
            page.get_by_role("button", name="Take this instead: Pre-purge").click()
            self.saved(page)
            self.assertEqual(page.get_by_label("P01 in s").input_value(), "30")
            page.get_by_label("Last four faults").fill("E2, E2, none")
            page.get_by_label("Clock and bake programs").fill("see the card")
            page.get_by_label("Clock and bake programs").press("Enter")
            self.saved(page)
            self.unfold(page, "What it was seen to do")
            page.get_by_label("What is run").fill("Call for heat")
            page.get_by_role("button", name="Time it over the port").click()
            page.get_by_text("watched over the port").wait_for()
            self.live.change("call", True)
            page.get_by_text("1 made, 1 seen").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="Keep this run").click()
            self.saved(page)
            page.get_by_text("Call for heat").last.wait_for()
            self.make_safe(page)
            self.record_plugs(page)
            page.get_by_role("button", name="The record is complete").click()
            page.get_by_text(re.compile("All [0-9]+ functions alike")).or_(
                page.get_by_text("off register")
            ).first.wait_for()
            self.unfold(page, "Keys")
            page.get_by_text("Must then show").first.wait_for()
            self.check_accessible(page)
            with page.expect_download() as download:
                page.get_by_role("link", name="The plan as one sheet").click()
            self.assertTrue(download.value.suggested_filename.endswith(".plan.pdf"))
        job = self.job(6)
        self.assertEqual((job.state["found"]["P01"], job.state["how"]["P01"]), (30, "read over the port"))
        self.assertEqual(job.state["kept"]["starts"], "4182")
        trace = next(iter(job.state["traces"].values()))
        self.assertEqual([each["output"] for each in trace["seen"]], ["fan"])

    def test_a_dead_board_ends_in_reading_by_eye(self) -> None:
        self.live.mood = "dead"
        with self.page(dark=True, size=PHONE, touch=True) as page:
            self.start(page, "TVH-2420-A", "OFN-U5", "fits", "stands on the van")
            page.get_by_role("button", name="Read over the service port").click()
            page.get_by_text("The board does not answer").wait_for()
            page.get_by_role("radio", name="No", exact=True).click()
            page.get_by_text("Nothing more can be asked of it").wait_for()
            self.check_accessible(page)
            self.make_safe(page)
            self.unfold(page, "With power")
            for place in range(4):
                page.get_by_role("button", name="? unreadable").nth(place).click()
            page.get_by_role("radio", name="2", exact=True).first.click()
            page.get_by_label("S1 typed").fill("00")
            self.saved(page)
            page.get_by_text("unreadable leaves open: Pre-purge").wait_for()
            self.record_plugs(page)
            page.get_by_role("button", name="The record is complete").click()
            page.get_by_text("The choice is open again").wait_for()
            page.get_by_text("OFN-U5 is worse").wait_for()
            self.check_accessible(page)
            page.get_by_label("Why OFN-U5 is kept").fill("What is open is set as the leaflet says")
            page.get_by_role("button", name="Keep OFN-U5").click()
            page.get_by_text("Next: the schools disagree, decide").wait_for()
            self.check_accessible(page)
        self.assertEqual(self.job(6).state["found"]["P01"], "?")


class Draft(MiddleTestCase):
    def test_a_parts_lead_drafts_a_behaviour_from_timed_runs_edits_it_and_loads_it(self) -> None:
        with self.page("corm") as page:
            self.start(page, "OFN-K2", "TVH-2210-B", "to check", "the kit has no profile yet")
            page.get_by_role("button", name="Record", exact=True).click()
            self.unfold(page, "What it was seen to do")
            page.get_by_label("What is run").fill("Call")
            page.get_by_role("button", name="Time it by tapping").click()
            made, seen = (page.get_by_role("group", name=name) for name in ("You make happen", "You see"))
            made.get_by_role("button", name="Call for heat off").click()
            seen.get_by_role("button", name="Fan off").click()
            made.get_by_role("button", name="Call for heat on").click()
            seen.get_by_role("button", name="Fan on").click()
            page.get_by_role("button", name="Keep this run").click()
            self.saved(page)
            page.get_by_role("button", name="Draft a behaviour from these runs").click()
            page.get_by_text("1 of 1 runs are made by it").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="Take out this way of s1: 1").click()
            page.get_by_text("0 of 1 runs are made by it").wait_for()
            load = page.get_by_role("button", name="Load it as a new revision of OFN-K2")
            self.assertTrue(load.is_disabled())
            page.get_by_role("button", name="Draft a behaviour from these runs").click()
            page.get_by_text("1 of 1 runs are made by it").wait_for()
            page.get_by_label("Name of s1").fill("Standby")
            load.click()
            page.get_by_text("OFN-K2 has revision 2 now").wait_for()
        self.assertIsNotNone(Board.objects.get(part_number="OFN-K2").current)


class Schools(MiddleTestCase):
    def test_copying_would_be_dangerous_and_somebody_decides_with_a_reason(self) -> None:
        with self.page() as page:
            self.start(page, "TVH-2210-B", "TVH-2210-X", "no", "only one in the stores tonight")
            self.make_safe(page)
            page.get_by_label("S1 typed").fill("01?110")
            page.get_by_text("S1.3 unreadable leaves open: Post-purge").wait_for()
            page.get_by_label("S1 typed").fill("01011?")
            page.get_by_text("What cannot be read does not change any function").wait_for()
            page.get_by_label("S1 typed").fill("010110")
            self.saved(page)
            page.get_by_role("button", name="Read it again, blind").click()
            sheet = page.get_by_role("dialog")
            self.assertEqual(sheet.get_by_label("S1 typed").input_value(), "")
            sheet.get_by_label("S1 typed").fill("010010")
            sheet.get_by_role("button", name="Compare the two").click()
            page.get_by_text("Two readings differ.", exact=True).wait_for()
            page.get_by_label("S1 typed").fill("010010")
            page.get_by_label("S1 typed").fill("010110")
            self.saved(page)
            page.get_by_role("button", name="Read it again, blind").click()
            page.get_by_role("dialog").get_by_label("S1 typed").fill("010110")
            page.get_by_role("button", name="Compare the two").click()
            page.get_by_text("Two readings differ.", exact=True).wait_for(state="hidden")
            self.record_plugs(page)
            page.get_by_role("button", name="The record is complete").click()
            page.get_by_text("Next: the schools disagree, decide").wait_for()
            self.assertEqual(page.get_by_role("button", name="Confirm this plan").count(), 0)
            page.get_by_text("Position for position: what the machine would then do").click()
            page.get_by_text("The replacement shows").last.wait_for()
            self.unfold(page, "Wires")
            page.get_by_text("goes into C1, and does not belong there").wait_for()
            self.check_accessible(page)
            whole = page.get_by_role("region", name="Follow one school in everything")
            self.assertTrue(whole.get_by_role("button", name="By its functions").is_disabled())
            whole.get_by_label("Why, for everything").fill("The layout changed between the two; what it did counts")
            whole.get_by_role("button", name="By its functions").click()
            page.get_by_text("The schools disagree").wait_for(state="hidden")
            self.saved(page)
        self.assertEqual(self.job(6).state["school"], "functions")


class Pictures(MiddleTestCase):
    def test_wrong_pictures_are_refused_and_a_bank_is_proposed_and_confirmed(self) -> None:
        with tempfile.TemporaryDirectory() as folder, override_settings(MEDIA_ROOT=folder), self.page() as page:
            page.get_by_role("link", name="Fennick and Daughters").click()
            page.get_by_label("S1 typed").wait_for()
            self.unfold(page, "Pictures")
            wrong = Path(folder) / "board.jpg"
            wrong.write_text("this is no picture")
            page.get_by_label("Add pictures").set_input_files(wrong)
            page.get_by_text("expected JPEG, PNG or WebP").wait_for()
            # what was refused stays in sight until somebody has seen it; with it the picture goes
            page.get_by_role("button", name="I have seen this").click()
            page.get_by_label("Add pictures").set_input_files(bank(Path(folder) / "bank.png", "010110"))
            page.get_by_role("button", name="Read S1 from it").wait_for()
            page.get_by_label("What it shows").fill("S1 under the torch")
            page.get_by_label("What it shows").press("Enter")
            page.get_by_alt_text("S1 under the torch", exact=True).click(position={"x": 90, "y": 60})
            page.get_by_label("Mark 1: what is there").fill("cracked corner")
            page.get_by_role("button", name="Keep the mark").click()
            page.get_by_text("cracked corner").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="Read S1 from it").click()
            sheet = page.get_by_role("dialog")
            image = sheet.get_by_alt_text("The picture")
            box = image.bounding_box()
            assert box
            corners = [(0.1, 0.2), (0.9, 0.2), (0.9, 0.8), (0.1, 0.8)]
            for x, y in reversed(corners):
                image.click(position={"x": box["width"] * x, "y": box["height"] * y})
            sheet.get_by_text("clockwise from the upper left").wait_for()
            for x, y in corners:
                image.click(position={"x": box["width"] * x, "y": box["height"] * y})
            sheet.get_by_text("Look at every slider before you take it").wait_for()
            self.check_accessible(page)
            sheet.get_by_role("button", name="I looked: take it").click()
            self.saved(page)
            page.get_by_role("button", name="C1 pin 1 ").click()
            page.get_by_label("Size in mm²").fill("thick")
            page.get_by_text("A number above 0, or a gauge such as 18 AWG").wait_for()
            page.get_by_label("Size in mm²").fill("1,5")
            page.get_by_label("Tag").fill("L")
            page.get_by_role("button", name="Keep, next pin").click()
            page.get_by_role("button", name="No wire here, next pin").click()
            page.get_by_role("button", name="Close").click()
            page.get_by_text("No wire recorded yet on C1.3").wait_for()
            page.get_by_role("radio", name="No wire was there", checked=True).wait_for()
            self.unfold(page, "What came off")
            page.get_by_label("What comes off").fill("cover screw")
            page.get_by_label("How many").fill("4")
            page.get_by_role("button", name="It is off").click()
            page.get_by_text("screw: 4 off, 0 back on").wait_for()
            page.get_by_role("checkbox", name="4 × cover screw").click()
            page.get_by_text("screw: 4 off, 4 back on").wait_for()
            self.saved(page)
        state = self.job(3).state
        self.assertEqual((state["found"]["S1"], state["how"]["S1"]), ("010110", "from a picture"))
        self.assertEqual(next(iter(state["pictures"].values()))["marks"][0]["text"], "cracked corner")


def bank(path: Path, marks: str) -> Path:
    """A drawn bank in the middle of a picture: its field from a tenth to nine tenths, a fifth to four fifths."""
    image = Image.new("RGB", (600, 400), (110, 110, 110))
    for place, mark in enumerate(marks):
        left = 60 + place * 80
        image.paste((60, 60, 60), (left + 16, 92, left + 64, 308))
        top = 96 if mark == "1" else 206
        image.paste((220, 220, 215), (left + 20, top, left + 60, top + 98))
    image.save(path)
    return path


class PowerBack(MiddleTestCase):
    def test_a_countdown_survives_a_reload_and_power_in_the_middle_starts_everything_anew(self) -> None:
        with self.page(dark=True, size=PHONE, touch=True) as page:
            page.get_by_role("link", name="Fennick and Daughters").click()
            page.get_by_role("button", name="Make safe").tap()
            page.get_by_role("button", name="The supply is on again").tap()
            page.get_by_role("button", name="Isolate and lock off: confirmed").wait_for()
            self.hold(page, "Isolate and lock off")
            page.get_by_text("wait 0:0").wait_for()
            page.reload()
            page.get_by_role("button", name="Stored energy gone").tap()
            point = page.get_by_role("listitem", name="Stored energy gone")
            self.assertTrue(point.get_by_role("button", name="Stored energy gone: confirmed").is_disabled())
            self.check_accessible(page)
            point.get_by_text("Only a reading ends the wait").wait_for()
            point.get_by_label("Reading").fill("88")
            point.get_by_role("button", name="Stored energy gone: confirmed").tap()
            page.get_by_role("alert").get_by_text("the reading is not below 60 V").wait_for()
            point.get_by_label("Reading").fill("2,5")
            point.get_by_role("button", name="Stored energy gone: confirmed").tap()
            page.get_by_role("button", name="Take back: Stored energy gone").wait_for()
            self.make_safe(page)
            page.get_by_label("S1 typed").fill("010110")
            self.saved(page)
            page.get_by_role("button", name="Make safe").first.tap()
            page.get_by_role("button", name="The supply is on again").tap()
            page.get_by_role("button", name="Isolate and lock off: confirmed").wait_for()
            page.get_by_label("S1 typed").wait_for(state="hidden")
            self.saved(page)
        job = self.job(3)
        self.assertEqual((job.state["power"], job.state["holds"], job.state["found"]), ("on", {}, {"S1": "010110"}))
