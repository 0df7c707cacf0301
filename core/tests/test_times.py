import re
from fractions import Fraction
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from twincore.profile.times import time_words

WORTH = {"h": 3600, "min": 60, "s": 1}


class Times(TestCase):
    def test_they_are_said_in_seconds_then_minutes_then_hours(self) -> None:
        said = [time_words(each) for each in (0, Fraction(63, 2), 119, 120, 750, 7199, 7200, 21600, 22205)]
        self.assertEqual(
            said,
            ["0 s", "31.5 s", "119 s", "2 min", "12 min 30 s", "119 min 59 s", "2 h", "6 h", "6 h 10 min 5 s"],
        )

    @given(st.integers(0, 800_000).map(lambda eighths: Fraction(eighths, 8)))
    def test_nothing_is_left_out(self, seconds: Fraction) -> None:
        parts = re.findall(r"([\d.]+) (h|min|s)", time_words(seconds))
        self.assertEqual(sum(Fraction(count) * WORTH[unit] for count, unit in parts), seconds)
