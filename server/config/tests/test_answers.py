"""What every answer bears, and cells that no spreadsheet works out."""

from django.test import SimpleTestCase, TestCase
from hypothesis import given
from hypothesis import strategies as st

from config.downloads import STARTS_A_FORMULA, cell, text_of
from config.policies import static_headers


class Answers(TestCase):
    def test_nobody_keeps_what_the_api_says(self) -> None:
        for path in ("/api/jobs", "/api/session", "/api/nowhere"):
            self.assertEqual(self.client.get(path)["Cache-Control"], "no-store", path)

    def test_webassembly_is_compiled_by_one_worker_and_by_nothing_else(self) -> None:
        policies: dict[str, str] = {}
        for url in (
            "/static/assets/worker-1a2b.js",
            "/static/assets/index-1a2b.js",
            "/static/device.js",
            "/static/index.html",
        ):
            headers: dict[str, str] = {}
            static_headers(headers, "", url)
            policies[url] = headers["Content-Security-Policy"]
            self.assertEqual("Service-Worker-Allowed" in headers, url == "/static/device.js")
        policies["/api/session"] = self.client.get("/api/session")["Content-Security-Policy"]
        self.assertEqual(headers["Cross-Origin-Embedder-Policy"], "require-corp")
        page = self.client.get("/api/session")
        isolated = [page[f"Cross-Origin-{each}-Policy"] for each in ("Embedder", "Opener")]
        self.assertEqual(isolated, ["require-corp", "same-origin"])
        allowed = [
            url
            for url, policy in policies.items()
            if "unsafe-eval" in policy.replace("wasm-unsafe-eval", "") or "wasm" in policy
        ]
        self.assertEqual(allowed, ["/static/assets/worker-1a2b.js"])

    def test_a_wrong_method_is_a_problem_that_says_which_are_right(self) -> None:
        answer = self.client.delete("/api/jobs")
        self.assertEqual((answer.status_code, answer["Content-Type"]), (405, "application/problem+json"))
        self.assertIn("GET", answer.json()["detail"])


class Addresses(TestCase):
    def test_an_address_that_is_no_text_is_not_found_wherever_it_stands(self) -> None:
        """Defect: the database was asked for it, and some twenty addresses answered 500."""
        for path in (
            "/api/board/%00",
            "/api/jobs/%00",
            "/api/board-file/a%00b",
            "/api/nowhere/%00",
            "/%00",
            "/static/%00",
        ):
            answer = self.client.get(path)
            self.assertEqual((answer.status_code, answer["Content-Type"]), (404, "application/problem+json"), path)


class Bodies(TestCase):
    def test_forms_are_refused_before_they_are_read(self) -> None:
        """A defect: a form of 150 MB from anybody was written to the disk to look for a token in it."""
        for kind in ("multipart/form-data; boundary=x", "multipart/form-data", "application/x-www-form-urlencoded"):
            answer = self.client.generic("POST", "/api/session", b"x" * 10, content_type=kind)
            self.assertEqual((answer.status_code, answer["Content-Type"]), (415, "application/problem+json"), kind)

    def test_where_a_form_is_taken_somebody_is_signed_in(self) -> None:
        answer = self.client.generic("POST", "/api/imports", b"x" * 10, content_type="multipart/form-data; boundary=x")
        self.assertEqual(answer.status_code, 401)

    def test_what_a_form_of_another_site_can_send_signs_nobody_in(self) -> None:
        said = '{"username": "wennick", "password": "torchlight-42"}'
        answer = self.client.post("/api/session", said, content_type="text/plain")
        self.assertEqual(answer.status_code, 415)
        self.assertNotIn("sessionid", answer.cookies)


class Cells(SimpleTestCase):
    def test_no_cell_begins_a_formula_and_numbers_stay_numbers(self) -> None:
        for text in ("=1+1", "+SUM(A1)", "@x", "-cmd", "\t=1"):
            self.assertEqual(cell(text), f"'{text}")
        for text in ("-5", "+2.50", "5", "plain", "", "'quoted"):
            self.assertEqual(cell(text), text)

    @given(st.text(alphabet="='+-@\t\r1.ab ", max_size=8))
    def test_what_is_handed_out_comes_in_as_it_was(self, text: str) -> None:
        written = cell(text)
        self.assertEqual(text_of(written), text)
        if written.startswith(STARTS_A_FORMULA):
            float(written)  # then it is a number
