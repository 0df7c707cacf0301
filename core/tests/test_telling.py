"""What counts as entered again."""

from unittest import TestCase

from twincore.job.shared.telling import same_entry


class SameEntry(TestCase):
    def test_a_number_is_the_same_however_it_is_written(self) -> None:
        for shown, wanted in (("4.50", "4.5"), ("4,5", "4.5"), ("-3", "-3.0"), (" 120 ", "120")):
            self.assertTrue(same_entry(shown, wanted), (shown, wanted))

    def test_a_code_of_digits_is_no_number(self) -> None:
        """A defect: 712 counted as 0712, and 12000 as 12E3."""
        for shown, wanted in (("712", "0712"), ("12000", "12E3"), ("10", "1_0"), ("0", "-0000"), ("inf", "1e999")):
            self.assertFalse(same_entry(shown, wanted), (shown, wanted))

    def test_words_are_compared_letter_by_letter_but_for_spaces(self) -> None:
        self.assertTrue(same_entry("Monday  04:30\nFriday 05:00", "Monday 04:30 Friday 05:00"))
        self.assertFalse(same_entry("0712-44B", "0712-44A"))
