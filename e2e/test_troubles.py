from e2e.support import PHONE, BrowserTestCase


class LostConnection(BrowserTestCase):
    def test_entries_wait_on_the_device_and_are_sent_when_the_connection_is_back(self) -> None:
        with self.page(size=PHONE, touch=True) as page:
            page.get_by_role("link", name="Old deck oven").click()
            page.get_by_role("button", name="Record", exact=False).first.click()
            page.get_by_role("button", name="R1 Post-purge").click()
            page.context.set_offline(True)
            page.get_by_role("radio", name="3", exact=True).click()
            page.get_by_text("No connection: 1 entry waits on this device").wait_for()
            page.get_by_role("button", name="J1 Pre-purge").click()
            page.get_by_role("radio", name="1-2", exact=True).click()
            page.get_by_text("No connection: 2 entries wait on this device").wait_for()
            self.assertEqual(self.job(4).state["found"]["R1"], "2")
            page.context.set_offline(False)
            self.saved(page)
            page.reload()
            page.get_by_role("button", name="R1 Post-purge 3").wait_for()
        found = self.job(4).state["found"]
        self.assertEqual((found["R1"], found["J1"]), ("3", "1-2"))

    def test_what_waits_survives_leaving_the_page(self) -> None:
        with self.page() as page:
            page.get_by_role("link", name="Fennick and Daughters").click()
            page.get_by_label("S1 typed").wait_for()
            page.route("**/api/jobs/*/entries", lambda route: route.abort())
            page.get_by_label("S1 typed").fill("010110")
            page.get_by_text("No connection: 1 entry waits").wait_for()
            page.reload()
            page.get_by_text("No connection: 1 entry waits").wait_for()
            self.assertEqual(self.job(3).state["found"], {})
            page.unroute("**/api/jobs/*/entries")
            page.get_by_role("button", name="Send now").click()
            self.saved(page)
        self.assertEqual(self.job(3).state["found"], {"S1": "010110"})

    def test_a_note_survives_an_interruption_before_it_is_confirmed(self) -> None:
        with self.page() as page:
            page.get_by_role("link", name="Cobble Stair").click()
            page.get_by_role("button", name="Gas deck oven").wait_for()  # the list pushes down what stands below
            page.get_by_text("It was tested already").click()
            page.get_by_label("What was measured").fill("231 V, fuse fine")
            page.reload()
            page.get_by_role("button", name="The board is the cause").wait_for()
            self.assertEqual(page.get_by_label("What was measured").input_value(), "231 V, fuse fine")
            page.get_by_role("button", name="The board is the cause").click()
            page.get_by_role("button", name="Rule out Board condemned: 231 V, fuse fine").wait_for()
            page.get_by_role("button", name="Rule out Board condemned").click()
            page.get_by_role("button", name="Take this confirmation back").click()
            page.get_by_role("button", name="The board is the cause").wait_for()
            self.assertEqual(page.get_by_label("What was measured").input_value(), "231 V, fuse fine")


class TwoPeople(BrowserTestCase):
    def test_the_second_is_told_what_changed_and_nothing_is_overwritten(self) -> None:
        with self.page("wennick") as one, self.page("corm") as other:
            for page in (one, other):
                page.get_by_role("link", name="Fennick and Daughters").click()
                page.get_by_label("S1 typed").wait_for()
            one.get_by_label("S1 typed").fill("010110")
            self.saved(one)
            other.get_by_label("S1 typed").fill("111111")
            other.get_by_role("alert").get_by_text("Meanwhile Wennick Tarl set it to 010110").wait_for()
            self.check_accessible(other)
            other.get_by_role("button", name="I have seen this").click()
            self.assertEqual(other.get_by_label("S1 typed").input_value(), "010110")
        self.assertEqual(self.job(3).state["found"], {"S1": "010110"})


class Refusals(BrowserTestCase):
    def test_wrong_password_unknown_job_and_unknown_page(self) -> None:
        context = self.browser.new_context()
        page = context.new_page()
        page.goto(self.live_server_url)
        self.check_accessible(page)
        page.get_by_label("Name").fill("wennick")
        page.get_by_label("Password").fill("not-this-one")
        page.get_by_role("button", name="Sign in").click()
        page.get_by_text("The name or the password is wrong").wait_for()
        context.close()
        with self.page() as page:
            page.goto(f"{self.live_server_url}/jobs/00000000-0000-0000-0000-000000000000")
            page.get_by_text("Your depot has no such job").wait_for()
            page.goto(f"{self.live_server_url}/nowhere")
            page.get_by_text("There is no page at this address").wait_for()
            self.check_accessible(page)

    def test_signing_out_shows_the_first_screen(self) -> None:
        with self.page() as page:
            page.get_by_text("Wennick Tarl").click()
            page.get_by_role("button", name="Sign out").click()
            page.get_by_role("button", name="Sign in").wait_for()
