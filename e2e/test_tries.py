"""What a second try lets through, and what it does not."""

import io
from contextlib import redirect_stderr
from unittest import SkipTest, TestCase, TestResult

from e2e.tries import TriedTwice


def tried(fails: int, again: bool, skips: bool = False) -> tuple[TestResult, int, str]:
    """A test that fails so often, how often it ran, and what was printed."""
    ran = 0

    class Sample(TriedTwice):
        def runTest(self) -> None:
            nonlocal ran
            ran += 1
            if skips:
                raise SkipTest("not here")
            self.assertGreater(ran, fails, "not yet")

    Sample.again = again
    result, printed = TestResult(), io.StringIO()
    with redirect_stderr(printed):
        Sample()(result)
    return result, ran, printed.getvalue()


class SecondTry(TestCase):
    def test_a_test_that_passes_runs_once_and_says_nothing(self) -> None:
        result, ran, printed = tried(0, again=True)
        self.assertEqual((result.testsRun, result.wasSuccessful(), ran, printed), (1, True, 1, ""))

    def test_what_fails_once_passes_and_is_told(self) -> None:
        result, ran, printed = tried(1, again=True)
        self.assertEqual((result.testsRun, result.wasSuccessful(), ran), (1, True, 2))
        self.assertIn("Tried again: ", printed)
        self.assertIn("not yet", printed)

    def test_what_fails_twice_fails(self) -> None:
        result, ran, _ = tried(2, again=True)
        self.assertEqual((result.testsRun, len(result.failures), ran), (1, 1, 2))

    def test_where_somebody_sits_beside_it_nothing_is_tried_again(self) -> None:
        result, ran, _ = tried(1, again=False)
        self.assertEqual((len(result.failures), ran), (1, 1))

    def test_what_is_left_out_is_counted_as_left_out(self) -> None:
        result, ran, _ = tried(0, again=True, skips=True)
        self.assertEqual((len(result.skipped), ran), (1, 1))
