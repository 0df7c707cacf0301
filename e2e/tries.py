"""A second try for tests that depend on how busy the machine is."""

import os
import sys
from typing import ClassVar
from unittest import TestCase, TestResult


class TriedTwice(TestCase):
    """Where nobody sits beside the machine, a test that fails is tried once more; the first trouble is printed either way."""

    again: ClassVar[bool] = bool(os.environ.get("CI"))

    def __call__(self, result: TestResult | None = None) -> None:  # type: ignore[override]
        if result is None or not self.again:
            super().__call__(result)
            return
        first = TestResult()
        super().__call__(first)
        if first.errors or first.failures:
            for _, trouble in first.errors + first.failures:
                print(f"\nTried again: {self.id()}\n{trouble}", file=sys.stderr, flush=True)
            super().__call__(result)
            return
        result.startTest(self)
        if first.skipped:
            result.addSkip(self, first.skipped[0][1])
        else:
            result.addSuccess(self)
        result.stopTest(self)
