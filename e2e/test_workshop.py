"""The workshop as people use it: a leaflet entered by keyboard, a page read from a picture, two at one draft, a lost line."""

import json
import re

from django.conf import settings
from playwright.sync_api import APIResponse, Locator, Page, Route, expect

from catalogue.models import Board
from e2e.support import BrowserTestCase
from people.models import Person
from standins.printed import leaflet
from workshop.models import Draft

PICTURES = settings.ROOT / "demo" / "pictures"
KEY_S, TAP_S = 0.28, 1.5
"""The keystroke-level model: a key of an average typist; homing and pointing (Card, Moran and Newell 1980, from memory)."""
LEAFLET_S, BEHAVIOUR_S = 600, 900
LINES = "S1 bank 8, on up, from left; R1 dial 0..7; C1 plug 8, keyed; C2 plug 4; board green"
MEANINGS = (
    ("Wash time", "a time", ("S1.1", "S1.2"), ("60", "90", "120", "180")),
    ("Final rinse", "a time", ("S1.3", "S1.4"), ("10", "15", "20", "25")),
    ("Wait for heat", "yes or no", ("S1.5",), ("no", "yes")),
    ("Drain after stop", "a time", ("S1.6",), ("0", "1 min 30")),
    ("Restart after door", "one of several", ("S1.7",), ("by hand", "by itself")),
)  # fmt: skip
NOTHING_WAITS = "() => !Object.keys(localStorage).some(key => /^of \\S+ workshop /.test(key))"
PINS = "L\tSupply, line\nN\tSupply, neutral\nE\tEarth\nP\tMotor\nH\tHeater\nV\tValve\nD\t\nS\tSwitch"


class WorkshopTestCase(BrowserTestCase):
    """Counts what hands do."""

    keys = taps = 0

    def tap(self, what: Locator) -> None:
        what.click()
        self.taps += 1

    def type(self, what: Locator, text: str) -> None:
        """Typed where one stands already, by whatever way the hand came there."""
        what.fill(text)
        self.keys += len(text)

    def press(self, page: Page, key: str) -> None:
        page.keyboard.press(key)
        self.keys += 1

    @property
    def estimate_s(self) -> float:
        return self.keys * KEY_S + self.taps * TAP_S

    def settled(self, page: Page) -> None:
        """Wait until the server has everything: what it has not answered is kept on the device before the page says so."""
        page.wait_for_function(NOTHING_WAITS)
        expect(page.locator("header [role=status]").last).to_have_text(re.compile("^Nothing wrong$|to put right$"))

    def take_in(self, page: Page, number: str) -> None:
        page.get_by_role("link", name="Workshop").click()
        page.get_by_label("Number, title or maker").fill(number)
        page.get_by_role("list", name="Boards found").get_by_role("button", name=number).first.click()
        page.get_by_role("heading", name=number).wait_for()

    def sketch(self, page: Page) -> None:
        page.get_by_role("link", name="Workshop").click()
        page.get_by_label("Number, title or maker").fill(leaflet.BOARD)
        page.get_by_role("button", name="Sketch it", exact=True).click()
        sheet = page.get_by_role("dialog")
        sheet.get_by_label("What kind it is").fill("Tray washer")
        sheet.get_by_label("The sketch in lines").fill(LINES)
        sheet.get_by_role("button", name="Keep the sketch").click()
        page.get_by_role("heading", name=leaflet.BOARD).wait_for()


