from math import hypot

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from twincore.choose import Hole, Plate, best_mounting, slack_mm

WHOLE = st.integers(1, 12)
HOLES = st.lists(st.tuples(WHOLE, WHOLE), min_size=1, max_size=4, unique=True)


def plate(holes: list[tuple[float, float]], size: tuple[float, float] = (100, 60), diameter: float = 4.3) -> Plate:
    return Plate(size, 30, tuple(Hole(at, diameter) for at in holes))


class Mounting(SimpleTestCase):
    def test_the_same_board_serves_every_hole(self) -> None:
        one = plate([(5, 5), (95, 5), (95, 55), (5, 55)])
        found = best_mounting(one, one)
        self.assertEqual((found.turn, found.shift_mm, len(found.pairs), found.new_holes), (0, (0, 0), 4, ()))
        self.assertFalse(found.fouls)

    def test_a_turned_and_shifted_board_is_found_with_its_new_holes_from_two_edges(self) -> None:
        original = plate([(5, 5), (95, 5), (95, 55)])
        replacement = plate([(3, 7), (3, 97), (53, 7), (30, 50)], (60, 104))
        found = best_mounting(original, replacement)
        self.assertEqual((len(found.pairs), found.turn, found.shift_mm), (3, 90, (-2, 2)))
        self.assertEqual([(h.from_left_mm, h.from_bottom_mm) for h in found.new_holes], [(52, 32)])
        self.assertTrue(found.fouls)

    def test_holes_within_their_slack_coincide(self) -> None:
        # ISO 273 fine series: a 5.3 mm hole takes M5, a 4.3 mm hole M4 (from memory)
        self.assertAlmostEqual(slack_mm(Hole((0, 0), 4.3), Hole((0, 0), 4.3)), 0.3)
        self.assertAlmostEqual(slack_mm(Hole((0, 0), 4.3), Hole((0, 0), 5.3)), 0.8)
        # an M6 screw in 12 mm holes: 6 mm of slack
        loose = [plate([(20, 20), (60, 20)], diameter=12), plate([(20, 20), (65, 20)], diameter=12)]
        self.assertEqual(len(best_mounting(*loose).pairs), 2)
        near = best_mounting(plate([(5, 5), (95, 5)]), plate([(5, 5), (95.5, 5)]))
        far = best_mounting(plate([(5, 5), (95, 5)]), plate([(5, 5), (95.7, 5)]))
        self.assertEqual((len(near.pairs), len(far.pairs)), (2, 1))

    @settings(max_examples=25)
    @given(HOLES, HOLES)
    def test_no_shift_of_a_fine_grid_does_better(self, mine: list[tuple[int, int]], its: list[tuple[int, int]]) -> None:
        # brute force over a grid of a quarter of the slack, without turning
        original = plate([(8.0 * x, 8.0 * y) for x, y in mine])
        replacement = plate([(8.0 * x, 8.0 * y) for x, y in its])
        slack = slack_mm(original.holes[0], replacement.holes[0])
        best = 0
        for a in original.holes:
            for b in replacement.holes:
                for dx in (-slack / 2, 0, slack / 2):
                    for dy in (-slack / 2, 0, slack / 2):
                        shift = (a.at[0] - b.at[0] + dx, a.at[1] - b.at[1] + dy)
                        best = max(best, sum(
                            any(hypot(q.at[0] + shift[0] - p.at[0], q.at[1] + shift[1] - p.at[1]) <= slack for q in replacement.holes)
                            for p in original.holes
                        ))  # fmt: skip
        self.assertGreaterEqual(len(best_mounting(original, replacement).pairs), best)
