"""Where things stand on a job's sheet: the work at the top, the next thing under the thumb, nothing endless."""

from playwright.sync_api import Page

from e2e.support import DESK, PHONE, BrowserTestCase

WORK_STARTS_WITHIN = 200
PHONE_HEIGHTS = 3
OPEN = ("SQ-0006", "SQ-0007", "SQ-0003", "SQ-0004", "SQ-0005")
"""Seeded jobs, each with another step in hand."""


class Sheet(BrowserTestCase):
    def opened(self, page: Page, code: str) -> None:
        page.get_by_role("link", name="Jobs").first.click()
        page.get_by_role("link", name=code).click()
        page.get_by_role("region", name="Next").wait_for()

    def test_the_step_in_hand_starts_at_the_top_with_the_next_thing_in_one_line(self) -> None:
        for size in (DESK, PHONE):
            with self.page(size=size) as page:
                for code in OPEN:
                    with self.subTest(code, width=size["width"]):
                        self.opened(page, code)
                        current = page.locator("button[aria-current=step]").inner_text().split("\n")[1]
                        heading = page.get_by_role("heading", level=2, name=current, exact=False).first
                        box = heading.bounding_box()
                        assert box
                        self.assertLess(box["y"], WORK_STARTS_WITHIN)
                        bar = page.get_by_role("region", name="Next").bounding_box()
                        assert bar
                        # one line with one button, in sight without scrolling: under the thumb on a phone
                        self.assertLessEqual(bar["y"] + bar["height"], size["height"])
                        self.assertLess(bar["height"], 100)
                        self.assertEqual(page.get_by_role("region", name="Next").get_by_role("button").count(), 1)

    def test_what_is_asked_first_is_asked_while_the_script_is_on_its_way_and_all_of_it_is_wanted(self) -> None:
        with self.page() as page:
            for code in OPEN:
                self.opened(page, code)
                page.reload()
                page.get_by_role("region", name="Next").wait_for()
                page.get_by_text("Everything that was entered (").wait_for()
                self.assertEqual(
                    page.evaluate("[...(window.early ?? [])].filter((each) => each[1]).map(String)"), [], code
                )

    def test_the_next_thing_brings_the_hand_to_it(self) -> None:
        with self.page(size=PHONE, touch=True) as page:
            self.opened(page, "SQ-0005")
            page.get_by_role("button", name="Show me").tap()
            page.wait_for_function("() => document.activeElement.closest('#part-runs') !== null")
            self.opened(page, "SQ-0006")
            page.get_by_role("button", name="To the kinds").tap()
            page.wait_for_function("() => document.activeElement.closest('#kinds') !== null")

    def test_what_is_done_opens_at_a_touch_and_says_what_came_of_it(self) -> None:
        with self.page() as page:
            self.opened(page, "SQ-0004")
            known = page.get_by_role("list", name="What is known")
            self.assertIn("TVH-2205", known.inner_text())
            self.assertIn("Locked off", known.inner_text())
            page.get_by_role("button", name="Rule out").click()
            page.get_by_role("heading", name="Rule out Board condemned").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="Rule out").click()
            page.get_by_role("heading", name="Rule out Board condemned").wait_for(state="hidden")
            page.get_by_text("SQ-0004").click()
            page.get_by_text("Locks out every second").wait_for()

    def test_no_screen_of_a_job_is_longer_than_three_phones_before_something_is_opened(self) -> None:
        with self.page(size=PHONE) as page:
            for code in OPEN:
                with self.subTest(code):
                    self.opened(page, code)
                    self.settled(page)
                    height = page.evaluate("document.documentElement.scrollHeight")
                    self.assertLessEqual(height, PHONE_HEIGHTS * PHONE["height"])
