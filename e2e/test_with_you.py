"""In the cellar: a job that was taken along goes on without a connection, on the same core."""

from playwright.sync_api import Page

from e2e.support import PHONE, BrowserTestCase


class InTheCellar(BrowserTestCase):
    def take_along(self, page: Page, name: str) -> None:
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        page.wait_for_function("navigator.serviceWorker.controller !== null")
        page.get_by_role("link", name=name).click()
        page.locator("summary", has=page.get_by_role("heading", level=1)).click()
        page.get_by_role("button", name="Take along").click()
        page.get_by_text("With you, as of").wait_for()

    def test_a_job_opens_afresh_and_its_settings_are_carried_over_without_a_server(self) -> None:
        with self.page(size=PHONE, touch=True, device=True) as page:
            self.take_along(page, "Fennick and Daughters")
            address = page.url
            page.context.set_offline(True)
            page.close()
            page = page.context.new_page()
            page.goto(address)
            page.get_by_label("S1 typed").fill("010110")
            page.get_by_text("No connection: 1 entry waits on this device").wait_for()
            page.get_by_text("No connection: it is worked out on this device").wait_for(state="attached")
            page.context.set_offline(False)
            self.saved(page)
        self.assertEqual(self.job(3).state["found"], {"S1": "010110"})