class Leaflet(WorkshopTestCase):
    def test_a_leaflet_with_its_chart_is_entered_by_keyboard_and_published_by_the_lead(self) -> None:
        with self.page() as page:
            self.sketch(page)
            self.keys = self.taps = 0
            for meaning in MEANINGS:
                self.meaning(page, *meaning)
            self.dosing(page)
            self.source(page)
            self.check_accessible(page)
            self.chart(page)
            self.plug(page)
            self.assertLess(self.estimate_s, LEAFLET_S)
            self.assertLess(self.keys, 1100)  # what the README says of it
            self.assertLess(self.taps, 40)
            page.get_by_role("navigation", name="Parts").get_by_role("button", name="What changes").click()
            page.get_by_label("What the parts lead should know").fill("Leaflet from the door")
            page.get_by_role("button", name="Propose it").click()
            page.get_by_text("proposed to the parts lead").wait_for()
        with self.page("corm") as page:
            page.get_by_role("link", name="Workshop").click()
            page.get_by_role("list", name="Drafts").get_by_role("link", name=leaflet.BOARD).click()
            page.get_by_role("navigation", name="Parts").get_by_role("button", name="What changes").click()
            page.get_by_text("Against revision 1").wait_for()
            self.check_accessible(page)
            page.get_by_label("Why it is published").fill("By its leaflet")
            page.get_by_role("button", name="Publish as revision 2").click()
            page.get_by_text("This draft is done with").wait_for()
        board = Board.objects.get(part_number=leaflet.BOARD)
        assert board.current is not None
        self.assertEqual((board.current.number, len(board.traits["connectors"][0]["pins"])), (2, 8))
        self.assertEqual(Draft.objects.get().state, "published")

    def meaning(self, page: Page, title: str, kind: str, points: tuple[str, ...], cells: tuple[str, ...]) -> None:
        self.tap(page.get_by_role("button", name="Another function"))
        form = page.get_by_role("form", name="Another function")
        self.type(form.get_by_label("What it is called"), title)
        if kind != "a time":
            form.get_by_label("It is", exact=True).select_option(label=kind)
            self.taps += 2
        if kind == "one of several":
            self.type(form.get_by_label("What it can be"), ", ".join(cells))
        self.press(page, "Enter")
        for point in points:
            self.tap(page.get_by_role("checkbox", name=point, exact=True))
        table = page.get_by_role("region", name=f"{title} by {', '.join(points)}")
        for row, text in enumerate(cells):
            self.type(table.get_by_role("row").nth(row + 1).locator("input"), text)
            self.press(page, "Enter")
        self.tap(page.get_by_role("button", name=title))  # folds it, and keeps what was typed last
        self.settled(page)

    def dosing(self, page: Page) -> None:
        self.tap(page.get_by_role("button", name="Another function"))
        form = page.get_by_role("form", name="Another function")
        self.type(form.get_by_label("What it is called"), "Dosing")
        form.get_by_label("It is", exact=True).select_option(label="a count")
        self.taps += 2
        self.press(page, "Enter")
        self.tap(page.get_by_role("radio", name="read from one"))
        page.get_by_label("Read from").select_option("R1")
        self.taps += 2
        self.tap(page.get_by_role("button", name="Keep", exact=True))
        self.settled(page)

    def source(self, page: Page) -> None:
        self.tap(page.get_by_role("button", name="Say where it is from"))
        self.type(page.get_by_label("Title and date"), "Tray washers 2009")
        self.press(page, "Enter")
        page.get_by_text("By a leaflet or manual: Tray washers 2009").wait_for()

    def chart(self, page: Page) -> None:
        self.tap(page.get_by_role("navigation", name="Parts").get_by_role("button", name="Charts"))
        table = leaflet.chart()
        self.type(page.get_by_label("The leaflet’s title"), "Sheet 2")
        lines = "\n".join(",".join(row) for row in (table.headings, *table.rows))
        self.type(page.get_by_label("Its headings"), lines)
        self.tap(page.get_by_role("button", name="Begin the chart with 24 rows"))
        rows = page.get_by_role("region", name="Rows of Sheet 2")
        # the one row that is unlike all those beside it is asked about
        rows.get_by_text("a misprint?").wait_for()
        self.assertEqual(rows.get_by_text("a misprint?").count(), 1)

    def plug(self, page: Page) -> None:
        self.tap(page.get_by_role("navigation", name="Parts").get_by_role("button", name="Plugs"))
        pins = page.get_by_role("region", name="Pins of C1")
        for number, line in enumerate(PINS.split("\n"), 1):
            printed, signal = line.split("\t")
            row = pins.get_by_role("row").nth(number)
            self.type(row.locator("input").nth(1), printed)
            self.press(page, "Tab")
            self.type(row.locator("input").nth(2), signal)
            self.press(page, "Tab")
        self.tap(page.get_by_role("heading", name=leaflet.BOARD))
        self.settled(page)
        expect(pins.get_by_role("row").nth(4).locator("input").nth(2)).to_have_value("Motor")


class FromPictures(WorkshopTestCase):
    def test_a_chart_is_read_from_a_picture_of_its_page_and_held_against_it(self) -> None:
        with self.page() as page:
            self.sketch(page)
            page.get_by_role("navigation", name="Parts").get_by_role("button", name="Charts").click()
            page.get_by_label("The leaflet’s title").fill("Sheet 2")
            page.get_by_label("Read it from a picture of the page").set_input_files(PICTURES / "leaflet-2.jpg")
            page.get_by_text("Hold every row against it").wait_for()
            page.get_by_role("button", name="leaflet, taken by").click()
            page.get_by_role("region", name="The picture, large").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="Begin the chart with 24 rows").click()
            page.get_by_role("region", name="Rows of Sheet 2").wait_for()
        draft = Draft.objects.get()
        self.assertIn('"TW6"', draft.board_text)

    def test_a_marking_is_read_from_a_picture_and_confirmed_before_anything_is_looked_up(self) -> None:
        with self.page() as page:
            page.get_by_text("Open a new job").click()
            page.get_by_label("Machine", exact=True).fill("Tray washer 1")
            page.get_by_role("button", name="Open job").click()
            page.get_by_text("It was tested already").click()
            page.get_by_label("What was measured").fill("burnt")
            page.get_by_role("button", name="The board is the cause").click()
            page.get_by_role("button", name="Rule out Board condemned").wait_for()
            page.get_by_label("Read it from a picture").set_input_files(PICTURES / "board.jpg")
            read = page.get_by_role("list", name="Read in the picture")
            self.assertEqual(page.get_by_label("Marking on the board").input_value(), "")
            read.get_by_role("button", name=leaflet.BOARD).click()
            self.assertEqual(page.get_by_label("Marking on the board").input_value(), leaflet.BOARD)
            page.get_by_role("button", name="Sketch it", exact=True).wait_for()


