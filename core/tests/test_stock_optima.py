"""Plans of van stock against published optima and a second solver."""

from itertools import product
from random import Random
from unittest import TestCase

from ortools.sat.python import cp_model

from twincore.stock import Kind, Piece, Van, Wanted, plan

RARE = 1e-5
"""So few failures that a second at the same visit counts for nothing: what is left is to cover as many as possible."""
MINUTE = 60.0
"""Longer than any of these takes, also on a busy machine."""
FANO = ("124", "235", "346", "457", "561", "672", "713")
"""The lines of the Fano plane over its seven points."""


def covering(lines: dict[str, set[str]], weights: dict[str, int], limit: float, costs: dict[str, int]) -> Wanted:
    """Elements to be covered by lines of so much cost in all."""
    kinds = [
        Kind(each, "van", RARE * weight, {line: 1.0 for line, points in lines.items() if each in points})
        for each, weight in weights.items()
    ]
    return Wanted(kinds, [Piece(line, costs[line], most=1) for line in lines], [Van("van", limit)])


def covered(lines: dict[str, set[str]], limit: int) -> int:
    """How many elements so many lines cover at best."""
    points = set().union(*lines.values())
    found = plan(covering(lines, dict.fromkeys(sorted(points), 1), limit, dict.fromkeys(lines, 1)), 1e-3, MINUTE)
    assert found.gap <= 1e-3
    return round(found.served / RARE)


KNAPSACKS = (
    (165, (23, 31, 29, 44, 53, 38, 63, 85, 89, 82), (92, 57, 49, 68, 60, 43, 67, 84, 87, 72), 309),
    (26, (12, 7, 11, 8, 9), (24, 13, 23, 15, 16), 51),
    (190, (56, 59, 80, 64, 75, 17), (50, 50, 64, 46, 50, 5), 150),
    (50, (31, 10, 20, 19, 4, 3, 6), (70, 20, 39, 37, 7, 5, 10), 107),
    (104, (25, 35, 45, 5, 25, 3, 2, 2), (350, 400, 450, 20, 70, 8, 5, 5), 900),
    (170, (41, 50, 49, 59, 55, 57, 60), (442, 525, 511, 593, 546, 564, 617), 1735),
    (750, (70, 73, 77, 80, 82, 87, 90, 94, 98, 106, 110, 113, 115, 118, 120),
     (135, 139, 149, 150, 156, 163, 173, 184, 192, 201, 210, 214, 221, 229, 240), 1458),
)  # fmt: skip
"""Room, sizes, values and the best value (D. L. Kreher and D. R. Stinson, Combinatorial Algorithms 1999, and the collection P01
to P07 of such problems; from memory).
"""


class KnownOptima(TestCase):
    def test_knapsacks(self) -> None:
        for room, sizes, values, best in KNAPSACKS:
            things = {f"t{number}": {f"t{number}"} for number in range(len(sizes))}
            costs, worth = dict(zip(things, sizes, strict=True)), dict(zip(things, values, strict=True))
            found = plan(covering(things, worth, room, costs), 1e-4, MINUTE)
            with self.subTest(room=room):
                self.assertAlmostEqual(found.served / RARE, best, delta=0.005 * best)
                self.assertEqual(sum(worth[each] for each in found.counts["van"]), best)

    def test_lines_of_the_fano_plane(self) -> None:
        """Any two lines meet in one point: one covers 3 points, two 5, three through one point all 7 (by counting)."""
        lines = {line: set(line) for line in FANO}
        self.assertEqual([covered(lines, count) for count in (1, 2, 3)], [3, 5, 7])

    def test_points_that_meet_every_line_of_the_affine_plane_of_order_three(self) -> None:
        """2q - 1 = 5 points, and no fewer, meet all 12 lines of AG(2, 3) (R. E. Jamison 1977; A. E. Brouwer and
        A. Schrijver 1978).
        """
        points = list(product(range(3), repeat=2))
        meets = {str(point): set[str]() for point in points}
        for slope in (*range(3), None):
            for start in range(3):
                for x, y in points:
                    if (x == start) if slope is None else ((y - slope * x - start) % 3 == 0):
                        meets[str((x, y))].add(f"{slope} {start}")
        self.assertEqual((covered(meets, 4), covered(meets, 5)), (11, 12))

    def test_queens_that_cover_a_board(self) -> None:
        """Three queens cover boards of 5 and 6 squares a side (OEIS A075458), and two do not."""
        for side, least in ((5, 3), (6, 3)):
            squares = list(product(range(side), repeat=2))
            sees = {
                str((x, y)): {
                    str((a, b)) for a, b in squares if a == x or b == y or abs(a - x) == abs(b - y)
                }
                for x, y in squares
            }  # fmt: skip
            with self.subTest(side=side):
                self.assertEqual(covered(sees, least), side * side)
                self.assertLess(covered(sees, least - 1), side * side)

    def test_a_second_solver_finds_the_same_cover(self) -> None:
        for seed in range(12):
            chance = Random(seed)
            points = {f"p{index}": chance.randint(1, 9) for index in range(25)}
            lines = {f"l{index}": {each for each in points if chance.random() < 0.2} for index in range(18)}
            costs = {line: chance.randint(2, 7) for line in lines}
            with self.subTest(seed=seed):
                found = plan(covering(lines, points, 14, costs), 1e-3, MINUTE)
                self.assertEqual(round(found.served / RARE), best_cover(lines, points, 14, costs))


def best_cover(lines: dict[str, set[str]], weights: dict[str, int], limit: int, costs: dict[str, int]) -> int:
    """The weight that lines within a limit cover at best, by CP-SAT."""
    model = cp_model.CpModel()
    taken = {line: model.new_bool_var(line) for line in lines}
    reached = {each: model.new_bool_var(each) for each in weights}
    for each, here in reached.items():
        model.add(here <= sum(taken[line] for line, points in lines.items() if each in points))
    model.add(sum(costs[line] * here for line, here in taken.items()) <= limit)
    model.maximize(sum(weights[each] * here for each, here in reached.items()))
    solver = cp_model.CpSolver()
    assert solver.solve(model) == cp_model.OPTIMAL
    return round(solver.objective_value)
