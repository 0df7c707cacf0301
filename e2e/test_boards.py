"""A machine with two boards as one job: both recorded under one lock-off, fitted, proved, handed over together."""

import re

from playwright.sync_api import Page

from e2e.support import PHONE, BrowserTestCase
from twincore.job import turned


class TwoBoards(BrowserTestCase):
    def test_one_lock_off_two_sheets_one_hand_over(self) -> None:
        with self.page() as page:
            page.get_by_role("link", name="Spiral mixer 2, Gullsway").click()
            boards = page.get_by_role("navigation", name="Boards of this job")
            boards.get_by_text("First Mixer board, then Drive board").click()
            boards.get_by_text("Mixer board drives Drive board (J1.4, J1.5).").wait_for()
            self.check_accessible(page)
            # the longest wait is the drive's, and it is said on the mixer board's sheet
            self.make_safe(page)
            self.record(page, S1="01100110", S2="010010")
            self.go_on_with(page, "Drive board")
            self.wire_between(page)
            self.record(page, S1="0100")
            self.plan(page)
            self.go_on_with(page, "Mixer board")
            self.plan(page)
            self.fit_dead(page)
            # its power waits for the other board
            page.get_by_text("Drive board: set and read back").wait_for()
            self.go_on_with(page, "Drive board")
            self.fit_dead(page)
            self.power_on(page)
            for title in ("Drive board", "Mixer board"):
                self.open_board(page, title)
                self.fitted_and_proved(page)
            self.hand_over(page)
        job = self.job(10)
        self.assertIsNotNone(job.closed_at)
        self.assertEqual(job.state["left"]["S1"], "01100110")
        self.assertEqual(turned(job.state, "2")["left"]["R1"], "3")
        self.assertEqual(len(job.state["between"]), 4)

    def test_a_second_board_is_added_on_a_phone(self) -> None:
        with self.page(size=PHONE, touch=True, dark=True) as page:
            page.get_by_role("link", name="Cobble Stair").tap()
            page.get_by_text("Another board of this machine goes too").tap()
            page.get_by_label("What it is called").fill("Display")
            page.get_by_role("button", name="Add this board").tap()
            boards = page.get_by_role("navigation", name="Boards of this job")
            boards.get_by_role("link", name="Display").tap()
            page.get_by_role("heading", name="What kind of machine is it?").wait_for()
            self.check_accessible(page)
            boards.get_by_text("First Main board, then Display").tap()
            boards.get_by_role("button", name="Take Display out of this job").tap()
            boards.wait_for(state="hidden")
            page.get_by_text("Another board of this machine goes too").wait_for()
        self.assertEqual(self.job(6).state["boards"], {})

    def record(self, page: Page, **banks: str) -> None:
        for name, places in banks.items():
            elements = page.get_by_role("group", name="Elements of the board")
            elements.get_by_role("button", name=re.compile(f"^{name} ")).click()
            page.get_by_role("button", name=f"{name}.1 unreadable").focus()
            for place in places:
                page.keyboard.press(place)
            self.saved(page)
        self.unfold(page, re.compile("^Wires(?! to)"))
        self.record_plugs(page)
        page.get_by_role("button", name="The record is complete").click()
        self.saved(page)

    def wire_between(self, page: Page) -> None:
        self.unfold(page, "Wires to the machine’s other boards")
        page.get_by_label("Here, on Drive board").select_option("D2.3")
        page.get_by_label("There, on Mixer board").select_option("J1.6")
        page.get_by_role("button", name="Keep this wire between the boards").click()
        page.get_by_role("list", name="Wires between the boards").get_by_text("J1.6").first.wait_for()
        self.check_accessible(page)

    def go_on_with(self, page: Page, title: str) -> None:
        boards = page.get_by_role("navigation", name="Boards of this job")
        boards.get_by_text(f"{title} comes first:").wait_for()
        boards.get_by_role("link", name="Go on there").click()
        self.open_board(page, title)

    def open_board(self, page: Page, title: str) -> None:
        boards = page.get_by_role("navigation", name="Boards of this job")
        boards.get_by_role("link", name=title).first.click()
        boards.locator("[aria-current=page]").get_by_text(title).wait_for()
        self.saved(page)

    def plan(self, page: Page) -> None:
        confirm = page.get_by_role("button", name="Confirm this plan")
        confirm.click()
        self.saved(page)

    def fitted_and_proved(self, page: Page) -> None:
        self.fit_powered(page)
        page.get_by_label("Why go on").or_(page.get_by_label("What was run on the machine")).first.fill("looked at")
        page.get_by_role("button", name="Go on with this reason").or_(
            page.get_by_role("button", name="Seen on the machine")
        ).click()  # fmt: skip
        page.get_by_role("button", name="Prove ").first.wait_for()
        self.saved(page)

    def hand_over(self, page: Page) -> None:
        page.get_by_role("button", name="Decisions and findings").click()
        page.get_by_text("Drive board: QN9-0210 chosen by Wennick Tarl").wait_for()
        page.get_by_role("button", name="Papers").click()
        page.get_by_role("link", name="Cabinet label, Drive board").wait_for()
        self.check_accessible(page)
        page.get_by_role("button", name="Close the job").click()
        page.get_by_text("Nothing in this job changes any more").wait_for()
