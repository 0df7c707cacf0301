"""The measures of a kit's steps: what lies on the edge of what is right is right."""

from decimal import Decimal
from fractions import Fraction
from itertools import product
from unittest import TestCase

from twincore.job.shared.kit_steps import KitMeasure


class Measures(TestCase):
    def test_the_edges_are_inside_and_a_tenth_beyond_them_is_not(self) -> None:
        for wanted, room in product(range(1, 500), (1, 2, 3, 7)):
            measure = KitMeasure(Fraction(wanted, 10), Fraction(room, 10), Fraction(room, 10), "")
            for measured, inside in (
                (wanted - room - 1, False), (wanted - room, True), (wanted, True), (wanted + room, True), (wanted + room + 1, False),
            ):  # fmt: skip
                # as it comes in: a float, of the decimals that were written
                self.assertEqual(measure.holds(float(Decimal(measured) / 10)), inside, (wanted, room, measured))

    def test_is_told_with_its_room_and_from_where(self) -> None:
        measure = KitMeasure(Fraction(425, 10), Fraction(1, 2), Fraction(2), "the lower hole")
        self.assertEqual(measure.words, "42.5 mm (42 to 44.5) from the lower hole")
        self.assertEqual(KitMeasure(Fraction(8), Fraction(0), Fraction(0), "").words, "8 mm")
