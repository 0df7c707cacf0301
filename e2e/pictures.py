"""The pictures of the README: main views with the demo data. Run by script/screenshots, not with the tests."""

import os
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page

from e2e.support import DESK, PHONE, BrowserTestCase


class Pictures(BrowserTestCase):
    def test_take_them(self) -> None:
        folder = Path(os.environ["TWIN_PICTURES"])
        views: list[tuple[str, Callable[[Page], None], bool, bool]] = [
            ("jobs", lambda page: None, False, False),
            ("choose", self.choose, False, False),
            ("record", self.record, False, False),
            ("record-phone-dark", self.record, True, True),
            ("carry-over", self.carry, False, False),
            ("carry-over-phone", self.carry, False, True),
            ("prove", self.prove, False, False),
            ("prove-dark", self.prove, True, False),
            ("hand-over", self.hand_over, False, False),
            ("board", self.board, False, False),
            ("bench-dark", self.bench, True, False),
            ("load", self.load, False, False),
        ]
        for name, show, dark, phone in views:
            user = "corm" if name == "load" else "wennick"
            with self.page(user, dark=dark, size=PHONE if phone else DESK) as page:
                show(page)
                page.wait_for_load_state("networkidle")
                page.screenshot(path=folder / f"{name}.png", full_page=name not in ("jobs", "load"))
        context = self.browser.new_context(viewport=DESK)
        page = context.new_page()
        page.goto(self.live_server_url)
        page.get_by_label("Name").wait_for()
        page.screenshot(path=folder / "sign-in.png")
        context.close()

    def choose(self, page: Page) -> None:
        page.get_by_role("link", name="Deck oven 4").click()
        page.get_by_role("button", name="Choose Replacement").click()
        page.get_by_text("TVH-2210-X").first.wait_for()
        page.get_by_role("button", name="Prove", exact=True).click()
        page.get_by_text("Why").nth(3).click()

    def record(self, page: Page) -> None:
        page.get_by_role("link", name="Old deck oven").click()
        page.get_by_role("button", name="Record").first.click()
        page.get_by_role("button", name="S1 Options").click()
        page.get_by_role("button", name="Carry over").first.click()
        page.get_by_text("leaves open").first.wait_for()

    def carry(self, page: Page) -> None:
        page.get_by_role("link", name="Old deck oven").click()
        page.get_by_text("If copied").first.wait_for()

    def prove(self, page: Page) -> None:
        page.get_by_role("link", name="Deck oven 4").click()
        page.get_by_text("The two part at 30 s").wait_for()

    def hand_over(self, page: Page) -> None:
        page.get_by_label("Show").select_option("closed")
        page.get_by_role("link", name="Gullsway Rolls").click()
        page.get_by_role("button", name="Hand over").click()
        page.get_by_text("As found").wait_for()

    def board(self, page: Page) -> None:
        page.get_by_role("link", name="Catalogue").click()
        page.get_by_role("link", name="TVH-2420-A").click()
        page.get_by_text("as P02 says").wait_for()

    def bench(self, page: Page) -> None:
        page.goto(f"{self.live_server_url}/bench?original=TVH-2210-B&replacement=OFN-U3")
        page.get_by_role("region", name="Time tracks").wait_for()

    def load(self, page: Page) -> None:
        page.goto(f"{self.live_server_url}/catalogue/load")
        page.get_by_label("Its text").fill(
            '{\n "format": "worthy-twin/board",\n "version": 1,\n "part_number": "OFN-U3",\n "status": "new"\n}'
        )
        page.get_by_role("button", name="Only check it").click()
        page.get_by_text("status").last.wait_for()
