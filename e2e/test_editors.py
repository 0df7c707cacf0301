"""Every kind of element set by touch, keys and typing, in the record and in the plan."""

from playwright.sync_api import Page

from e2e.support import PHONE, BrowserTestCase


class Editors(BrowserTestCase):
    def start(self, page: Page, board: str) -> None:
        """A fresh job on a board, up to the record."""
        page.get_by_role("link", name="Cobble Stair").click()
        page.get_by_role("button", name="Gas deck oven").wait_for()  # the list pushes down what stands below
        page.get_by_text("It was tested already").click()
        page.get_by_role("button", name="The board is the cause").click()
        page.get_by_role("button", name="Rule out Board condemned").wait_for()
        page.get_by_label("Marking on the board").fill(board)
        page.get_by_role("button", name=f"This is it: {board}", exact=True).click()
        self.make_safe(page)
        page.get_by_role("button", name="Make safe").first.click()
        self.unfold(page, "Record", exact=True)

    def test_parameters_programs_and_what_cannot_be_read(self) -> None:
        with self.page(size=PHONE, touch=True) as page:
            self.start(page, "TVH-2420-A")
            field = page.get_by_label("P01 in s")
            field.fill("17")
            field.press("Enter")
            page.get_by_text("Not possible here: 15 to 60 in steps of 15").wait_for()
            field.fill("30")
            field.press("Enter")
            self.saved(page)
            page.get_by_role("button", name="P01 more").tap()
            self.saved(page)
            self.assertEqual(field.input_value(), "45")
            page.get_by_role("button", name="? unreadable").nth(1).tap()
            page.get_by_role("radio", name="3", exact=True).tap()
            page.get_by_role("button", name="Nothing readable").tap()
            elements = page.get_by_role("group", name="Elements of the board")
            elements.get_by_role("button", name="S1 Alarm and buzzer ??").wait_for()
            self.saved(page)
            self.check_accessible(page)
            page.get_by_text("not read: P03, P04").wait_for()
            for name, value in (("P03", "60"), ("P04", "15")):
                page.get_by_label(f"{name} in s").fill(value)
                page.get_by_label(f"{name} in s").press("Enter")
            page.get_by_text("not written down: Burner starts").wait_for()
            self.saved(page)
        found = self.job(6).state["found"]
        self.assertEqual(found, {"P01": 45, "P02": "?", "prog": "3", "S1": "??", "P03": 60, "P04": 15})
        self.assertEqual(self.job(6).state["how"]["P01"], "by eye")

    def test_how_it_was_read_is_kept_with_it(self) -> None:
        with self.page() as page:
            self.start(page, "TVH-2205")
            page.get_by_label("Read how").select_option("told by somebody")
            page.get_by_role("radio", name="2-3", exact=True).click()
            self.saved(page)
            page.get_by_text("Everything that was entered").click()
            page.get_by_text("told by somebody").last.wait_for()
        self.assertEqual(self.job(6).state["how"], {"J1": "told by somebody"})

    def test_a_bank_numbered_from_the_right_follows_its_own_direction(self) -> None:
        with self.page() as page:
            self.start(page, "TVH-2214-A")
            page.get_by_text("As it hangs, left to right 4 to 1, on is down").wait_for()
            page.get_by_role("button", name="SW1.1 unreadable").focus()
            page.keyboard.press("1")
            page.keyboard.press("0")
            page.keyboard.press("ArrowDown")  # on is down on this board
            page.get_by_role("button", name="SW1.3 on").wait_for()
            page.keyboard.press("ArrowLeft")
            page.keyboard.press("ArrowUp")
            page.get_by_role("button", name="SW1.4 off").wait_for()
            self.saved(page)
        self.assertEqual(self.job(6).state["found"], {"SW1": "1010"})

    def test_locked_places_stay_in_the_plan(self) -> None:
        with self.page() as page:
            page.goto(f"{self.live_server_url}/bench?original=TVH-2205&replacement=TVH-2210-C")
            page.get_by_role("button", name="Change S1").click()
            dialog = page.get_by_role("dialog")
            dialog.get_by_role("button", name="S1.6 off, locked").click()
            dialog.get_by_role("button", name="S1.6 off, locked").wait_for()
            dialog.get_by_role("button", name="S1.2 off").click()
            dialog.get_by_role("button", name="S1.2 on").wait_for()
            dialog.get_by_text("2 safety functions off register").wait_for()
            page.get_by_role("button", name="Close").click()
            page.get_by_role("button", name="Back to the best").click()
            page.get_by_text("1 safety function off register").wait_for()
