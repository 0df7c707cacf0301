"""Measurements of practice: how long a task of any two boards takes to make, and a machine to answer a setting."""

import statistics
import time
from collections.abc import Callable, Iterator
from itertools import permutations

from measure_page import served, sign_in
from playwright.sync_api import Page

from tests.test_practice import boards, demo
from twincore.practice import Level, NoTask, make_task

LEVELS: tuple[Level, ...] = ("set", "carry", "whole")
"""Those that take a twin check to make; the others take none."""
TASK = "practice/set?seed=3&original=TVH-2420-A&replacement=TVH-2424-A"
SETTINGS = 20
ANSWERED = """
async (region) => {
    const places = () => [...document.querySelectorAll(`section[aria-label="${region}"] [role=radio]`)];
    const now = () => places().findIndex((each) => each.getAttribute("aria-checked") === "true");
    const next = (now() + 1) % places().length;
    const begun = performance.now();
    places()[next].click();
    while (now() !== next || places()[next].disabled) await new Promise((resolve) => requestAnimationFrame(resolve));
    return performance.now() - begun;
}
"""
"""Set a rotary one place further; how long it took until the machine showed it, in milliseconds."""


def measure(row: Callable[..., None]) -> None:
    """Tasks of all pairs of the demo's boards, one after the other; then settings in a browser, answered by the server."""
    times, made = [], 0
    for one, other in _pairs():
        between = boards(one, other)
        for level in LEVELS:
            begun = time.perf_counter()
            try:
                make_task(level, between, 1)
                made += 1
            except NoTask:
                pass
            times.append(time.perf_counter() - begun)
    what = f"a task of practice made or found to be none ({made} and {len(times) - made}, all pairs of boards)"
    row(f"{what}, 99th percentile", f"{statistics.quantiles(times, n=100)[-1]:.2f} s", "at most 0.5 s")
    row(f"{what}, slowest", f"{max(times):.2f} s")
    with served() as (address, browser):
        page = browser.new_page()
        sign_in(page, address)
        found = _settings(page, address)
    row(f"a machine of practice answers a setting, slowest of {SETTINGS}", f"{max(found):.0f} ms", "at most 100 ms")


def _pairs() -> Iterator[tuple[str, str]]:
    known = demo().boards
    return ((one, other) for one, other in permutations(known, 2) if known[one].family == known[other].family)


def _settings(page: Page, address: str) -> list[float]:
    """How long each of so many settings took until it was shown, in milliseconds."""
    page.goto(address + TASK)
    page.get_by_role("heading", name="The new board").wait_for()
    region = page.get_by_role("region", name="of the new board").filter(has=page.get_by_role("radio")).first
    return [page.evaluate(ANSWERED, region.get_attribute("aria-label")) for _ in range(SETTINGS)]
