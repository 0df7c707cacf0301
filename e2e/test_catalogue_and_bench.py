import json
import re

from django.conf import settings

from catalogue.models import Board
from e2e.support import PHONE, BrowserTestCase

BOARD = settings.ROOT / "demo/boards/OFN-U3.board.json"


class Catalogue(BrowserTestCase):
    def test_search_and_a_boards_page(self) -> None:
        for dark, size in ((False, None), (True, PHONE)):
            with self.page(dark=dark, size=size) as page:
                page.get_by_role("link", name="Catalogue").click()
                page.get_by_label("Part number, marking").fill("0-2420")
                page.get_by_role("link", name="TVH-2420-A").wait_for()
                self.check_accessible(page)
                page.get_by_role("link", name="TVH-2420-A").click()
                page.get_by_role("heading", name="Settings and what they mean").wait_for()
                page.get_by_text("as P02 says").wait_for()
                page.get_by_label("State", exact=True).first.select_option(label="Lighting")
                page.get_by_text("after Trial for ignition").first.wait_for()
                self.check_accessible(page)

    def test_a_parts_lead_checks_mends_and_loads_a_board(self) -> None:
        document = json.loads(BOARD.read_text())
        document["title"] = "Universal board, second print"
        document["behaviour"]["states"]["run"]["go"][0]["to"] = "nowhere"
        with self.page("corm") as page:
            page.get_by_role("link", name="Catalogue").click()
            page.get_by_role("link", name="Load a file").click()
            page.get_by_role("button", name="Load it").click()
            page.get_by_text("There is no file yet").wait_for()
            page.get_by_label("Its text").fill(json.dumps(document, indent=1))
            page.get_by_role("button", name="Only check it").click()
            page.get_by_text("behaviour.states.run.go[0].to").wait_for()
            page.get_by_label("Lines to look at").get_by_text("line").first.wait_for()
            self.check_accessible(page)
            document["behaviour"]["states"]["run"]["go"][0]["to"] = "post"
            page.get_by_label("Its text").fill(json.dumps(document, indent=1))
            page.get_by_role("button", name="Load it").click()
            page.get_by_role("link", name="See OFN-U3").click()
            page.get_by_text("Universal board, second print").wait_for()
            page.get_by_role("button", name="Revision 1,").click()
            page.get_by_text("Universal burner board, one stage").wait_for()
        self.assertEqual(Board.objects.get(part_number="OFN-U3").revisions.count(), 2)

    def test_a_technician_is_told_who_may(self) -> None:
        with self.page() as page:
            page.goto(f"{self.live_server_url}/catalogue/load")
            page.get_by_label("Its text").fill(BOARD.read_text())
            page.get_by_role("button", name="Load it").click()
            page.get_by_text("Only a parts lead may change the catalogue").wait_for()


class Bench(BrowserTestCase):
    def test_two_boards_side_by_side(self) -> None:
        for dark, size in ((False, None), (True, PHONE)):
            with self.page(dark=dark, size=size) as page:
                page.get_by_role("link", name="Bench").click()
                page.get_by_text("Choose two boards of one family").wait_for()
                page.get_by_label("Find the original").fill("2205")
                page.get_by_role("button", name="TVH-2205").click()
                page.get_by_label("Find the replacement").fill("universal")
                page.get_by_role("button", name="OFN-U3").click()
                page.get_by_text("off register").first.wait_for()
                page.get_by_text("How the original stands").click()
                page.get_by_label("S1 typed").fill("1?1")
                page.get_by_text("Open: positions that could not be read").first.wait_for()
                page.get_by_label("S1 typed").fill("111")
                page.get_by_role("region", name="Time tracks").wait_for()
                self.check_accessible(page)

    def test_an_input_that_is_moved_is_answered_in_the_browser_once_the_core_is_there(self) -> None:
        asked: list[str] = []
        with self.page() as page:
            page.on("request", lambda request: asked.append(request.url))
            page.goto(f"{self.live_server_url}/bench?original=TVH-2205&replacement=OFN-U3")
            page.get_by_role("region", name="Time tracks").wait_for()
            page.locator("summary", has_text="Change the scenario").click()
            until = page.get_by_label("End of the scenario")
            for end in range(100, 200):
                asked.clear()
                until.fill(str(end))
                until.press("Enter")
                page.wait_for_timeout(600)
                if not any(each.endswith("/bench/play") for each in asked):
                    break
            self.assertFalse(any(each.endswith("/bench/play") for each in asked))
            page.get_by_text(re.compile("^(The two part at|Both boards show the same)")).first.wait_for()
            self.assertEqual(page.get_by_role("alert").count(), 0)
