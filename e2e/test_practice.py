"""Practice in the browser: by touch on a phone, with consequences, and without a connection; a trainer and a group."""

import re
from uuid import uuid4

from django.conf import settings
from playwright.sync_api import Page

from e2e.support import PHONE, BrowserTestCase
from people.models import Person
from practice.models import Attempt, Group
from practice.tasks import task_of
from twincore.practice import solved
from twincore.profile import written_positions
from twinshown.practice.schemas import TaskNamed

SET = "/practice/set?seed=3&original=TVH-2420-A&replacement=TVH-2424-A"


class Learner(BrowserTestCase):
    def to_practice(self, page: Page) -> None:
        page.get_by_text("Menu").tap()
        page.get_by_role("link", name="Practice").tap()
        page.get_by_role("heading", name="Practice", exact=True).wait_for()

    def test_a_board_is_set_the_machine_runs_and_the_two_sheets_lie_on_each_other(self) -> None:
        with self.page(dark=True, size=PHONE, touch=True) as page:
            self.to_practice(page)
            page.get_by_text("Next: read a board").wait_for()
            self.check_accessible(page)
            page.goto(self.live_server_url + SET)
            page.get_by_role("heading", name="The new board").wait_for()
            page.get_by_role("button", name="A normal bake").tap()
            page.get_by_role("button", name="A normal bake ✓").wait_for()
            self.check_accessible(page)
            # interrupted, it goes on where it was left
            page.reload()
            page.get_by_role("button", name="A normal bake ✓").wait_for()
            page.get_by_role("button", name="It is done").tap()
            page.get_by_text("here they part first").wait_for()
            self.check_accessible(page)
            page.get_by_text("Kept with what you did").wait_for()
            page.get_by_role("button", name="The same again").tap()
            page.get_by_role("heading", name="The new board").wait_for()
            self.assertEqual([each.right for each in Attempt.objects.filter(person__username="wennick")], [False])
            page.get_by_role("link", name="Practice", exact=True).tap()
            page.get_by_text("done so far: 1").wait_for()

    def test_a_board_is_read_from_a_picture_of_it(self) -> None:
        with self.page(dark=True, size=PHONE, touch=True) as page:
            page.goto(self.live_server_url + "/practice/read?seed=3&original=TVH-2420-A")
            drawn = page.get_by_role("img", name="TVH-2420-A").get_attribute("aria-label")
            page.get_by_role("radio", name="As a picture shows it").tap()
            pictured = page.get_by_role("figure").get_by_role("img", name="TVH-2420-A")
            self.assertEqual(pictured.get_attribute("aria-label"), drawn)
            self.check_accessible(page)
            page.get_by_role("button", name="That is how it stands").tap()
            page.get_by_text("Kept with what you did").wait_for()

    def test_who_takes_hold_of_the_board_too_early_hears_what_would_have_happened(self) -> None:
        with self.page(size=PHONE, touch=True) as page:
            page.goto(self.live_server_url + "/practice/safe?seed=1&original=TVH-2420-A")
            page.get_by_role("button", name="Take hold of the board").tap()
            page.get_by_text("The machine was on when you reached for the board").wait_for()
            page.get_by_text("Kept with what you did").wait_for()
            self.assertEqual(Attempt.objects.get(person__username="wennick").level, "safe")

    def test_what_is_right_ends_in_register_also_without_a_connection(self) -> None:
        with self.page(device=True) as page:
            page.evaluate("navigator.serviceWorker.ready.then(() => true)")
            page.wait_for_function("() => navigator.serviceWorker.controller !== null")
            page.goto(self.live_server_url + "/practice")
            page.get_by_role("button", name="Take one of each along").click()
            page.get_by_text("9 tasks are on this device").wait_for(timeout=120_000)  # the core is fetched
            with self.server_stopped():
                page.reload()
                page.get_by_text("Without a connection: the tasks").wait_for()
                page.get_by_role("link", name="Do one: Set a board").click()
                page.get_by_role("heading", name="The new board").wait_for()
                page.get_by_role("button", name="It is done").click()
                page.get_by_text("here they part first").wait_for()
                page.get_by_text("It waits on this device").wait_for()
                self.assertFalse(Attempt.objects.filter(person__username="wennick").exists())
            page.goto(self.live_server_url + "/practice")
            page.get_by_text("done so far: 1").wait_for()
            self.assertEqual(Attempt.objects.get(person__username="wennick").level, "set")

    def test_keys_are_pressed_and_pins_are_measured(self) -> None:
        with self.page(size=PHONE, touch=True) as page:
            page.goto(self.live_server_url + "/practice/keys?seed=1&original=TVH-2420-A")
            panel = page.get_by_role("region", name="Front keys")
            panel.get_by_role("button", name="P", exact=True).tap()
            page.get_by_text("Pressed so far: 1").wait_for()
            panel.get_by_label("Front keys shows").get_by_text("P02").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="It is keyed in").tap()
            page.get_by_text("are enough").wait_for()
            page.goto(self.live_server_url + "/practice/meter?seed=1&original=TVH-2420-A")
            page.get_by_role("button", name="Measure at C1.1").tap()
            page.get_by_role("list", name="Pins").get_by_text(re.compile(r"^\d+ V$")).wait_for()
            self.check_accessible(page)
            page.get_by_label("Whose fault is it?").select_option("board")
            page.get_by_role("button", name="That is it").tap()
            page.get_by_text("Kept with what you did").wait_for()

    def test_a_whole_job_is_gone_through_step_by_step(self) -> None:
        address = "/practice/whole?seed=1&original=TVH-2420-A&replacement=TVH-2424-A"
        with self.page(size=PHONE, touch=True) as page:
            page.goto(self.live_server_url + address)
            steps = page.get_by_role("list", name="Nine steps")
            steps.get_by_role("button", name="Record").tap()
            page.get_by_text("Say first which board it is.").wait_for()
            steps.get_by_role("button", name="Rule out").tap()
            page.get_by_label("What is it?").select_option(label="The control board")
            page.get_by_role("button", name="That is what it is").tap()
            page.get_by_label("Which board is it?").select_option("TVH-2420-A")
            page.get_by_role("button", name="That is it").tap()
            page.get_by_role("button", name="Take it: TVH-2424-A").tap()
            page.get_by_text("taken").wait_for()
            self.check_accessible(page)
            page.get_by_role("button", name="That one goes in").tap()
            page.get_by_role("button", name="Take hold of the board").tap()
            page.get_by_text("The machine was on when you reached for the board").wait_for()
            page.get_by_text("Kept with what you did").wait_for()

    def test_a_whole_job_is_handed_over(self) -> None:
        with self.page(dark=True) as page:
            page.goto(self.live_server_url + "/practice")
            task = page.evaluate(
                "() => fetch('/api/practice/task?level=whole&seed=1&original=TVH-2420-A&replacement=OFN-U5').then(r => r.json())"
            )
            made = task_of(Person.objects.get(username="wennick"), TaskNamed(**task["task"]))
            under_way = {"actions": solved(made)[:-2], "begun": 0, "id": str(uuid4())}
            page.evaluate(
                "([task, done]) => localStorage.setItem('of wennick practice task ' + JSON.stringify(task), JSON.stringify(done))",
                [task["task"], under_way],
            )
            page.goto(self.live_server_url + "/practice/whole?seed=1&original=TVH-2420-A&replacement=OFN-U5")
            steps = page.get_by_role("list", name="Nine steps")
            for name in ("Rule out", "Recognise", "Choose", "Make safe", "Record", "Carry over", "Fit", "Prove"):
                steps.get_by_role("button", name=re.compile(f"^\\d? ?{name}")).first.click()
                steps.get_by_role("region", name=name).wait_for()
                self.check_accessible(page)
            steps.get_by_role("button", name="Hand over").click()
            page.get_by_label("How does it behave?").select_option("as before")
            page.get_by_role("button", name="Hand it over").click()
            page.get_by_text("The machine behaves as it did, and you know that it does.").wait_for()
            page.get_by_text("Kept with what you did").wait_for()

    def test_a_task_that_is_done_right_says_so(self) -> None:
        with self.page() as page:
            page.goto(self.live_server_url + SET)
            page.get_by_role("heading", name="The new board").wait_for()
            task = page.evaluate(
                "() => fetch('/api/practice/task?level=set&seed=3&original=TVH-2420-A&replacement=TVH-2424-A').then(r => r.json())"
            )
            made = task_of(Person.objects.get(username="wennick"), TaskNamed(**task["task"]))
            assert made.carried is not None and made.carried.record is not None
            positions = written_positions(made.boards.replacement, made.carried.record.points)
            for name, value in positions.items():
                editor = page.get_by_role("region", name=f"{name} of the new board")
                choice = editor.get_by_role("radio", name=str(value), exact=True)
                if choice.count():
                    choice.click()
                else:
                    editor.get_by_role("textbox").fill(str(value))
                    editor.get_by_role("textbox").press("Enter")
            page.get_by_role("button", name="It is done").click()
            page.get_by_text("in register").first.wait_for()


class Trainer(BrowserTestCase):
    def test_a_group_is_made_given_tasks_from_a_file_and_looked_at(self) -> None:
        with self.page("corm") as page:
            page.goto(self.live_server_url + "/practice")
            page.get_by_role("button", name="Groups").click()
            page.get_by_label("A new group").fill("Night shift")
            page.get_by_label("Wennick Tarl").check()
            page.get_by_role("button", name="Add the group").click()
            page.get_by_role("link", name="Night shift").click()
            page.get_by_text("No tasks are set yet").wait_for()
            page.get_by_label("A file of tasks").set_input_files(settings.ROOT / "demo/practice/first-week.tasks.json")
            page.get_by_role("list", name="Tasks").get_by_role("link").nth(6).wait_for()
            page.get_by_role("row", name="Wennick Tarl").get_by_text("0 of 8 right").wait_for()
            self.check_accessible(page)
            self.assertEqual(len(Group.objects.get(name="Night shift").tasks), 8)
