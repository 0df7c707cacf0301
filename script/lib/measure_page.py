"""Measurements in the browser, by its own tools: how far things jump while a job opens, and how long a tap waits for an answer.

Layout shift is the largest burst of shifts as defined by the Layout Instability specification (a burst lasts at most
5 s, with gaps under 1 s); the delay of a tap is the duration that the Event Timing specification gives it.
"""

import os
import re
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from urllib.error import URLError
from urllib.request import urlopen

from django.conf import settings
from django.core.management import call_command
from playwright.sync_api import Browser, Page, sync_playwright

from jobs.demo import PEOPLE, load_demo_world

SLOWER = 4
SIZES = {"at a desk": {"width": 1280, "height": 800}, "on a phone": {"width": 390, "height": 844}}
JOBS = ("SQ-0006", "SQ-0007", "SQ-0003", "SQ-0004", "SQ-0005")
WATCH = """
window.shifts = []; window.waits = [];
new PerformanceObserver(list => { for (const e of list.getEntries()) if (!e.hadRecentInput) window.shifts.push([e.startTime, e.value]); })
  .observe({ type: "layout-shift", buffered: true });
new PerformanceObserver(list => { for (const e of list.getEntries()) if (e.interactionId) window.waits.push(e.duration); })
  .observe({ type: "event", durationThreshold: 16, buffered: true });
"""


def measure(row: Callable[..., None]) -> None:
    """Every seeded job opened, and a bank set, on a processor four times slower."""
    with served() as (address, browser):
        for name, size in SIZES.items():
            page = browser.new_context(viewport=size, reduced_motion="reduce").new_page()
            shift, wait = _walk(page, address)
            row(f"layout shift of any job as it opens, {name}", f"{shift:.3f}", "under 0.05")
            row(f"longest wait of a tap on a bank, {name}, processor 4 × slower", f"{wait:.0f} ms", "under 100 ms")


@contextmanager
def served() -> Iterator[tuple[str, Browser]]:
    """The demo world, served as it is to people; its address, and a browser."""
    call_command("migrate", verbosity=0)
    call_command("createcachetable")
    load_demo_world(settings.ROOT / "demo", datetime.now(UTC), lambda _: None)
    port = os.environ["TWIN_PAGE_PORT"]
    command = [sys.executable, "-m", "gunicorn", "config.wsgi", "--bind", f"127.0.0.1:{port}", "--threads", "8"]
    server = subprocess.Popen(command, stderr=subprocess.DEVNULL)
    try:
        _wait(f"http://127.0.0.1:{port}/")
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=["--no-sandbox"])
            yield f"http://127.0.0.1:{port}/", browser
            browser.close()
    finally:
        server.terminate()
        server.wait()


def _wait(address: str) -> None:
    for _ in range(150):
        try:
            urlopen(address, timeout=2).close()
        except (URLError, OSError):
            time.sleep(0.2)
        else:
            return
    raise AssertionError("the server did not answer")


def sign_in(page: Page, address: str) -> None:
    """As the first of the demo's people."""
    username, password = PEOPLE[0][:2]
    page.goto(address)
    page.get_by_label("Name").fill(username)
    page.get_by_label("Password").fill(password)
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("heading", name="Jobs").wait_for()


def _walk(page: Page, address: str) -> tuple[float, float]:
    """The worst layout shift over the jobs, and the longest wait over the taps on a bank."""
    sign_in(page, address)
    page.add_init_script(WATCH)
    throttle = page.context.new_cdp_session(page)
    throttle.send("Emulation.setCPUThrottlingRate", {"rate": SLOWER})
    worst, waits = 0.0, [0.0]
    addresses = {code: page.get_by_role("link", name=code).get_attribute("href") for code in JOBS}
    for code in JOBS:
        page.goto(address + str(addresses[code]).lstrip("/"))
        page.get_by_role("region", name="Next").wait_for()
        page.wait_for_load_state("networkidle")
        worst = max(worst, _largest_burst(page.evaluate("window.shifts")))
        if code == "SQ-0003":
            for place in range(1, 7):
                page.get_by_role("button", name=re.compile(rf"^S1\.{place} ")).click()
            page.get_by_text("Everything is saved").wait_for()
            waits += page.evaluate("window.waits")
    return worst, max(waits)


def _largest_burst(shifts: list[tuple[float, float]]) -> float:
    """The largest sum of shifts in a burst of at most 5 s without a gap of 1 s; times in milliseconds."""
    largest = burst = 0.0
    first = last = -1e9
    for at, value in shifts:
        if at - last > 1000 or at - first > 5000:
            first, burst = at, 0.0
        burst, last = burst + value, at
        largest = max(largest, burst)
    return largest
