"""A real browser against a real server with the demo world in it."""

import re
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from threading import Thread
from time import sleep
from typing import Any, ClassVar

from django.conf import settings
from django.core.management import CommandError, call_command
from django.db import connections
from django.test import LiveServerTestCase
from playwright.sync_api import Browser, Page, Playwright, sync_playwright

from e2e.tries import TriedTwice
from jobs.cases import case_of
from jobs.demo import PEOPLE
from jobs.models import Job
from jobs.queries import job as read_job
from jobs.tests.prepared import prepare_demo_world
from people.models import Person
from twincore.job.case import Case
from twincore.job.shared.fitting import by_hand, fitting_of_job
from twincore.job.shared.left import planned_positions
from twincore.job.shared.telling import to_reenter

FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
]  # fmt: skip
PASSWORDS = {username: password for username, password, *_ in PEOPLE}
AXE = settings.ROOT / "web/node_modules/axe-core/axe.min.js"
RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
PHONE = {"width": 390, "height": 844}
DESK = {"width": 1280, "height": 800}

NEXT_SHEET = "title => document.querySelector('[role=dialog] h2')?.textContent !== title"


class BrowserTestCase(TriedTwice, LiveServerTestCase):
    """One browser a class, the demo world anew for every test."""

    playwright: ClassVar[Playwright]
    browser: ClassVar[Browser]
    # files are handed out as the server hands them out, with all that they bear
    static_handler = staticmethod(lambda handler: handler)

    def _fixture_teardown(self) -> None:
        """Empty the database; again where a request that the browser left behind was still at work in it (a deadlock)."""
        for _ in range(4):
            try:
                return super()._fixture_teardown()  # type: ignore[misc]  # Django's own, which its types leave out
            except CommandError:
                sleep(1)
        return super()._fixture_teardown()  # type: ignore[misc]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.playwright = sync_playwright().start()
        cls.addClassCleanup(cls.playwright.stop)
        cls.browser = cls.playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        cls.addClassCleanup(cls.browser.close)

    def setUp(self) -> None:
        prepare_demo_world(datetime.now(UTC))

    def work(self) -> None:
        """Let a worker do every background task that waits, in a thread of its own."""
        wrong: list[BaseException] = []

        def run() -> None:
            try:
                call_command("procrastinate", "worker", wait=False, listen_notify=False)
            except BaseException as error:
                wrong.append(error)
            finally:
                connections.close_all()

        thread = Thread(target=run)
        thread.start()
        thread.join()
        self.assertEqual(wrong, [])

    @contextmanager
    def page(
        self, user: str = "wennick", dark: bool = False, size: Any = None, touch: bool = False, device: bool = False
    ) -> Iterator[Page]:
        """A signed-in page; errors on its console fail the test. `device`: the application is kept on the device."""
        context = self.browser.new_context(
            viewport=size or DESK,
            color_scheme="dark" if dark else "light",
            has_touch=touch,
            reduced_motion="reduce",
            service_workers="allow" if device else "block",
        )
        page = context.new_page()
        page.set_default_timeout(25_000)  # how long a page may hang, not how fast it must be
        wrong: list[str] = []
        page.on("pageerror", lambda error: wrong.append(str(error)))
        page.goto(self.live_server_url)
        self.sign_in_by_hand(page, user)
        page.get_by_role("heading", name="Jobs").wait_for()
        yield page
        context.close()
        self.assertEqual(wrong, [])

    def sign_in_by_hand(self, page: Page, user: str = "wennick") -> None:
        page.get_by_label("Name").fill(user)
        page.get_by_label("Password").fill(PASSWORDS[user])
        page.get_by_role("button", name="Sign in").click()

    @contextmanager
    def server_stopped(self) -> Iterator[None]:
        """The depot's server is not there: no connection is taken, and those that are open end at a proxy without a server."""
        server = self.server_thread.httpd
        app, takes = server.get_app(), server.verify_request

        def nobody(environ: Any, start_response: Any) -> list[bytes]:
            start_response("502 Bad Gateway", [("Content-Length", "0")])
            return []

        server.verify_request = lambda request, address: False
        server.set_app(nobody)
        try:
            yield
        finally:
            server.set_app(app)
            server.verify_request = takes

    def check_accessible(self, page: Page) -> None:
        """No finding of axe against WCAG 2.2 AA, and nothing that scrolls sideways but framed tracks and tables."""
        page.evaluate(AXE.read_text())
        # what stays in sight covers something else at every place of the page; nothing is judged for that
        page.emulate_media(media="print")
        found = page.evaluate(
            "rules => axe.run(document, { runOnly: rules }).then(r => r.violations.map(v => v.id + ': ' + v.nodes.map(n => n.target).join(' ')))",
            RULES,
        )
        page.emulate_media(media="screen")
        self.assertEqual(found, [], page.url)
        overflow = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
        self.assertLessEqual(overflow, 0, page.url)

    def saved(self, page: Page) -> None:
        """Wait until the server has everything."""
        page.get_by_text("Everything is saved").wait_for()

    def settled(self, page: Page) -> None:
        """Wait until nothing says that it loads and the page has kept its height for a second and a half."""
        page.wait_for_function(
            """() => {
                const height = document.documentElement.scrollHeight
                const loads = [...document.querySelectorAll("[role=status]")].some(e => e.innerText.endsWith("…"))
                if (loads || window.lastHeight !== height) {
                    window.lastHeight = height
                    window.keptSince = Date.now()
                }
                return Date.now() - window.keptSince > 1500
            }"""
        )

    def unfold(self, page: Page, part: str | re.Pattern[str], exact: bool = False) -> None:
        """Open a step or a part of it, whether or not the sheet opens it by itself meanwhile."""
        button = page.get_by_role("button", name=part, exact=exact).first
        button.wait_for()
        self.settled(page)
        if button.get_attribute("aria-expanded") == "false":
            button.click()

    def make_safe(self, page: Page) -> None:
        """Every hold point, one after another as it comes; a wait longer than a test's patience is skipped with a reason."""
        step = page.get_by_role("button", name="Make safe", exact=True)
        if step.count() and step.get_attribute("aria-expanded") == "false":
            step.click()
        page.get_by_text("Hold points. Work on the dead machine").wait_for()
        page.locator("li.hatched").or_(page.get_by_role("region", name="Every hold point")).first.wait_for()
        # where the same number goes in again, all of them stand on one screen
        if page.get_by_role("region", name="Every hold point").count():
            page.get_by_role("button", name="One by one, or skip one").click()
            page.locator("li.hatched").first.wait_for()
        points = page.locator("li.hatched")
        while points.count():
            title = points.first.get_attribute("aria-label") or ""
            self.hold(page, title)
            page.get_by_role("button", name=f"Take back: {title}").wait_for()
            self.saved(page)
        page.get_by_role("button", name="Machine is dead - start work").click()
        page.get_by_role("button", name="Make safe", exact=False).first.wait_for()
        self.saved(page)

    def hold(self, page: Page, title: str) -> None:
        """One hold point: what it asks for, and its confirmation."""
        point = page.get_by_role("listitem", name=title)
        if point.get_by_role("timer").count():
            point.get_by_role("button", name="Skip this one").click()
            point.get_by_label("Why").fill("the cover stays on until the morning")
            point.get_by_role("button", name="Skip with this reason").click()
            return
        for label, text in (
            ("Where", "main switch"),
            ("Number on the tag", "14"),
            ("Instrument", "tester 7"),
            ("Reading", "0"),
        ):
            field = point.get_by_role("textbox", name=label)
            if field.count():
                field.fill(text)
        for field in point.get_by_role("group").get_by_role("textbox").all():
            field.fill("0")
        for box in point.get_by_role("checkbox").all():
            box.check()
        point.get_by_role("button", name=f"{title}: confirmed").click()

    def record_plugs(self, page: Page) -> None:
        """Keyed plugs whole; a wire on each pin of the others."""
        page.get_by_role("button", name="Keyed plugs move whole").click()
        page.get_by_role("button", name="Keyed plugs move whole").wait_for(state="hidden")
        bare = page.get_by_role("button", name="no wire yet")
        if bare.count():
            bare.first.click()
        sheet = page.get_by_role("dialog")
        while sheet.count():
            title = sheet.get_by_role("heading").first.inner_text()
            sheet.get_by_label("Tag").fill("x")
            sheet.get_by_role("button", name="Keep, next pin").click()
            # the next pin's sheet, or none any more
            page.wait_for_function(NEXT_SHEET, arg=title)
        self.saved(page)

    def fit(self, page: Page) -> None:
        """Everything that fitting asks for, as planned, from the kit to the supply and what comes after it."""
        self.fit_dead(page)
        self.power_on(page)
        self.fit_powered(page)

    def case_shown(self, page: Page) -> Case:
        """The job, by the sheet that the page shows."""
        return case_of(read_job(Person.objects.get(username="wennick"), page.url.rsplit("/", 1)[-1]))

    def fit_dead(self, page: Page) -> None:
        """What fitting asks for on the dead machine."""
        page.get_by_role("button", name="What must be there").wait_for()
        case = self.case_shown(page)
        fitting = fitting_of_job(case)
        planned, hand = planned_positions(case), by_hand(fitting)
        if any(line.needed == "needed" for line in fitting.kit):
            page.get_by_role("button", name="All of it is there").click()
        if case.state["in_hand"] is None:
            self.read_in_hand(page)
        for name in hand:
            self.read_back(page, name, planned[name])
        # what was read back last may still be on its way, and move the page as it comes
        self.saved(page)
        page.get_by_role("button", name="Checked - OK: The new board sits").click()
        self.saved(page)
        steps = fitting.wiring.plan.steps if fitting.wiring else ()
        if steps:
            self.unfold(page, "Wires, one at a time")
        done = page.get_by_role("region", name="Next wire")
        for number, _ in enumerate(steps, 1):
            done.get_by_text(f"{number} of ").wait_for()
            look = done.get_by_role("button", name="I looked: no plug fits")
            if look.count():
                look.click()
            done.get_by_role("button", name="Done").click()
        looks = page.get_by_role("button", name="Checked - OK:")
        looks.first.wait_for()
        while looks.count():
            words = looks.first.get_attribute("aria-label") or ""
            looks.first.click()
            page.get_by_role("button", name=words, exact=True).wait_for(state="hidden")
            # an answer that is still on its way may bring the next one
            self.saved(page)

    def read_in_hand(self, page: Page) -> None:
        """The number on the board that goes in, as it was chosen; then the next part is open."""
        page.get_by_role("button", name="The board in my hand says").click()
        page.get_by_role("button", name="The board in my hand says").wait_for(state="hidden")
        page.get_by_role("button", name="Read it back, blind").or_(
            page.get_by_role("button", name="Checked - OK: The new board sits")
        ).first.wait_for()  # fmt: skip

    def fit_powered(self, page: Page) -> None:
        """What fitting asks for with the supply on."""
        case = self.case_shown(page)
        planned, hand = planned_positions(case), by_hand(fitting_of_job(case))
        for name in planned:
            if name not in hand:
                self.read_back(page, name, planned[name])
        for each in to_reenter(case):
            field = page.get_by_label(f"The new board shows now: {each['what']}")
            field.fill("as before")
            field.press("Enter")
        self.saved(page)
        page.get_by_text("Not done yet").wait_for(state="hidden")
        page.get_by_role("button", name="Fitted and set as planned").click()

    def power_on(self, page: Page) -> None:
        """Hold points released from the last to the first, and the supply."""
        panel = page.get_by_role("region", name="Back to power")
        panel.get_by_role("checkbox").first.wait_for()
        for box in panel.get_by_role("checkbox").all():
            box.check()
        panel.get_by_role("button", name="The supply is on").click()
        page.get_by_text("The supply is on since").wait_for()

    def read_back(self, page: Page, name: str, value: Any) -> None:
        """One position read back from the new board as it is planned."""
        button = page.get_by_role("button", name=f"Read it back, blind: {name}", exact=True)
        if not button.count():
            page.get_by_role("button", name="Read back with power on").click()
        button.click()
        sheet = page.get_by_role("dialog")
        typed = sheet.get_by_label(f"{name} typed").or_(sheet.get_by_role("textbox"))
        choice = sheet.get_by_role("radio", name=str(value), exact=True)
        typed.or_(choice).first.wait_for()
        if typed.count():
            # a bank is typed as the eye meets it
            typed.fill(str(value)[::-1] if sheet.get_by_text("as seen, left first").count() else str(value))
            typed.blur()
        else:
            choice.click()
        sheet.get_by_role("button", name="Compare with the plan").click()
        sheet.wait_for(state="hidden")

    def job(self, number: int) -> Job:
        """A seeded job as the database has it."""
        return Job.objects.get(depot__code="SQ", number=number)
