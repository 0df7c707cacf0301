"""The core in the browser says what it says on the server, to the byte."""

import json
from typing import Any

from django.conf import settings
from django.utils import timezone
from playwright.sync_api import Page

from e2e.support import BrowserTestCase
from jobs.models import Job
from jobs.queries import job as read_job
from jobs.with_you.taking import taken
from people.models import Person
from twinshown.rendering import rendered
from twinshown.with_you import bag
from twinshown.with_you.answering import PARTS

WORKER = """
async ([worker, calls]) => {
    window.core ??= new Worker(worker, { type: "module" });
    const answers = [];
    for (const [call, ...args] of calls)
        answers.push(await new Promise((resolve) => {
            window.core.onmessage = ({ data }) => resolve(data.fault ?? data.answer);
            window.core.postMessage({ id: 1, call, args });
        }));
    return answers;
}
"""


class CoreInTheBrowser(BrowserTestCase):
    def test_every_entry_and_every_page_of_every_demo_job(self) -> None:
        person = Person.objects.get(username="wennick")
        with self.page() as page:
            for job in Job.objects.filter(depot=person.depot).order_by("number"):
                with self.subTest(job.code):
                    self.compare(page, _calls(job, person))

    def compare(self, page: Page, calls: list[list[str]]) -> None:
        worker = next((settings.STATIC_ROOT / "assets").glob("worker-*.js")).name
        there = page.evaluate(WORKER, [f"/static/assets/{worker}", calls])
        for call, answer in zip(calls, there, strict=True):
            here = getattr(bag, call[0])(*call[1:])
            with self.subTest([str(each)[:120] for each in call]):
                self.assertEqual(answer, here)


def _calls(job: Job, person: Person) -> list[list[str]]:
    """A job taken along from its beginning: each of its entries, then every page; and the whole job with every page."""
    document = json.loads(rendered(taken(read_job(person, job.pk), person, timezone.now())))
    begun = {**document, "entries": [], "sheets": {}, "state": {}, "job": {**document["job"], "closed_at": None}}
    pages = [
        ["ask", method, f"/api/jobs/{job.pk}{f'/{part}' if part else ''}", "", "2026-03-02T05:00:00+00:00"]
        for method, part in PARTS if method == "GET"
    ]  # fmt: skip
    sheet = pages[0]
    entries = [call for node in document["entries"] for call in (_added(job, node), sheet)]
    return [["put_in", rendered(begun)], *entries, *pages, ["put_in", rendered(document)], *pages]


def _added(job: Job, node: dict[str, Any]) -> list[str]:
    sheet = f"{job.pk}.{node['board']}" if "board" in node else str(job.pk)
    given = {name: node[name] for name in ("target", "before", "after", "reason", "read_how")}
    return ["add", sheet, json.dumps({"id": node["here"], **given}), node["at"]]
