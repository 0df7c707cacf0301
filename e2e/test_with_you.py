"""In the cellar: a job that was taken along goes on without a connection, on the same core."""

import json
import os
import signal
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from PIL import Image
from playwright.sync_api import Page, Route

from e2e import test_whole_job as whole
from e2e.support import FLAGS, PHONE
from jobs.models import Job, Picture
from jobs.packages.packaging import package_of
from twincore.chain import open_package
from twincore.job.case import Case
from twinshown.with_you import bag

KEPT = """
async (job) => {
    const opened = indexedDB.open("worthy-twin");
    const database = await new Promise((resolve) => (opened.onsuccess = () => resolve(opened.result)));
    const kept = database.transaction(["documents", "entries"]);
    const [documents, entries] = [kept.objectStore("documents").getAll(), kept.objectStore("entries").getAll()];
    await new Promise((resolve) => (kept.oncomplete = resolve));
    database.close();
    const { text } = documents.result.find((each) => each.job === job);
    return { job, document: text, entries: entries.result.filter((each) => each.job === job && !each.refused) };
}
"""
"""What a device has of a job: as it was taken along, and what waits."""


class InTheCellar(whole.ByTouch):
    test_from_first_screen_to_closed_job = None  # type: ignore[assignment] # it is made where there is a connection

    away = False

    def saved(self, page: Page) -> None:
        """Wait until all is where it can be: at the depot, or on this device."""
        words = "on this device" if self.away else "is saved"
        page.get_by_role("status").filter(has_text=words).first.wait_for()

    def case_shown(self, page: Page) -> Case:
        """The job as it is on the device, where the depot does not have it."""
        if not self.away:
            return super().case_shown(page)
        kept = page.evaluate(KEPT, page.url.rsplit("/", 1)[-1])
        bag.put_in(kept["document"])
        for entry in kept["entries"]:
            bag.add(entry["job"], json.dumps(entry["entry"]), entry["entry"]["made_at"])
        return bag.job_along(kept["job"]).case()

    def take_along(self, page: Page) -> None:
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        page.wait_for_function("navigator.serviceWorker.controller !== null")
        page.locator("summary", has=page.get_by_role("heading", level=1)).tap()
        page.get_by_role("button", name="Take along").or_(page.get_by_role("button", name="Take it along anew")).tap()
        page.get_by_role("button", name="Leave it behind").wait_for()
        page.locator("summary", has=page.get_by_role("heading", level=1)).tap()

    def afresh(self, page: Page) -> Page:
        """The same address in a page of its own, opened from nothing."""
        address, context = page.url, page.context
        page.close()
        again = context.new_page()
        again.set_default_timeout(25_000)
        again.goto(address)
        return again

    def test_the_whole_job_without_a_server(self) -> None:
        with self.page(size=PHONE, touch=True, device=True) as page:
            self.open_job(page)
            self.recognise(page)
            self.choose(page)
            self.take_along(page)
            with self.server_stopped():
                self.away = True
                page = self.afresh(page)
                self.make_safe(page)
                self.record(page)
                self.carry_over(page)
                page.get_by_role("button", name="Set in the hand").wait_for()
                page = self.afresh(page)
                self.fit(page)
                self.prove(page)
                page.get_by_label("Anything the next person").fill("Label left inside the door")
                page.get_by_role("button", name="Close the job").wait_for()
                self.check_accessible(page)
            self.away = False
            self.saved(page)
            job = Job.objects.get(machine="Deck oven 7, Gullsway Rolls")
            self.assertEqual(job.state["left"], {"SW1": "0111", "R1": "6"})
            self.assertEqual(job.state["verdict"], "identical")
            # the last looks may have come as good as at once; what was read first was surely made before it joined
            self.assertEqual(
                {each.made is not None for each in job.entries.filter(target__startswith="found.")}, {True}
            )
            with package_of(job) as file:
                self.assertEqual(open_package(file).faults, ())
            page.get_by_role("button", name="Close the job").tap()
            page.get_by_text("Nothing in this job changes any more").wait_for()
            with page.expect_download() as download:
                page.get_by_role("link", name="Job sheet, A4").tap()
            self.assertTrue(download.value.suggested_filename.endswith(".pdf"))


class KilledInTheCellar(InTheCellar):
    """The same, and the browser is killed where it would be opened afresh."""

    @contextmanager
    def page(self, **given: Any) -> Iterator[Page]:
        """A signed-in page of a browser whose device outlives it."""
        with TemporaryDirectory() as self.device:
            page = self.opened()
            page.goto(self.live_server_url)
            self.sign_in_by_hand(page)
            yield page
            self.kill()

    def opened(self) -> Page:
        context = self.playwright.chromium.launch_persistent_context(
            self.device, executable_path="/usr/bin/chromium", args=FLAGS, viewport=PHONE, has_touch=True,
            reduced_motion="reduce", accept_downloads=True,
        )  # fmt: skip
        page = context.pages[0]
        page.set_default_timeout(120_000)
        return page

    def kill(self) -> None:
        for process in Path("/proc").glob("[0-9]*"):
            with suppress(OSError):
                if self.device.encode() in (process / "cmdline").read_bytes():
                    os.kill(int(process.name), signal.SIGKILL)

    def afresh(self, page: Page) -> Page:
        address = page.url
        self.kill()
        again = self.opened()
        again.goto(address)
        return again

    def saved(self, page: Page) -> None:
        # a browser that was killed may have lost its cookies: whoever works here signs in again, and what waits goes on
        status = page.get_by_role("status").filter(has_text="on this device" if self.away else "is saved").first
        status.or_(page.get_by_label("Password")).first.wait_for()
        if page.get_by_label("Password").is_visible():
            self.sign_in_by_hand(page)
        super().saved(page)


