"""A kit with a bracket and a sensor, fitted in the browser: the board read first, each step measured, nothing forgotten."""

import re

from django.test import Client
from playwright.sync_api import Page

from e2e.support import PHONE, BrowserTestCase
from jobs.tests.kit import kit_to_fit
from jobs.tests.world import Calls


class Kit(BrowserTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.calls = Calls()
        self.calls.client = Client()
        self.calls.sign_in()
        self.calls.open = self.job(6)
        kit_to_fit(self.calls)

    def test_it_is_read_fitted_and_measured_step_by_step(self) -> None:
        with self.page(size=PHONE, touch=True, dark=True) as page:
            page.get_by_role("link", name="Cobble Stair").tap()
            page.get_by_role("button", name="All of it is there").tap()
            self.another_number_is_told(page)
            page.get_by_role("button", name="The board in my hand says UMC 48-200").tap()
            page.get_by_role("button", name=re.compile("Checked - OK: The sticker beside C1")).tap()
            self.saved(page)
            self.check_accessible(page)
            self.steps(page)
            self.saved(page)
        missing = " ".join(self.calls.of("fitting")["missing_dead"])
        for word in ("kit not fitted", "number on the new board", "not looked at on the new board", "from the kit"):
            self.assertNotIn(word, missing)
        self.assertIn("recipe chip", missing)
        kept = self.job(6).state["kit_steps"]
        self.assertEqual((kept["bracket"]["measured_mm"], kept["humidity"]["done"]), (42.5, False))

    def another_number_is_told(self, page: Page) -> None:
        self.unfold(page, "The board in your hand")
        page.get_by_text("It says something else").tap()
        page.get_by_label("What stands on it").fill("UMC 46-001")
        page.get_by_role("button", name="Is that the one?").tap()
        page.get_by_text("It says UMC 46-001; chosen was UMC 48-200").first.wait_for()

    def steps(self, page: Page) -> None:
        self.unfold(page, "Fit the kit")
        first = page.get_by_role("listitem").filter(has_text="Screw the bracket on")
        first.get_by_label("Measured, mm").fill("47")
        first.get_by_role("button", name="Done: Screw the bracket on").tap()
        first.get_by_text("47 mm is outside 42 mm (41 to 44)").wait_for()
        first.get_by_label("Measured, mm").fill("42.5")
        first.get_by_role("button", name="Done: Screw the bracket on").tap()
        page.get_by_role("button", name="Take back: Screw the bracket on").wait_for()
        self.check_accessible(page)
        second = page.get_by_role("listitem").filter(has_text="Clip the coil sensor")
        second.get_by_label("Measured, mm").fill("160")
        second.get_by_role("button", name="Done: Clip the coil sensor").tap()
        page.get_by_role("button", name="Not needed here: Plug the humidity").tap()
        page.get_by_role("button", name="Take back: Plug the humidity").wait_for()
