"""A burnt board: nothing on it can be read, and it is set as another machine of the kind stands, said so to the end."""

import re

from playwright.sync_api import Page

from e2e.support import PHONE, BrowserTestCase


class BurntBoard(BrowserTestCase):
    def test_its_positions_come_from_a_sister_machine_and_the_plan_says_so(self) -> None:
        with self.page(size=PHONE, touch=True, dark=True) as page:
            self.to_the_record(page)
            page.get_by_role("group", name="Nothing can be read").get_by_role("button", name="burnt").tap()
            page.get_by_text("Nothing on it can be read:").wait_for()
            unread = page.get_by_role("region", name="What cannot be read")
            self.check_accessible(page)
            sister = unread.get_by_role("listitem").filter(has_text="As on another machine of the kind").first
            sister.get_by_role("button", name=re.compile("^S1 ")).tap()
            unread.get_by_text("Assumed, not read:").wait_for()
            self.saved(page)
            self.make_safe(page)
            self.record_plugs(page)
            page.get_by_role("button", name="The record is complete").tap()
            page.get_by_text("all that follows rests on it").wait_for()
            page.get_by_text(re.compile("functions alike")).first.wait_for()
            self.check_accessible(page)
        state = self.job(6).state
        self.assertEqual(state["found"], {"S1": "??????"})
        self.assertEqual(state["assumed"]["S1"]["source"], "sister machine")
        self.assertNotIn("?", state["assumed"]["S1"]["value"])

    def to_the_record(self, page: Page) -> None:
        """The fresh job, its board condemned and its successor taken."""
        page.get_by_role("link", name="Cobble Stair").tap()
        page.get_by_role("button", name="Gas deck oven").wait_for()  # the list pushes down what stands below
        page.get_by_text("It was tested already").tap()
        page.get_by_role("button", name="The board is the cause").tap()
        page.get_by_role("button", name="Rule out Board condemned").wait_for()
        page.get_by_label("Marking on the board").fill("TVH-2210-B")
        page.get_by_role("button", name="This is it: TVH-2210-B", exact=True).tap()
        page.get_by_role("button", name="TVH-2210-C fits").tap()
        page.get_by_role("button", name="Take TVH-2210-C").tap()
        page.get_by_role("button", name="Choose Replacement: TVH-2210-C").wait_for()
        self.saved(page)
        self.unfold(page, "Record", exact=True)
