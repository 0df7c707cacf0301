"""A whole job from one depot to another, through the browser."""

from e2e.support import BrowserTestCase
from jobs.models import Job
from people.models import Person


class FromElsewhere(BrowserTestCase):
    """A job brought in from another depot, and one that was changed on the way refused."""

    def test_a_package_is_brought_in_or_refused(self) -> None:
        with self.page() as page:
            page.get_by_label("Show").select_option("closed")
            page.get_by_role("link", name="Deck oven 2").click()
            with page.expect_download() as download:
                page.get_by_role("link", name="Whole job, package").click()
            data = download.value.path().read_bytes()
        Person.objects.filter(username="ildro").update(role=Person.Role.PARTS_LEAD)
        with self.page("ildro") as page:
            page.get_by_text("Bring in a job from another depot").click()
            field = page.get_by_label("Package (.zip)")
            turned = data.replace(b"contents.json", b"contenss.json")
            field.set_input_files({"name": "job.zip", "mimeType": "application/zip", "buffer": turned})
            page.get_by_role("alert").wait_for()
            self.check_accessible(page)
            field.set_input_files({"name": "job.zip", "mimeType": "application/zip", "buffer": data})
            page.get_by_role("link", name="NH-0001").click()
            page.get_by_text("Brought in from Saltmarsh Quay").wait_for()
            page.get_by_role("button", name="Prove").click()
            page.get_by_role("article", name="Run: No flame").wait_for()
            self.check_accessible(page)
        self.assertEqual(Job.objects.filter(depot__code="NH").count(), 1)
