from django.test import SimpleTestCase

from tests.builders import demo_board
from twincore.match import pin_differences
from twincore.recognise import normal_form, without_look_alikes


class PartNumbers(SimpleTestCase):
    def test_one_form_for_all_ways_of_writing(self) -> None:
        for written in ("TVH-2210-B", "tvh 2210 b", "TVH2210B", "tvh-02210/b", "ＴＶＨ－2210－B"):
            self.assertEqual(normal_form(written), "TVH2210B")
        self.assertEqual(normal_form("0-2205-00"), "022050")
        self.assertEqual(normal_form("—"), "")

    def test_letters_that_look_like_digits(self) -> None:
        # O and 0, I and 1, S and 5, B and 8: common practice, no source
        self.assertEqual(without_look_alikes("TVH-2210-B"), without_look_alikes("TVH-22IO-8"))
        self.assertNotEqual(without_look_alikes("TVH-2210-B"), without_look_alikes("TVH-2210-C"))


class Plugs(SimpleTestCase):
    def test_the_same_plug_with_other_pinning_is_named_pin_by_pin(self) -> None:
        found = pin_differences(demo_board("TVH-2210-B"), demo_board("TVH-2210-X"))
        self.assertIn(
            ("C1", "4", "fan.line", "valve.line"), [(d.connector, d.pin, d.original, d.replacement) for d in found]
        )
        self.assertEqual(pin_differences(demo_board("TVH-2210-B"), demo_board("TVH-2210-C")), [])
