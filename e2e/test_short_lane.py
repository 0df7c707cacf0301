"""The plainest job, the same board again, is the shortest: its taps are counted, and nothing that protects anybody is skipped."""

import re

from playwright.sync_api import Page

from e2e.support import PHONE, BrowserTestCase
from jobs.models import Job

MACHINE = "Spiral mixer 3, Gullsway Rolls"
MOST_TAPS = 12
COUNT = "() => { window.taps = 0; addEventListener('click', (e) => { if (e.isTrusted) window.taps += 1; }, true); }"


class ShortLane(BrowserTestCase):
    def test_the_same_board_again_takes_twelve_taps(self) -> None:
        with self.page(size=PHONE, touch=True, dark=True) as page:
            page.get_by_text("Open a new job").tap()
            page.get_by_label("Machine", exact=True).fill(MACHINE)
            page.get_by_role("button", name="Open job").tap()
            page.get_by_role("heading", name="What kind of machine is it?").wait_for()
            page.evaluate(COUNT)
            # the number on the board says what kind of machine it is
            page.get_by_label("Marking on the board").fill("QN7-0042")
            page.get_by_role("button", name="This is it: QN7-0042", exact=True).tap()
            page.get_by_role("group", name="Why it died").get_by_role("button", name="Surge on the supply").tap()
            page.get_by_role("button", name="The board is the cause").tap()
            page.get_by_role("button", name="A new one").tap()
            self.lock_off(page)
            page.get_by_label("S1 typed").fill("01100110")
            page.get_by_label("S2 typed").fill("010010")
            self.saved(page)
            page.get_by_role("button", name="The record is complete").tap()
            self.refit(page)
            self.check_accessible(page)
            page.get_by_role("button", name=re.compile("I saw each of these .*, and all are OK")).tap()
            page.get_by_role("button", name="Close the job").tap()
            page.get_by_text("Nothing in this job changes any more").wait_for()
            self.assertLessEqual(page.evaluate("() => window.taps"), MOST_TAPS)
        job = Job.objects.get(machine=MACHINE)
        self.assertEqual(job.state["left"], {"S1": "01100110", "S2": "010010"})
        # every hold point was said with what it asks for, and released in order
        held = job.state["energised"]["held"]
        self.assertEqual(set(held), {"isolate", "dead", "bowl", "static"})
        self.assertEqual(set(held["dead"]["readings"].values()), {0})
        self.assertEqual(job.state["energised"]["released"], ["static", "bowl", "dead", "isolate"])
        self.assertEqual(job.state["verdict"], "identical")
        self.assertTrue(all(each["ok"] for each in job.state["checks"].values()))

    def lock_off(self, page: Page) -> None:
        page.get_by_role("region", name="Every hold point").wait_for()
        self.check_accessible(page)
        ready = page.get_by_role("button", name="All of this holds: begin the work")
        self.assertTrue(ready.is_disabled())
        for label, words in (("Where", "wall switch"), ("Number on the tag", "14"), ("Instrument", "two-pole tester")):
            field = page.get_by_label(re.compile(f": {label}$")).first
            if not field.input_value():
                field.fill(words)
        measured = page.get_by_label(re.compile("^Prove dead: Mains 230 V"))
        self.assertEqual(measured.count(), 3)
        for field in measured.all():
            field.fill("0")
        page.get_by_label("Instrument checked on a live source before").check()
        page.get_by_label("Instrument checked again after").check()
        ready.tap()

    def refit(self, page: Page) -> None:
        refit = page.get_by_role("region", name="Refit")
        refit.wait_for()
        refit.get_by_label("S1 typed").fill("01100110")
        refit.get_by_label("S2 typed").fill("010010")
        self.check_accessible(page)
        refit.get_by_role("button", name="All of this is done").tap()
        page.get_by_role("button", name="Released in this order: the supply is on").tap()
        page.get_by_role("region", name="Looked at").wait_for()
