"""Every main view by the keys alone, with type of twice the size, with more contrast, and heard instead of seen."""

import re
from datetime import UTC, datetime

from playwright.sync_api import Page

from e2e.support import DESK, PHONE, BrowserTestCase
from people.models import Person
from workshop.drafting import open_draft

VIEWS = (
    "jobs", "machines", "catalogue", "catalogue?instead=TVH-2210-B", "catalogue/TVH-2210-B", "catalogue/load", "references",
    "references/contradictions", "references/imports", "depot", "bench", "workshop",
    "bench?original=TVH-2210-B&replacement=OFN-U3",
)  # fmt: skip
PARTS = ("meanings", "charts", "plugs", "behaviour", "changes")
JOBS = range(1, 10)
MOST_STOPS = 60
"""How many stops of the Tab key are looked at on a view; lists and forms repeat themselves after that."""

STOP = """() => {
  const now = document.activeElement;
  if (!now || now === document.body) return null;
  const box = now.getBoundingClientRect(), style = getComputedStyle(now);
  const label = (now.getAttribute("aria-label") || now.innerText || now.tagName).slice(0, 40);
  const at = (x, y) => document.elementFromPoint(Math.min(Math.max(x, 1), innerWidth - 1), Math.min(Math.max(y, 1), innerHeight - 1));
  const here = element => element && (now.contains(element) || element.contains(now) || element.closest("label")?.contains(now));
  const seen = [0.5, 0.1, 0.9].some(share => here(at(box.left + box.width / 2, box.top + box.height * share)));
  const hidden = box.width <= 1 || box.height <= 1;
  const ring = style.outlineStyle !== "none" || now.parentElement.matches(":focus-within");
  const over = at(box.left + box.width / 2, box.top + box.height / 2);
  return { label, seen: seen || hidden, ring, top: box.top, over: over && over.outerHTML.slice(0, 120) };
}"""
WHERE = "document.activeElement.getAttribute('aria-label') ?? document.activeElement.innerText"
PLACES = ("Next", "Make safe", "Record")
WIDER = "() => document.documentElement.scrollWidth - document.documentElement.clientWidth"


class Hands(BrowserTestCase):
    def addresses(self) -> list[str]:
        draft = open_draft(Person.objects.get(username="corm"), "TVH-2210-B", datetime.now(UTC)).pk
        drafts = [f"workshop/{draft}?part={part}" for part in PARTS]
        return [*VIEWS, *drafts, *(f"jobs/{self.job(number).pk}" for number in JOBS)]

    def opened(self, page: Page, address: str) -> None:
        page.goto(f"{self.live_server_url}/{address}")
        page.wait_for_load_state("networkidle")

    def test_every_stop_of_the_tab_key_is_seen_and_in_sight(self) -> None:
        for dark, size in ((False, DESK), (True, PHONE)):
            with self.page("corm", dark=dark, size=size) as page:
                for address in self.addresses():
                    self.opened(page, address)
                    stops = 0
                    for _ in range(MOST_STOPS):
                        page.keyboard.press("Tab")
                        stop = page.evaluate(STOP)
                        if stop is None:
                            break
                        stops += 1
                        with self.subTest(address, stop=stop["label"], dark=dark):
                            self.assertTrue(stop["seen"], f"something lies over it: {stop}")
                            self.assertTrue(stop["ring"], "it does not show that it has the focus")
                    self.assertGreater(stops, 4, address)

    def test_type_of_twice_the_size_and_more_contrast_leave_every_view_whole(self) -> None:
        with self.page("corm", size=PHONE) as page:
            for address in self.addresses():
                self.opened(page, address)
                with self.subTest(address):
                    page.add_style_tag(content="html { font-size: 212.5% !important }")
                    self.assertLessEqual(page.evaluate(WIDER), 0, "it scrolls sideways")
        with self.page("corm") as page:
            for address in ("jobs", "catalogue", f"jobs/{self.job(5).pk}"):
                for scheme in ("light", "dark"):
                    page.emulate_media(contrast="more", color_scheme="light" if scheme == "light" else "dark")
                    self.opened(page, address)
                    with self.subTest(address, contrast=scheme):
                        self.check_accessible(page)

    def test_a_hold_point_that_is_confirmed_by_keys_leaves_the_hand_at_the_next_thing(self) -> None:
        with self.page() as page:
            self.opened(page, f"jobs/{self.job(3).pk}")
            page.get_by_role("button", name=re.compile("^Make safe")).click()
            back = page.get_by_role("button", name="Take back: ").last
            title = (back.get_attribute("aria-label") or "").removeprefix("Take back: ")
            back.focus()
            page.keyboard.press("Enter")
            point = page.get_by_role("listitem", name=title)
            confirm = point.get_by_role("button", name=f"{title}: confirmed")
            confirm.wait_for()
            self.assertIn(page.evaluate(WHERE), PLACES)
            for field in point.get_by_role("textbox").all():
                field.fill("0")
            for box in point.get_by_role("checkbox").all():
                box.check()
            confirm.focus()
            page.keyboard.press("Enter")
            page.get_by_role("button", name=f"Take back: {title}").wait_for()
            self.assertIn(page.evaluate(WHERE), PLACES)
            # what is heard: that it is saved, and what comes next
            self.assertEqual(page.get_by_role("status").filter(has_text="saved").count(), 1)
            self.assertEqual(page.get_by_role("region", name="Next").locator("[aria-live=polite]").count(), 1)
