"""Measurements of the application on a device: the first load on a slow line, and a job without any."""

import time
from collections.abc import Callable

from django.conf import settings
from measure_page import SLOWER, served, sign_in
from playwright.sync_api import Page

PHONE = {"width": 390, "height": 844}
LINE = {"offline": False, "latency": 100, "downloadThroughput": 200_000, "uploadThroughput": 94_000}
"""1.6 Mbit/s down, 750 kbit/s up, a tenth of a second there and back."""
JOB = "Fennick and Daughters"
ENTRIES = 500
PACKED = (".gz", ".br")
BETWEEN_S = 1
"""From one entry to the next, as somebody sets them who looks at each."""
TIMES = 5
"""How often the slow line is tried; the median is told."""
SCRIPT = "performance.getEntriesByType('resource').filter((e) => e.name.endsWith('.js')).reduce((all, e) => all + e.encodedBodySize, 0)"
USABLE = """
new MutationObserver(() => {
    if (document.querySelector('[aria-label="Next"]')) window.usable ??= performance.now();
}).observe(document, { subtree: true, childList: true });
"""
"""Notes when a sheet's next thing is there."""
WAITING = """
async ([job, count, shown]) => {
    const opened = indexedDB.open("worthy-twin");
    const database = await new Promise((resolve) => (opened.onsuccess = () => resolve(opened.result)));
    const write = database.transaction("entries", "readwrite");
    let before = shown, upon = null;
    for (let each = 0; each < count; each++) {
        const [id, after] = [crypto.randomUUID(), each % 2 ? shown : "111111"];
        const entry = { id, target: "found.S1", before, after, upon, reason: "", read_how: "by eye", maker: "wennick" };
        write.objectStore("entries").add({ job, maker: "wennick", entry });
        [before, upon] = [after, id];
    }
    await new Promise((resolve) => (write.oncomplete = resolve));
    database.close();
}
"""


def measure(row: Callable[..., None]) -> None:
    """What a phone waits for, with a slow line and with none."""
    row("the core for the browser, as it is sent, once", f"{_sent() / 1e6:.1f} MB")
    with served() as (address, browser):
        waits, script = [], 0
        for _ in range(TIMES):
            page = browser.new_context(viewport=PHONE, service_workers="block").new_page()
            page.add_init_script(USABLE)
            waits.append(_slow_line(page, address))
            script = page.evaluate(SCRIPT)
            page.context.close()
        first, again = (sorted(each)[TIMES // 2] for each in zip(*waits, strict=True))
        row("script of the first load, as it is sent", f"{script / 1000:.0f} kB", "at most 250 kB")
        row("usable job sheet, 1.6 Mbit/s, processor 4 × slower, first time", f"{first:.1f} s", "at most 2.5 s")
        row("usable job sheet, the same, again", f"{again:.1f} s", "at most 1 s")
        page = browser.new_context(viewport=PHONE).new_page()
        page.add_init_script(USABLE)
        sign_in(page, address)
        _take_along(page)
        page.context.set_offline(True)
        opened = _seconds(page, lambda: page.goto(page.url))
        row("a job that is along, opened from nothing without a connection", f"{opened:.1f} s", "at most 2 s")
        loaded = _entry(page, "010110")
        row("its sheet after the first entry, the core being loaded", f"{loaded:.1f} s")
        answered = sorted(_entry(page, value) for value in ("111111", "010110", "110110", "010111", "010110"))
        row("its sheet after an entry, the core loaded, median", f"{answered[2] * 1000:.0f} ms", "at most 150 ms")
        job = page.url.rsplit("/", 1)[-1]
        page.context.set_offline(False)
        page.get_by_text("Everything is saved").wait_for()
        page.evaluate(WAITING, [job, ENTRIES, "010110"])
        begun = time.monotonic()
        page.reload()
        page.get_by_text("Everything is saved").wait_for()
        row(f"{ENTRIES} entries that waited join the record", f"{time.monotonic() - begun:.1f} s", "at most 10 s")


def _sent() -> int:
    """Bytes of the core's files, each as small as it is handed out."""
    files = [each for each in (settings.STATIC_ROOT / "core").glob("*/*") if each.suffix not in PACKED]
    packed = ([each, *(each.with_name(each.name + suffix) for suffix in PACKED)] for each in files)
    return sum(min(each.stat().st_size for each in ways if each.exists()) for ways in packed)


def _slow_line(page: Page, address: str) -> tuple[float, float]:
    sign_in(page, address)
    link = page.get_by_role("link", name=JOB).get_attribute("href")
    tools = page.context.new_cdp_session(page)
    tools.send("Network.enable")
    tools.send("Emulation.setCPUThrottlingRate", {"rate": SLOWER})
    tools.send("Network.emulateNetworkConditions", LINE)
    tools.send("Network.clearBrowserCache")
    open_it = lambda: page.goto(address + str(link).lstrip("/"))  # noqa: E731
    return _seconds(page, open_it), _seconds(page, open_it)


def _seconds(page: Page, work: Callable[[], object]) -> float:
    """From the address to the sheet's next thing, by the page's own clock."""
    work()
    page.wait_for_function("() => window.usable")
    return float(page.evaluate("window.usable")) / 1000


def _take_along(page: Page) -> None:
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.wait_for_function("navigator.serviceWorker.controller !== null")
    page.get_by_role("link", name=JOB).click()
    page.locator("summary", has=page.get_by_role("heading", level=1)).click()
    page.get_by_role("button", name="Take along").click()
    page.get_by_role("button", name="Leave it behind").wait_for(timeout=120_000)


def _entry(page: Page, value: str) -> float:
    """From typing to the sheet that the core worked out: it counts one entry more."""
    time.sleep(BETWEEN_S)
    count = page.get_by_text("Everything that was entered (")
    before = count.inner_text()
    begun = time.monotonic()
    page.get_by_label("S1 typed").fill(value)
    page.wait_for_function(
        "([before]) => ![...document.querySelectorAll('summary')].some((each) => each.innerText === before)",
        arg=[before],
    )
    return time.monotonic() - begun
