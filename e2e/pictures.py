"""The pictures of the README: main views with the demo data. Run by script/screenshots, not with the tests."""

import os
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from pathlib import Path

from playwright.sync_api import Page

from e2e.support import DESK, PHONE, BrowserTestCase
from parts.models import Offer


class Pictures(BrowserTestCase):
    def test_take_them(self) -> None:
        folder = Path(os.environ["TWIN_PICTURES"])
        views: list[tuple[str, Callable[[Page], None], bool, bool]] = [
            ("jobs", lambda page: None, False, False),
            ("recognise", self.recognise, False, False),
            ("choose", self.choose, False, False),
            ("candidate-dark", self.candidate, True, False),
            ("contradictions", self.contradictions, False, False),
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
            # last, for they take a confirmation back
            ("rule-out", self.rule_out, False, False),
            ("rule-out-phone-dark", self.rule_out, True, True),
        ]
        for name, show, dark, phone in views:
            user = "corm" if name in ("load", "contradictions") else "wennick"
            with self.page(user, dark=dark, size=PHONE if phone else DESK) as page:
                show(page)
                page.wait_for_load_state("networkidle")
                page.screenshot(path=folder / f"{name}.png", full_page=name not in ("jobs", "load", "contradictions"))
        context = self.browser.new_context(viewport=DESK)
        page = context.new_page()
        page.goto(self.live_server_url)
        page.get_by_label("Name").wait_for()
        page.screenshot(path=folder / "sign-in.png")
        context.close()

    def rule_out(self, page: Page) -> None:
        page.get_by_role("link", name="Retarder-prover 2").click()
        page.get_by_role("heading", name="Retarder-prover 2").wait_for()
        if "rule_out" in self.job(7).state["confirmed"]:  # the second picture finds it taken back
            page.get_by_role("button", name="Rule out Board condemned").click()
            page.get_by_role("button", name="Take this confirmation back").click()
        page.get_by_role("button", name="The board is the cause").wait_for()
        options = page.get_by_label("Other tests").locator("option").all_inner_texts()
        probe = next(each for each in options if each.startswith("Coil probe"))
        page.get_by_label("Other tests").select_option(label=probe)
        self.saved(page)

    def recognise(self, page: Page) -> None:
        page.get_by_role("link", name="Steam generator 1").click()
        page.get_by_role("button", name="Recognise", exact=True).click()
        page.get_by_role("button", name="Rule out").click()
        page.get_by_text("of 12 boards left").wait_for()
        page.get_by_label("Number on it").fill("SG 09 O 06")
        page.get_by_text("Perhaps D?").wait_for()

    def offers(self) -> None:
        """What a parts desk said this morning."""
        said = datetime.now(UTC) - timedelta(hours=2)
        prices = {
            "UMC 40-118/2": (212, 2),
            "UMC 40-122": (187, 0),
            "OFN-P1": (96, 5),
            "OFN-PK": (140, 1),
            "UMC 40-120": (205, 0),
        }
        for part_number, (price, stock) in prices.items():
            values = {"price": price, "stock": stock, "days": 5, "answered_at": said, "asked_at": said}
            Offer.objects.update_or_create(part_number=part_number, defaults=values)

    def choose(self, page: Page) -> None:
        self.offers()
        page.get_by_role("link", name="Retarder-prover 2").click()
        page.get_by_role("button", name="UMC 40-122 with work").wait_for()

    def candidate(self, page: Page) -> None:
        self.choose(page)
        page.get_by_role("button", name="UMC 40-122 with work").click()
        page.get_by_text("Laid on the original").click()
        page.get_by_role("img", name="Outlines laid on each other").wait_for()

    def contradictions(self, page: Page) -> None:
        page.goto(f"{self.live_server_url}/references/contradictions")
        page.get_by_text("ring").first.wait_for()

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
        page.goto(f"{self.live_server_url}/catalogue/TVH-2420-A")
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