class Behaviour(WorkshopTestCase):
    def test_behaviour_from_a_sibling_is_changed_played_and_compared(self) -> None:
        with self.page("corm") as page:
            self.take_in(page, "TVH-2210-C")
            self.tap(page.get_by_role("navigation", name="Parts").get_by_role("button", name="Behaviour"))
            self.tap(page.get_by_role("button", name="As another board behaves"))
            self.tap(page.get_by_role("list", name="Other boards").get_by_role("button", name="TVH-2210-B"))
            self.settled(page)
            page.get_by_label("State", exact=True).select_option("prove")
            self.taps += 2
            after = page.get_by_label("After, arrow 3 of prove")
            expect(after).to_have_value("30 s")
            self.type(after, "45 s")
            self.press(page, "Tab")
            self.tap(page.get_by_role("heading", name="TVH-2210-C"))
            self.settled(page)
            kept = page.get_by_label("kept when the supply is lost")
            self.tap(kept)
            expect(kept).to_be_checked()
            clocks = page.get_by_role("form", name="Clocks and counters")
            self.type(clocks.get_by_label("Clocks"), "since_stop expired")
            self.tap(clocks.get_by_role("button", name="Keep"))
            self.settled(page)
            self.assertIn('"starts": "expired"', Draft.objects.get().board_text)
            self.check_accessible(page)
            self.tap(page.get_by_role("navigation", name="Parts").get_by_role("button", name="What changes"))
            # a fan that does not prove its airflow goes on for longer: the shortest way to see that is told
            page.get_by_text("Off register: ").wait_for()
            self.assertLess(self.estimate_s, BEHAVIOUR_S)


class Together(WorkshopTestCase):
    def test_of_two_at_one_draft_the_second_is_told_and_keeps_what_was_typed(self) -> None:
        with self.page("corm") as one, self.page("wennick") as other:
            # what one looks at does not come anew while the other types, not even what was asked for before that
            seen: list[APIResponse] = []

            def as_first_seen(route: Route) -> None:
                if route.request.method != "GET":
                    return route.continue_()
                seen[:] = seen or [route.fetch()]
                return route.fulfill(response=seen[0])

            other.route("**/api/drafts/*", as_first_seen)
            for page in (one, other):
                self.take_in(page, "TVH-2210-B")
                page.get_by_role("button", name="Post-purge").click()
            cell = "Post-purge with S1.3 off, S1.4 off"
            one.get_by_label(cell).fill("35")
            one.get_by_role("heading", name="TVH-2210-B").click()
            self.settled(one)
            other.get_by_label(cell).fill("40")
            other.get_by_role("heading", name="TVH-2210-B").click()
            other.get_by_role("alert").filter(has_text="Corm Haddle changed").wait_for()
            expect(other.get_by_label(cell)).to_have_value("40")
            other.unroute("**/api/drafts/*")
            other.reload()
            other.get_by_role("button", name="Post-purge").click()
            expect(other.get_by_label(cell)).to_have_value("35")
            other.get_by_text("by Corm Haddle").wait_for()
            one.get_by_role("button", name="Take back").click()
            expect(one.get_by_label(cell)).not_to_have_value("35")

    def test_what_is_typed_without_a_connection_is_there_afterwards(self) -> None:
        with self.page("corm") as page:
            self.take_in(page, "TVH-2210-B")
            page.get_by_role("button", name="Post-purge").click()
            cell = page.get_by_label("Post-purge with S1.3 off, S1.4 off")
            page.context.set_offline(True)
            cell.fill("35")
            page.get_by_role("heading", name="TVH-2210-B").click()
            page.get_by_text("No connection: what you typed waits here").wait_for()
            expect(cell).to_have_value("35")
            page.context.set_offline(False)
            page.reload()
            page.get_by_role("button", name="Post-purge").wait_for()
            self.settled(page)
            page.reload()
            page.get_by_role("button", name="Post-purge").click()
            expect(page.get_by_label("Post-purge with S1.3 off, S1.4 off")).to_have_value("35")


class Depots(WorkshopTestCase):
    def test_boards_are_saved_for_another_depot_and_settled_line_by_line(self) -> None:
        with self.page("corm") as page:
            page.get_by_role("link", name="Workshop").click()
            page.get_by_text("Boards to and from another depot").click()
            page.get_by_label("Give these boards").fill("TVH-2210-B, TVH-2214-A")
            with page.expect_download() as saved:
                page.get_by_role("button", name="Save them as one file").click()
            box = json.loads(saved.value.path().read_text())
            box["boards"][0]["part_number"] = "TVH-9999"
            file = {"name": "boards.json", "mimeType": "application/json", "buffer": json.dumps(box).encode()}
            page.get_by_label("A file from another depot").set_input_files(file)
            page.get_by_text("becomes a board of your depot").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="Take 1 in").click()
            page.get_by_text("Taken in: TVH-9999").wait_for()
        self.assertEqual(Board.objects.get(part_number="TVH-9999").depot, Person.objects.get(username="corm").depot)
