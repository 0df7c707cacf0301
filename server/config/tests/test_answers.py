"""What every answer bears, and cells that no spreadsheet works out."""

from django.test import SimpleTestCase, TestCase
from hypothesis import given
from hypothesis import strategies as st

from config.downloads import STARTS_A_FORMULA, cell, text_of


class Answers(TestCase):
    def test_nobody_keeps_what_the_api_says(self) -> None:
        for path in ("/api/jobs", "/api/session", "/api/nowhere"):
            self.assertEqual(self.client.get(path)["Cache-Control"], "no-store", path)

    def test_a_wrong_method_is_a_problem_that_says_which_are_right(self) -> None:
        answer = self.client.delete("/api/jobs")
        self.assertEqual((answer.status_code, answer["Content-Type"]), (405, "application/problem+json"))
        self.assertIn("GET", answer.json()["detail"])


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
