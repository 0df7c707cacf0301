"""The pictures of the README: main views with the demo data. Run by script/screenshots, not with the tests."""

import os
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from pathlib import Path
from uuid import uuid4

import pypdfium2
from django.conf import settings
from playwright.sync_api import Page

from e2e.support import DESK, PHONE, BrowserTestCase
from jobs.actions import add_entry
from jobs.cases import case_of
from jobs.models import Job
from jobs.papers.label import label_pdf
from jobs.queries import job as read_job
from jobs.tests.world import said_of
from parts.models import Offer
from people.models import Person
from standins.printed import leaflet
from twincore.errors import Refusal
from twincore.job import value_at
from twincore.job.shared.holds import points_of
from twinshown.entering.accepting import NewEntry
from twinshown.refusals import Refused


class Pictures(BrowserTestCase):
    def test_take_them(self) -> None:
        folder = Path(os.environ["TWIN_PICTURES"])
        views: list[tuple[str, Callable[[Page], None], bool, bool]] = [
            ("van-plan", self.van_plan, False, False),
            ("recognise", self.recognise, False, False),
            ("choose", self.choose, False, False),
            ("candidate-dark", self.candidate, True, False),
            ("workshop", self.workshop, False, False),
            ("record", self.record, False, False),
            ("carry-over", self.carry, False, False),
            ("carry-over-phone", self.carry, False, True),
            ("prove", self.prove, False, False),
            ("measured-dark", self.measured, True, False),
            ("hand-over", self.hand_over, False, False),
            ("bench-dark", self.bench, True, False),
            # last, for they change the jobs that they show
            ("make-safe", self.hold_points, False, False),
            ("rule-out", self.rule_out, False, False),
            ("practice-phone-dark", self.practice, True, True),
            ("wires", self.wires, False, False),
            ("fit", self.fit_in_hand, False, False),
            ("fit-phone-dark", self.run_sheet, True, True),
        ]
        for name, show, dark, phone in views:
            user = "corm" if name in ("workshop", "van-plan") else "wennick"
            with self.page(user, dark=dark, size=PHONE if phone else DESK) as page:
                show(page)
                self.settled(page)
                whole = name not in (
                    "workshop",
                    "wires",
                    "measured-dark",
                    "fit-phone-dark",
                    "van-plan",
                    "practice-phone-dark",
                )
                if whole:
                    page.emulate_media(media="print")
                page.screenshot(path=folder / f"{name}.png", full_page=whole)
        label = label_pdf(read_job(Person.objects.get(username="wennick"), self.job(1).pk))
        pypdfium2.PdfDocument(label)[0].render(scale=4).to_pil().save(folder / "label.png")

    def rule_out(self, page: Page) -> None:
        page.get_by_role("link", name="Retarder-prover 2").click()
        page.get_by_role("heading", name="Retarder-prover 2").wait_for()
        if "rule_out" in self.job(7).state["confirmed"]:  # the second picture finds it taken back
            page.get_by_role("button", name="Rule out Board condemned").click()
            page.get_by_role("button", name="Take this confirmation back").click()
        page.get_by_role("button", name="The board is the cause").wait_for()
        options = page.get_by_label("Other tests").locator("option").all_inner_texts()
        probe = next(each for each in options if each.startswith("Coil probe"))
        page.get_by_label("Other tests").select_option(label=probe)
        self.saved(page)

    def recognise(self, page: Page) -> None:
        page.get_by_role("link", name="Steam generator 1").click()
        page.get_by_role("button", name="Recognise", exact=True).click()
        page.get_by_role("button", name="Rule out").click()
        page.get_by_text("of 13 boards left").wait_for()
        page.get_by_label("Number on it").fill("SG 09 O 06")
        page.get_by_text("Perhaps D?").wait_for()

    def offers(self) -> None:
        """What a parts desk said this morning."""
        said = datetime.now(UTC) - timedelta(hours=2)
        prices = {
            "UMC 40-118/2": (212, 2),
            "UMC 40-122": (187, 0),
            "OFN-P1": (96, 5),
            "OFN-PK": (140, 1),
            "UMC 40-120": (205, 0),
        }
        for part_number, (price, stock) in prices.items():
            values = {"price": price, "stock": stock, "days": 5, "answered_at": said, "asked_at": said}
            Offer.objects.update_or_create(part_number=part_number, defaults=values)

    def choose(self, page: Page) -> None:
        self.offers()
        page.get_by_role("link", name="Retarder-prover 2").click()
        page.get_by_role("button", name="UMC 40-122 with work").wait_for()

    def candidate(self, page: Page) -> None:
        self.choose(page)
        page.get_by_role("button", name="UMC 40-122 with work").click()
        page.get_by_text("Laid on the original").click()
        page.get_by_role("img", name="Outlines laid on each other").wait_for()

    def workshop(self, page: Page) -> None:
        """A chart entered from the picture of its page, beside the board's drawing."""
        page.set_viewport_size({"width": 1440, "height": 900})
        page.get_by_role("link", name="Workshop").click()
        page.get_by_label("Number, title or maker").fill(leaflet.BOARD)
        page.get_by_role("button", name="Sketch it", exact=True).click()
        sheet = page.get_by_role("dialog")
        sheet.get_by_label("What kind it is").fill("Tray washer")
        sheet.get_by_label("The sketch in lines").fill(
            "S1 bank 8, on up, from left; R1 dial 0..7; C1 plug 8, keyed; C2 plug 4; board green"
        )
        sheet.get_by_role("button", name="Keep the sketch").click()
        page.get_by_role("button", name="Charts").click()
        page.get_by_label("The leaflet’s title").fill("Tray washers, sheet 2")
        picture = settings.ROOT / "demo/pictures/leaflet-2.jpg"
        page.get_by_label("Read it from a picture of the page").set_input_files(picture)
        page.get_by_role("button", name="Begin the chart with 24 rows").click()
        page.get_by_role("button", name="leaflet, taken by").click()
        page.get_by_role("region", name="Rows of").wait_for()

    def hold_points(self, page: Page) -> None:
        page.get_by_role("link", name="Spiral mixer 2, Gullsway").click()
        page.get_by_role("button", name="Isolate and lock off: confirmed").wait_for()
        self.hold(page, "Isolate and lock off")
        page.get_by_role("button", name="Take back: Isolate and lock off").wait_for()
        self.saved(page)

    def wires(self, page: Page) -> None:
        """A prover's board against the universal one: an adapter, new ends, one plug of two."""
        person = Person.objects.get(username="wennick")
        job = self.job(7)
        # two of its plugs come apart on the new board
        plugs = [("plug.C1", "whole"), ("plug.C2", "one by one"), ("plug.C3", "one by one")]
        for target, after in (
            ("confirmed.rule_out", {"note": "Surge mark", "end": "condemned"}), ("replacement", "OFN-P1"),
            ("found.S1", "01001100"), ("found.S2", "000000000"), *plugs, ("confirmed.record", {"note": ""}),
        ):  # fmt: skip
            state = self.job(7).state
            new = NewEntry(uuid4(), target, value_at(state, target), after, "on the van", "by eye")
            try:
                add_entry(person, job.pk, new, datetime.now(UTC))
            except (Refused, Refusal) as refused:
                raise AssertionError(f"{target}: {refused.detail}") from refused
        page.get_by_role("link", name="Retarder-prover 2").click()
        page.get_by_role("button", name="Wires").click()
        page.get_by_role("img", name="Wires:").scroll_into_view_if_needed()

    def record(self, page: Page) -> None:
        page.get_by_role("link", name="Old deck oven").click()
        page.get_by_role("button", name="Record").first.click()
        page.get_by_role("button", name="S1 Options").click()
        page.get_by_role("button", name="Carry over").first.click()
        page.get_by_text("leaves open").first.wait_for()

    def carry(self, page: Page) -> None:
        page.get_by_role("link", name="Old deck oven").click()
        page.get_by_text("If copied").first.wait_for()

    def prove(self, page: Page) -> None:
        page.get_by_role("link", name="Deck oven 4").click()
        page.get_by_text("The two part at 30 s").wait_for()

    def hand_over(self, page: Page) -> None:
        page.get_by_label("Show").select_option("closed")
        page.get_by_role("link", name="Two-stage oven, Gullsway Rolls").click()
        page.get_by_text("As found").wait_for()

    def bench(self, page: Page) -> None:
        page.goto(f"{self.live_server_url}/bench?original=UMC 40-118&replacement=UMC 44-011")
        page.get_by_role("region", name="Time tracks").wait_for()

    def van_plan(self, page: Page) -> None:
        page.goto(f"{self.live_server_url}/stock/plans")
        page.get_by_label("Days to filling").fill("90")
        page.get_by_role("button", name="Work it out").click()
        page.get_by_role("progressbar").wait_for()
        self.work()
        page.get_by_role("heading", name="at the first visit").wait_for()

    def practice(self, page: Page) -> None:
        page.goto(f"{self.live_server_url}/practice/set?seed=3&original=TVH-2420-A&replacement=TVH-2424-A")
        page.get_by_role("button", name="It is done").click()
        page.get_by_text("here they part first").wait_for()
        page.get_by_role("heading", name="tells them apart").scroll_into_view_if_needed()

    def measured(self, page: Page) -> None:
        page.get_by_label("Show").select_option("closed")
        page.get_by_role("link", name="Deck oven 2").click()
        page.get_by_role("button", name="Prove").click()
        page.get_by_role("article", name="Run: No flame").wait_for()
        page.get_by_role("button", name="Measured").scroll_into_view_if_needed()
        page.evaluate("window.scrollBy(0, 420)")

    def fit_in_hand(self, page: Page) -> None:
        """The one-stage oven as it is carried over, the new board in the hand."""
        person = Person.objects.get(username="wennick")
        job = self.job(3)
        kept = self.job(3).state
        if "carry_over" not in kept["confirmed"]:
            self.hold_all(job)
            for target, after in (
                ("found.S1", "010110"), ("plug.C1", "whole"), ("plug.C2", "whole"),
                ("wire.c3-1", {"connector": "C3", "pin": "1", "tag": "HT"}), ("confirmed.record", {"note": ""}),
                ("confirmed.carry_over", {"note": ""}), ("in_hand", {"number": kept["replacement"]}), ("readback.SW1", {"value": "0111"}),
            ):  # fmt: skip
                new = NewEntry(uuid4(), target, value_at(self.job(3).state, target), after, "", "by eye")
                add_entry(person, job.pk, new, datetime.now(UTC))
        page.get_by_role("link", name="Fennick and Daughters").click()
        page.get_by_text("reads as planned").wait_for()

    def hold_all(self, job: Job) -> None:
        """Every hold point once more, the wait skipped with a reason."""
        person = Person.objects.get(username="wennick")
        for point in points_of(case_of(self.job(3))):
            if point.id not in self.job(3).state["holds"]:
                said = {"skipped": True} if point.wait_s else said_of(point.asks, [pair.id for pair in point.pairs])
                new = NewEntry(uuid4(), f"hold.{point.id}", None, said, "the cover stays on for ten minutes")
                add_entry(person, job.pk, new, datetime.now(UTC))
        if "make_safe" in self.job(3).state["confirmed"]:
            return
        add_entry(person, job.pk, NewEntry(uuid4(), "confirmed.make_safe", None, {"note": ""}), datetime.now(UTC))

    def run_sheet(self, page: Page) -> None:
        self.fit_in_hand(page)
        page.get_by_role("button", name="Set in the hand").click()
        page.get_by_role("button", name="Wires, one at a time").click()
        page.get_by_role("region", name="Next wire").scroll_into_view_if_needed()
        page.get_by_role("img", name="To the new board").wait_for()
