"""Zones against brute force: the same sets of ages as lists of points on a grid of half units."""

from itertools import product
from random import Random

from django.test import SimpleTestCase

from twincore.behaviour import zone as z

CLOCKS, LARGEST = 2, 6
SIZE = CLOCKS + 1
GRID = [n / 2 for n in range(2 * LARGEST + 1)]
Point = tuple[float, ...]


def holds(zone: z.Zone, size: int, point: Point) -> bool:
    ages = (0.0, *point)
    for i in range(size):
        for j in range(size):
            bound = zone[i * size + j]
            if bound < z.OPEN:
                gap, limit = ages[i] - ages[j], bound >> 1
                if gap > limit or (gap == limit and not bound & 1):
                    return False
    return True


def points(zone: z.Zone) -> set[Point]:
    return {point for point in product(GRID, repeat=CLOCKS) if holds(zone, SIZE, point)}


def anywhere() -> z.Zone:
    cells = [z.OPEN] * (SIZE * SIZE)
    for i in range(SIZE):
        cells[i * SIZE + i] = z.ZERO
        cells[i] = z.ZERO
    return tuple(cells)


class Zones(SimpleTestCase):
    def random_zone(self, rng: Random) -> tuple[z.Zone | None, set[Point]]:
        """A zone from random bounds, with the points that keep every bound."""
        zone: z.Zone | None = anywhere()
        kept = points(anywhere())
        for _ in range(rng.randrange(1, 6)):
            i, j = rng.sample(range(SIZE), 2)
            limit, strict = rng.randrange(-4, 5), rng.random() < 0.5
            bound = z.below(limit) if strict else z.at_most(limit)
            zone = zone and z.constrain(zone, SIZE, i, j, bound)
            ages = {point: (0.0, *point) for point in kept}
            kept = {p for p, a in ages.items() if (a[i] - a[j] < limit if strict else a[i] - a[j] <= limit)}
        return zone, kept

    def test_constraining_keeps_exactly_the_points_that_hold(self) -> None:
        for seed in range(400):
            zone, kept = self.random_zone(Random(seed))
            if zone is None:
                self.assertEqual(kept, set(), seed)
            else:
                self.assertEqual(points(zone), kept, seed)

    def test_bounds_are_closed(self) -> None:
        for seed in range(200):
            zone, _ = self.random_zone(Random(seed))
            if zone is not None:
                self.assertEqual(zone, z.close(list(zone), SIZE), seed)

    def test_waiting_adds_the_same_to_every_age(self) -> None:
        for seed in range(200):
            zone, kept = self.random_zone(Random(seed))
            if zone is None or not kept:
                continue
            later = {tuple(age + d for age in p) for p in kept for d in GRID}
            waited = points(z.elapse(zone, SIZE))
            self.assertLessEqual({p for p in later if max(p) <= LARGEST}, waited, seed)

    def test_what_stands_still_waits_unchanged_and_nothing_that_can_be_is_lost(self) -> None:
        for seed in range(200):
            zone, kept = self.random_zone(Random(seed))
            if zone is None or not kept:
                continue
            waited = points(z.elapse(zone, SIZE, still=1 << 2))
            later = {(p[0] + d, p[1]) for p in kept for d in GRID}
            self.assertLessEqual({p for p in later if max(p) <= LARGEST}, waited, seed)
            self.assertEqual(
                z.project(z.elapse(zone, SIZE, still=1 << 2), SIZE, (2,)), z.project(zone, SIZE, (2,)), seed
            )
            self.assertEqual(z.elapse(zone, SIZE, still=0b110), zone, seed)

    def test_a_clock_kept_twice_has_the_same_age(self) -> None:
        for seed in range(100):
            zone, kept = self.random_zone(Random(seed))
            if zone is None:
                continue
            twice = z.project(zone, SIZE, (1, 1, 2))
            for p in kept:
                self.assertTrue(holds(twice, SIZE + 1, (p[0], p[0], p[1])), seed)
            self.assertFalse(holds(twice, SIZE + 1, (1.0, 0.5, 0.0)), seed)

    def test_what_is_said_of_a_whole_zone_holds_at_every_point(self) -> None:
        for seed in range(300):
            zone, kept = self.random_zone(Random(seed))
            if zone is None:
                continue
            for c in range(4):
                if z.always_at_least(zone, SIZE, 1, c):
                    self.assertTrue(all(p[0] >= c for p in kept), seed)
                if z.always_below(zone, SIZE, 1, c):
                    self.assertTrue(all(p[0] < c for p in kept), seed)

    def test_projecting_and_adding_a_fresh_clock(self) -> None:
        for seed in range(200):
            zone, kept = self.random_zone(Random(seed))
            if zone is None:
                continue
            projected = z.project(zone, SIZE, (2, 0))
            for p in kept:
                self.assertTrue(holds(projected, SIZE, (p[1], 0.0)), seed)
            self.assertFalse(holds(projected, SIZE, (1.0, 0.5)), seed)

    def test_widening_only_ever_adds_and_only_past_the_thresholds(self) -> None:
        for seed in range(300):
            zone, kept = self.random_zone(Random(seed))
            if zone is None:
                continue
            limits = [0, 2, 3]
            wide = points(z.widen(zone, SIZE, limits))
            self.assertLessEqual(kept, wide, seed)
            near = {p for p in wide - kept if p[0] <= limits[1] and p[1] <= limits[2]}
            self.assertEqual(near, set(), seed)

    def test_inside(self) -> None:
        for seed in range(200):
            rng = Random(seed)
            one, one_points = self.random_zone(rng)
            other, other_points = self.random_zone(rng)
            if one is not None and other is not None and z.inside(one, other):
                self.assertLessEqual(one_points, other_points, seed)