class TwoPeopleAndACellar(InTheCellar):
    test_the_whole_job_without_a_server = None  # type: ignore[assignment] # it is made above

    def test_what_collides_is_shown_side_by_side_and_somebody_decides(self) -> None:
        with self.page(size=PHONE, touch=True, device=True) as one, self.page("corm") as other:
            for page in (one, other):
                page.get_by_role("link", name="Fennick and Daughters").click()
                page.get_by_label("S1 typed").wait_for()
            self.take_along(one)
            one.context.set_offline(True)
            one.get_by_label("S1 typed").fill("010110")
            one.get_by_text("No connection: 1 entry waits on this device").wait_for()
            other.get_by_label("S1 typed").fill("111111")
            other.get_by_role("status").filter(has_text="is saved").wait_for()
            one.get_by_role("link", name="What waits", exact=True).tap()
            one.get_by_role("list", name="Waits to be sent").get_by_text("S1").wait_for()
            one.context.set_offline(False)
            one.get_by_role("button", name="Send now").tap()
            theirs = one.get_by_role("list", name="What was said meanwhile")
            theirs.get_by_text("Corm Haddle said").wait_for()
            theirs.get_by_text("111111").wait_for()
            self.check_accessible(one)
            one.get_by_role("button", name="I looked: mine stands").tap()
            one.get_by_text("Nothing waits. The depot has everything").wait_for()
        self.assertEqual(self.job(3).state["found"], {"S1": "010110"})
        self.assertEqual(self.job(3).entries.filter(target="found.S1").count(), 2)

    def test_a_picture_that_was_cut_goes_on_where_it_was(self) -> None:
        with (
            TemporaryDirectory() as folder,
            self.settings(MEDIA_ROOT=folder, UPLOADS=Path(folder)),
            self.page() as page,
        ):
            noise = Path(folder) / "board.jpg"
            Image.effect_noise((1100, 900), 120).convert("RGB").save(noise, quality=95)
            offsets: list[int] = []

            def cut(route: Route) -> None:
                offsets.append(int(route.request.headers["upload-offset"]))
                if len(offsets) == 3:
                    route.abort()
                else:
                    route.fallback()

            page.route(
                lambda address: address.endswith("/chunks"),
                lambda route: cut(route) if route.request.method == "PATCH" else route.fallback(),
            )
            page.get_by_role("link", name="Fennick and Daughters").click()
            page.get_by_label("S1 typed").wait_for()
            self.unfold(page, "Pictures")
            page.get_by_label("Add pictures").set_input_files(noise)
            page.get_by_role("button", name="Read S1 from it").wait_for()
            self.saved(page)
            self.assertEqual(offsets[1:4], [256_000, 512_000, 512_000])
            self.assertEqual((Picture.objects.get().width, Picture.objects.get().height), (1100, 900))

    def test_what_waits_is_sent_though_no_page_is_open(self) -> None:
        with self.page(size=PHONE, touch=True, device=True) as page:
            page.get_by_role("link", name="Fennick and Daughters").click()
            page.get_by_label("S1 typed").wait_for()
            self.take_along(page)
            with self.server_stopped():
                page.get_by_label("S1 typed").fill("010110")
                page.get_by_text("1 entry waits on this device").wait_for()
                # a page of the same origin that is no part of the application
                bare = page.context.new_page()
                bare.goto(f"{self.live_server_url}/static/icon.svg")
                page.close()
            self.assertEqual(self.job(3).state["found"], {})
            tools = bare.context.new_cdp_session(bare)
            found: list[str] = []
            tools.on(
                "ServiceWorker.workerRegistrationUpdated",
                lambda told: found.extend(r["registrationId"] for r in told["registrations"]),
            )
            tools.send("ServiceWorker.enable")
            for _ in range(100):
                if found:
                    tools.send(
                        "ServiceWorker.dispatchSyncEvent",
                        {
                            "origin": self.live_server_url,
                            "registrationId": found[0],
                            "tag": "what waits",
                            "lastChance": False,
                        },
                    )
                if self.job(3).state["found"]:
                    break
                bare.wait_for_timeout(300)
            self.assertEqual(self.job(3).state["found"], {"S1": "010110"})
            self.assertEqual(self.job(3).entries.filter(target="found.S1").count(), 1)

    def test_what_waits_is_saved_as_a_file_and_brought_in_by_its_maker_on_another_device(self) -> None:
        with TemporaryDirectory() as folder, self.page(size=PHONE, touch=True, device=True) as one:
            one.get_by_role("link", name="Fennick and Daughters").click()
            one.get_by_label("S1 typed").wait_for()
            self.take_along(one)
            one.context.set_offline(True)
            one.get_by_label("S1 typed").fill("010110")
            one.get_by_text("No connection: 1 entry waits on this device").wait_for()
            one.get_by_role("link", name="What waits", exact=True).tap()
            with one.expect_download() as download:
                one.get_by_role("button", name="Save it as a file").tap()
            file = Path(folder) / "entries.json"
            download.value.save_as(file)
            for somebody in ("corm", "wennick"):
                with self.page(somebody, size=PHONE, touch=True) as other:
                    other.goto(f"{self.live_server_url}/waiting")
                    other.get_by_text("Bring in what waited on another device").tap()
                    other.get_by_label("File of entries").set_input_files(file)
                    if somebody == "corm":
                        other.get_by_text("They can be brought in when wennick is signed in here").wait_for()
                        continue
                    other.get_by_text("Brought in: 1.").wait_for()
                    other.get_by_text("Nothing waits. The depot has everything").wait_for()
            self.assertEqual(self.job(3).state["found"], {"S1": "010110"})
