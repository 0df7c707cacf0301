"""What an entry says, in words: whole, and never as a developer writes it."""

from typing import Any

from django.test import SimpleTestCase

from tests.builders import demo_board, demo_family
from twincore.job import TARGETS, empty_state
from twincore.job.case import Case
from twinshown.words.entries import ABOUT, entry_words


class Words(SimpleTestCase):
    def setUp(self) -> None:
        state = empty_state()
        self.case = Case(state=state, family=demo_family(), original=demo_board("TVH-2210-B"))

    def said(self, target: str, after: Any) -> tuple[str, str]:
        words = entry_words(self.case, target, None, after)
        self.assertEqual(words.before, "nothing")
        return words.about, words.after

    def test_every_target_has_words_of_its_own(self) -> None:
        self.assertEqual(set(TARGETS) | {"confirmed"}, set(ABOUT))
        for target in TARGETS.values():
            about, _ = self.said(f"{target.key}.x" if target.named else target.key, None)
            self.assertNotIn("_", about)

    def test_every_part_of_a_value_is_said(self) -> None:
        """A defect: "main switch, tag 7" against "sub-panel 4, tag 19" was shown as "yes" against "yes"."""
        about, after = self.said(
            "hold.isolate", {"where": "main switch", "tag": "7", "checked_before": True, "checked_after": False}
        )
        self.assertIn("Hold point: ", about)
        self.assertNotIn("isolate", about)
        self.assertEqual(after, "at main switch, tag 7, instrument proved before, not instrument proved after")
        self.assertNotEqual(after, self.said("hold.isolate", {"where": "sub-panel 4", "tag": "19"})[1])
        self.assertEqual(self.said("wire.C1-3", {"tag": "12", "goes_to": "fan"})[1], "tag 12, goes to fan")
        self.assertEqual(self.said("check.x", {"ok": False, "note": "rubs"})[1], "not in order, rubs")

    def test_a_wire_put_by_hand_is_said_by_where_it_goes(self) -> None:
        for after, words in (
            ({"to": ["X.1", "X.2"], "lead": "lead B"}, "to X.1, X.2, through lead B"),
            ({"to": [], "joined": "C1.2"}, "joined with the wire of C1.2"),
            ({"to": []}, "insulated and tied back"),
        ):
            self.assertEqual(self.said("placed.C1.4", after), ("Wire of C1.4, put by hand", words))

    def test_a_bank_is_said_as_the_eye_meets_it(self) -> None:
        about, after = self.said("found.S1", "010110")
        self.assertEqual(about, "S1 as found")
        self.assertRegex(after, r"^[01]{6}: (left to right|top to bottom|place 1 first)")

    def test_what_is_not_known_by_name_is_said_as_it_is(self) -> None:
        self.assertEqual(self.said("wish.no_such", "30")[0], "Wanted: no such")
        self.assertEqual(self.said("kit.K1", 2.0)[1], "2")
        self.assertEqual(self.said("spent.parts", 1234567.25)[1], "1234567.25")
        self.assertEqual(self.said("{x", 1)[0], "{x")
        self.assertEqual(self.said("blind.W9", "0110")[1], "0110, place 1 first")
        self.assertEqual(self.said("boards_order", ["2", "1"])[1], "2, 1")
