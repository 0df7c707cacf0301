"""What is typed into any field of any page is there after a reload, however slow the line is: saved, or kept on the device."""

import os
import re
from time import sleep

from playwright.sync_api import ElementHandle, Page, Route

from e2e.support import BrowserTestCase
from jobs.models import Job
from stock.models import Van

LATENCIES_MS = (0, 300, 2500)
"""How long every answer of the server takes."""
PAUSE_S = 0.7
"""Long enough for whatever saves by itself to be sent in the middle of a word."""
PAGES = (
    "/depot", "/catalogue/TVH-2210-B", "/references", "/practice", "/stock", "/stock/plans", "/workshop", "/jobs", "/account",
)  # fmt: skip
LEFT_OUT = {
    r"[Pp]assword|Code from": "secrets are kept nowhere",
    r"^Board, or id|^Number, title|[Ff]ind|[Ss]earch|^Machine or|contains|^Filter": "a question to a list, which is in the address or asked again",
    r"^Time of change|^At, in s|^End of the scenario|^± s": "a question to the twin check, or a run that goes on while it is timed",
    r" typed$": "a bank is set with each switch that is typed: half a bank is none",
    r"^What is printed on it|[Mm]arking|on its plate": "a question to the catalogue; what is found is said by a tap",
    r"candidate|^Its number|^Number of the board in hand|^Board$|^Or another board": "a question to the catalogue; what is found is said by a tap",
}
FIELDS = """() => [...document.querySelectorAll('main input, main textarea, [role=dialog] input, [role=dialog] textarea')]
    .filter(e => ['', 'text', 'number', 'textarea'].includes(e.getAttribute('type') ?? '') && e.checkVisibility() && !e.disabled && !e.readOnly)"""
NAMED = """e => (e.getAttribute('aria-label') ?? e.labels?.[0]?.querySelector('span, strong')?.innerText ?? e.labels?.[0]?.innerText ?? '').split('\\n')[0].trim()"""
FORM = f"""(() => {{
    const name = {NAMED}
    return ({FIELDS})().map(e => [name(e), e.inputMode, e.value])
}})()"""


class EveryForm(BrowserTestCase):
    def fields(self, page: Page) -> list[tuple[str, str, str]]:
        """Name, kind of keyboard and text of each field in sight, with every fold open."""
        page.evaluate("document.querySelectorAll('main details:not([open])').forEach(each => each.open = true)")
        return [tuple(each) for each in page.evaluate(FORM)]

    def field(self, page: Page, index: int) -> ElementHandle:
        found = page.evaluate_handle(f"index => ({FIELDS})()[index]", index).as_element()
        assert found is not None
        return found

    def tried(self, page: Page, address: str, latency_ms: int) -> list[str]:
        """Type into each field of a page, reload it in the middle of the last one; what is not there any more."""

        def slowly(route: Route) -> None:
            sleep(latency_ms / 1000)
            route.continue_()

        page.goto(self.live_server_url + address)
        page.locator("main h1, main h2").first.wait_for()
        self.settled(page)
        if latency_ms:
            page.route("**/api/**", slowly)
        typed: dict[str, str] = {}
        for index, (name, keyboard, was) in enumerate(self.fields(page)):
            if not name or name in typed or any(re.search(pattern, name) for pattern in LEFT_OUT):
                continue
            text = "7" if keyboard in ("decimal", "numeric") else "12 ab"
            field = self.field(page, index)
            if field.evaluate(NAMED) != name:
                # an answer put another field here: it is met on its own
                continue
            field.evaluate("e => e.scrollIntoView({block: 'center'})")
            field.fill("")
            field.type(text[:2])
            sleep(PAUSE_S)
            page.keyboard.type(text[2:])
            typed[name] = field.input_value()
            self.assertNotIn(typed[name], ("", was), name)
        page.unroute("**/api/**")
        page.reload()
        page.locator("main h1, main h2").first.wait_for()
        self.settled(page)
        there: dict[str, str] = {}
        for name, _, text in self.fields(page):
            there.setdefault(name, text)
        return [
            f"{address}: {name!r} says {there.get(name)!r}" for name, text in typed.items() if there.get(name) != text
        ]

    def every(self, user: str, addresses: list[str]) -> None:
        lost: list[str] = []
        for turn, address in enumerate(addresses):
            for latency in LATENCIES_MS if os.environ.get("TWIN_LONG") else (LATENCIES_MS[turn % 3],):
                with self.page(user) as page:
                    lost += self.tried(page, address, latency)
        self.assertEqual(lost, [])

    def test_on_the_pages_of_the_depot(self) -> None:
        vans = [f"/stock/van/{van.pk}" for van in Van.objects.order_by("name")[:1]]
        self.every("corm", [*PAGES, *vans])

    def test_on_the_sheets_of_jobs(self) -> None:
        self.every("wennick", [f"/jobs/{job.pk}" for job in Job.objects.filter(closed_at=None).order_by("number")])
