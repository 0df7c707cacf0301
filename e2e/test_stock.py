"""Van stock in the browser: a plan from the list to the shelf, and a shelf counted at night without a signal."""

from e2e.support import PHONE, BrowserTestCase
from jobs.models import Job
from stock.models import Held, Plan


class PlanOfTheLead(BrowserTestCase):
    def test_a_plan_is_asked_for_read_and_taken(self) -> None:
        with self.page("corm") as page:
            page.get_by_role("link", name="Vans").click()
            page.get_by_role("heading", name="Van stock").wait_for()
            page.get_by_role("link", name="Machines served").click()
            page.get_by_text("nothing known serves it").first.wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="Lists as files").click()
            page.get_by_label("Machines served").set_input_files(
                {"name": "list.csv", "mimeType": "text/csv", "buffer": b"van,board,machines\nBleu van,TVH-2205,1\n"}
            )
            page.get_by_role("button", name="Bring it in").first.click()
            page.get_by_text("expected a van of the depot").wait_for()
            page.get_by_role("link", name="Plans").click()
            page.get_by_label("Days to filling").fill("0")
            page.get_by_text("days above 0").wait_for()
            page.get_by_label("Days to filling").fill("90")
            page.get_by_role("button", name="Work it out").click()
            page.get_by_role("progressbar").wait_for()
            self.work()
            page.get_by_role("heading", name="at the first visit").wait_for()
            page.get_by_text("Dotted: no plan is above it").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="Let the vans carry this").click()
            page.get_by_text("taken").first.wait_for()
            plan = Plan.objects.get()
            assert plan.found is not None
            planned = next(each for each in plan.found["vans"] if each["name"] == "Grey van")
            page.get_by_role("link", name="Grey van").click()
            for piece in planned["pieces"]:
                page.get_by_text(piece["piece"], exact=True).first.wait_for()
            page.get_by_role("link", name="Van stock").click()
            page.get_by_role("link", name="Who serves whom").click()
            page.get_by_role("img", name="kinds of machine against").wait_for()
            self.check_accessible(page)


class ShelfAtNight(BrowserTestCase):
    def test_a_shelf_is_counted_and_its_list_is_there_without_a_connection(self) -> None:
        with self.page(dark=True, size=PHONE, touch=True, device=True) as page:
            page.get_by_text("Menu").tap()
            page.get_by_role("link", name="Vans").tap()
            page.get_by_role("link", name="Blue van, yours").tap()
            page.get_by_role("button", name="Put one OFN-U3 in").tap()
            page.get_by_label("OFN-U3 in the van").get_by_text("2").wait_for()
            page.get_by_role("button", name="Count the shelf").tap()
            number = page.get_by_label("Number or code")
            for typed in ("OFN-U3", "ofn-u3", "OFN U3"):
                number.fill(typed)
                number.press("Enter")
            page.get_by_label("OFN-U3 counted").get_by_text("3").wait_for()
            number.fill("nothing like it 99")
            number.press("Enter")
            page.get_by_text("No board of the catalogue is marked").or_(
                page.get_by_text("may be one of these")
            ).wait_for()
            page.get_by_role("button", name="None of these").tap()
            self.check_accessible(page)
            page.reload()
            page.get_by_label("OFN-U3 counted").get_by_text("3").wait_for()
            page.get_by_role("button", name="Only these were counted").tap()
            page.get_by_text("2 by the list").wait_for()
            page.get_by_role("button", name="To the list").tap()
            page.get_by_label("OFN-U3 in the van").get_by_text("3").wait_for()
            self.assertEqual(Held.objects.get(van__name="Blue van", piece="OFN-U3").count, 3)
            page.evaluate("navigator.serviceWorker.ready.then(() => true)")
            page.wait_for_function("() => navigator.serviceWorker.controller !== null")
            with self.server_stopped():
                page.reload()
                page.get_by_text("the list as it was said last").wait_for()
                self.assertTrue(page.get_by_role("button", name="Put one OFN-U3 in").is_disabled())

    def test_choose_says_whose_van_has_it(self) -> None:
        job = Job.objects.get(depot__code="SQ", number=7)
        with self.page() as page:
            page.goto(f"{self.live_server_url}/jobs/{job.pk}")
            self.unfold(page, "Choose")
            page.get_by_text("in your van").first.wait_for()
            page.get_by_text("in Harbour van, 25 min away").first.wait_for()
