from dataclasses import replace
from typing import Any

from django.test import SimpleTestCase

from tests.builders import DEMO, demo_board, encoded, small_board
from twincore import profile
from twincore.profile import Hanging, hanging_of


def hung(**placed: Any) -> Hanging:
    bank = {"id": "S", "kind": "dip", "positions": 4, "factory": "0000"}
    layout = [{"ref": "S", "at": [1, 1], **placed}]
    return hanging_of(profile.parse_board(encoded(small_board(None, settings=[bank], layout=layout))), "S")


class HangingOfBanks(SimpleTestCase):
    def test_sides_are_as_seen_and_an_elements_own_where_they_cannot_be(self) -> None:
        for placed, expected in (
            ({}, Hanging()),
            ({"on_side": "bottom", "first": "right"}, Hanging("across", True, "down")),
            # turned a quarter anticlockwise: its own top comes to the left, its own left to the bottom
            ({"turn": 90}, Hanging("down", True, "left")),
            ({"turn": 90, "on_side": "top", "first": "left"}, Hanging("down", True, "left")),
            ({"turn": 90, "on_side": "right", "first": "top"}, Hanging("down", False, "right")),
            ({"turn": 270}, Hanging("down", False, "right")),
            # upside down, what is said is still as seen; what is not said turns with it
            ({"turn": 180}, Hanging("across", True, "down")),
            ({"turn": 180, "on_side": "top", "first": "left"}, Hanging("across", False, "up")),
        ):
            with self.subTest(placed):
                self.assertEqual(replace(hung(**placed), known=True), expected)

    def test_which_way_it_hangs_is_known_only_where_the_layout_says_it(self) -> None:
        """A defect: of a bank that nobody measured it was claimed that on is up."""
        for placed, known in (
            ({}, False),
            ({"first": "left"}, False),
            ({"turn": 90, "on_side": "top", "first": "left"}, True),
        ):
            self.assertEqual(hung(**placed).known, known)

    def test_without_a_layout_it_hangs_straight(self) -> None:
        bank = {"id": "S", "kind": "dip", "positions": 4, "factory": "0000"}
        board = profile.parse_board(encoded(small_board(None, settings=[bank])))
        self.assertEqual(hanging_of(board, "S"), Hanging(known=False))

    def test_what_the_eye_meets_is_what_the_hand_copies(self) -> None:
        hanging = hanging_of(demo_board("TVH-2214-A"), "SW1")
        self.assertEqual(("".join(hanging.seen("0111")), hanging.on), ("1110", "down"))
        self.assertEqual([hanging.points(mark) for mark in "01?"], ["up", "down", None])
        self.assertEqual("".join(hanging.seen(hanging.seen("0111"))), "0111")

    def test_no_board_of_the_demo_has_place_1_and_on_on_one_line(self) -> None:
        for path in sorted((DEMO / "boards").glob("*.json")):
            board = profile.parse_board(path.read_bytes())
            for placed in board.document.get("layout", ()):
                sides = {placed.get("on_side", "top"), placed.get("first", "left")}
                self.assertNotIn(sides, ({"left"}, {"left", "right"}, {"top"}, {"top", "bottom"}), (path.name, placed))
