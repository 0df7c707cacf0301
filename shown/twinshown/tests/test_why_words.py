"""Why two boards part, in words."""

from dataclasses import replace

from django.test import SimpleTestCase

from tests.builders import case_twin, small_board, small_family, twin_of
from twincore import behaviour
from twincore.carry_over import Closest, Single
from twinshown.comparison.why_words import closest_words, rests_words, single_words, why_words


class WhyWords(SimpleTestCase):
    def told(self, twin: behaviour.Twin) -> list[str]:
        case = behaviour.prove(twin).counter_case
        assert case is not None
        return why_words(twin, case)

    def test_states_conditions_and_what_stays(self) -> None:
        one, other = self.told(case_twin("oven-lockout-forgotten"))
        self.assertEqual(one, "The original stays in “lockout”.")
        self.assertIn("goes from “standby” to “prove”, because “Call for heat” is on", other)

    def test_times_counts_and_levels(self) -> None:
        family = small_family()
        family["inputs"].append({"id": "temp", "title": "Chamber", "level": True, "unit": "°C", "from": 0, "to": 90})
        waits = [
            {"start": "s", "states": {"s": {"go": [{"to": "t", "after": after}]}, "t": {"on": ["x"], "go": []}}}
            for after in (5, 7)
        ]
        one, other = self.told(twin_of(family, [small_board(each, f"S-{n}") for n, each in enumerate(waits)]))
        self.assertEqual(one, "The original goes from “s” to “t”, because 5 s are over.")
        self.assertEqual(other, "The replacement stays in “s”, and would go on at 7 s, because 7 s are over.")
        hot = [
            {
                "start": "s",
                "states": {"s": {"go": [{"to": "t", "if": {"temp": {"from": at}}}]}, "t": {"on": ["x"], "go": []}},
            }
            for at in (30, 33)
        ]
        one, other = self.told(twin_of(family, [small_board(each, f"S-{n}") for n, each in enumerate(hot)]))
        self.assertEqual(one, "The original goes from “s” to “t”, because “Chamber” is at 30 °C or above.")
        self.assertEqual(other, "The replacement stays in “s”.")

    def test_what_it_rests_on_that_two_are_the_same(self) -> None:
        family = small_family() | {"never_together": [{"a": True, "b": False}]}
        go = {"start": "s", "states": {"s": {"go": [{"to": "t", "if": {"a": True}}]}, "t": {"on": ["x"], "go": []}}}
        twin = twin_of(family, [small_board(go), small_board(go, "S-2")])
        looked_at, followed, granted = rests_words(behaviour.prove(twin), twin.family)
        self.assertIn("Step for step: wherever both can be (2 situations)", looked_at)
        # power, and a with b, which is tied to it
        self.assertEqual(followed, "Followed: every change of 3 inputs; whatever else changes, neither reads it.")
        self.assertEqual(granted, "Taken for granted: “a” on and “b” off never come together.")

    def test_the_single_settings(self) -> None:
        self.assertEqual(single_words([]), "")
        found = [Single("S1.4", "on", "identical"), Single("P07", 60, "within tolerance")]
        self.assertEqual(
            single_words(found), "One setting alone would bring them into register: S1.4 at on, or P07 at 60."
        )
        self.assertIn("(within tolerance)", single_words(found[1:]))

    def test_what_comes_closer(self) -> None:
        twin = case_twin("oven-lockout-forgotten")
        case = behaviour.prove(twin).counter_case
        assert case is not None
        later, more = replace(case, at=95), replace(case, changes=5)
        start = "Closer by what they do, though not by every function: with R1 at 6 and P07 at 60 "
        points = {"R1": "6", "P07": 60}
        for then, told in ((later, "the two part at 95 s at the earliest, not at 30 s."),
                           (more, "it takes 5 input changes to tell the two apart, not 3.")):  # fmt: skip
            self.assertEqual(closest_words(Closest(points, then, 4), case, twin.family), start + told)
        self.assertEqual(
            closest_words(Closest(points, None, 4), case, twin.family),
            "With R1 at 6 and P07 at 60 they are in register.",
        )
        self.assertEqual(closest_words(None, case, twin.family), "")
