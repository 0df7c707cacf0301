"""How somebody signs in: a second factor set up on a phone, asked for, and what the lead sees of it."""

from datetime import UTC, datetime
from unittest.mock import patch

from django_otp.plugins.otp_totp.models import TOTPDevice
from playwright.sync_api import Page

from e2e.support import PASSWORDS, PHONE, BrowserTestCase
from people.tests.test_second_factor import code_at


class Account(BrowserTestCase):
    def test_a_second_factor_from_setting_up_to_signing_in_with_a_written_code(self) -> None:
        now = datetime.now(UTC).timestamp()
        # the codes of one half minute, however long the browser takes; each of them counts once
        with (
            patch("django_otp.plugins.otp_totp.models.time.time", lambda: now),
            self.page(size=PHONE, touch=True) as page,
        ):
            page.get_by_text("Menu").tap()
            page.get_by_role("link", name="How you sign in").tap()
            page.get_by_role("heading", name="How you sign in").wait_for()
            # the menu does not stay open over the page that it led to
            page.get_by_role("button", name="Sign out").wait_for(state="hidden")
            page.get_by_role("button", name="Set up a device").tap()
            secret = page.locator("p.font-mono").inner_text().replace(" ", "")
            page.get_by_label("The code it shows").fill(code_at(secret, now))
            page.get_by_role("button", name="Take it into use").tap()
            page.get_by_text("Write these down now").wait_for()
            written = page.get_by_role("status").get_by_role("listitem").all_inner_texts()
            self.assertEqual(len(written), 10)
            self.check_accessible(page)
            page.get_by_text("Menu").tap()
            page.get_by_role("button", name="Sign out").tap()
            self.enter(page)
            page.get_by_label("Code").fill("000000")
            page.get_by_role("button", name="Sign in").tap()
            page.get_by_text("does not count").wait_for()
            self.check_accessible(page)
            TOTPDevice.objects.update(throttling_failure_count=0)
            now += 60
            page.get_by_label("Code").fill(code_at(secret, now))
            page.get_by_role("button", name="Sign in").tap()
            page.get_by_role("heading", name="How you sign in").wait_for()
        with self.page("corm") as page:
            page.goto(f"{self.live_server_url}/depot")
            happened = page.get_by_role("list", name="Sign-ins and files taken away")
            happened.get_by_text("could not sign in").first.wait_for()
            self.check_accessible(page)
            page.get_by_text("Wennick Tarl").click()
            page.get_by_role("button", name="the device is lost").click()
            page.get_by_role("button", name="the device is lost").wait_for(state="hidden")
        self.assertFalse(TOTPDevice.objects.exists())

    def enter(self, page: Page) -> None:
        page.get_by_label("Name").fill("wennick")
        page.get_by_label("Password").fill(PASSWORDS["wennick"])
        page.get_by_role("button", name="Sign in").tap()
        page.get_by_text("A code is needed").wait_for()
