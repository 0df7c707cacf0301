"""Readings against published values; each source stands beside its check."""

from math import inf

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from twincore import measure
from twincore.measure import Band, Side


class Judging(SimpleTestCase):
    def test_the_uncertainty_decides_between_inside_outside_and_cannot_tell(self) -> None:
        band = Band(207, 253)
        for value, verdict, side in ((230, "inside", ""), (209, "cannot tell", ""), (205, "cannot tell", ""),
                                     (203, "outside", "below"), (257, "outside", "above")):  # fmt: skip
            judged = measure.judge(value, band, 3)
            self.assertEqual((judged.verdict, judged.side), (verdict, side), value)
        self.assertEqual(measure.judge(203, band, 3).margin, -4)
        self.assertIsNone(measure.judge(1, Band()).margin)

    @given(
        st.sampled_from(("above", "below")), st.one_of(st.none(), st.integers(0, 12)), st.integers(0, 10),
        st.one_of(st.none(), st.integers(0, 10)),
    )  # fmt: skip
    def test_beyond_a_limit_the_verdict_is_what_every_value_there_says(
        self, side: Side, limit: int | None, low: int, width: int | None
    ) -> None:
        band = Band(low, inf if width is None else low + width)
        quarters = [each / 4 for each in range(4 * 40)]
        # above no limit: more than any end of a band that a person can measure
        if side == "above":
            said = {
                band.low <= each <= band.high
                for each in (quarters if limit is not None else [1e12])
                if each > (limit or 0)
            }
        else:
            said = {band.low <= each <= band.high for each in quarters if each < (limit or 0)} or {band.low <= 0}
        judged = measure.judge_beyond(side, limit, band)
        expected = "inside" if said == {True} else "outside" if said == {False} else "cannot tell"
        self.assertEqual(judged.verdict, expected)
        if expected == "outside":
            self.assertEqual(judged.side, side)

    def test_what_a_meter_shows_that_is_no_number_is_said_so(self) -> None:
        told = [
            measure.reading_words(*each, "Ω")
            for each in ((0.4, None), (2000.0, "above"), (1.0, "below"), (None, "above"))
        ]
        self.assertEqual(told, ["0.4 Ω", "more than 2000 Ω", "less than 1 Ω", "more than the meter reads (OL)"])

    @given(st.integers(-20, 20), st.integers(-20, 20), st.integers(0, 20), st.integers(0, 10))
    def test_the_verdict_is_what_every_value_that_the_reading_may_stand_for_says(
        self, value: int, low: int, width: int, uncertainty: int
    ) -> None:
        band = Band(low, low + width)
        # half steps, so that what lies between two whole numbers counts as well
        said = {band.low <= value + step / 2 <= band.high for step in range(-2 * uncertainty, 2 * uncertainty + 1)}
        judged = measure.judge(value, band, uncertainty)
        expected = "inside" if said == {True} else "outside" if said == {False} else "cannot tell"
        self.assertEqual(judged.verdict, expected)

    def test_bands_and_uncertainties_that_make_no_sense_are_refused(self) -> None:
        with self.assertRaises(ValueError):
            Band(2, 1)
        with self.assertRaises(ValueError):
            measure.judge(1, Band(0, 2), -1)


class Sensors(SimpleTestCase):
    def test_steinhart_hart(self) -> None:
        # A widely printed set for a 10 kΩ sensor: coefficients and values from memory
        curve = measure.steinhart_hart_curve(1.129241e-3, 2.341077e-4, 8.775468e-8)
        for t, ohm in ((0, 32_650), (25, 10_000), (50, 3_601), (100, 678.4)):
            self.assertAlmostEqual(curve.resistance_ohm(t) / ohm, 1, places=3)
            self.assertAlmostEqual(curve.temperature_c(curve.resistance_ohm(t)), t, places=4)

    def test_beta(self) -> None:
        # 3950 K, 10 kΩ at 25 °C, worked by hand from the definition in IEC 60539-1
        curve = measure.beta_curve(10_000, 3950)
        for t, ohm in ((0, 33_621), (25, 10_000), (50, 3_588)):
            self.assertAlmostEqual(curve.resistance_ohm(t) / ohm, 1, delta=1e-4)

    def test_platinum(self) -> None:
        # IEC 60751, table of Pt100
        curve = measure.platinum_curve()
        for t, ohm in ((-50, 80.306), (0, 100), (50, 119.397), (100, 138.506), (200, 175.856)):
            self.assertAlmostEqual(curve.resistance_ohm(t), ohm, delta=0.0006)  # printed with three decimals
        self.assertAlmostEqual(measure.platinum_curve(1000).resistance_ohm(100), 1385.06, delta=0.006)
        # IEC 60751, tolerance classes
        self.assertAlmostEqual(measure.platinum_tolerance_c(-100, "A"), 0.35)
        self.assertAlmostEqual(measure.platinum_tolerance_c(100, "B"), 0.8)

    def test_a_table_gives_its_own_lines_and_lies_between_them_elsewhere(self) -> None:
        curve = measure.table_curve([(25, 10_000), (0, 32_650), (50, 3_601)])
        self.assertAlmostEqual(curve.resistance_ohm(25), 10_000)
        self.assertTrue(3_601 < curve.resistance_ohm(40) < 10_000)
        with self.assertRaises(ValueError):
            curve.temperature_c(50_000)
        with self.assertRaises(ValueError):
            measure.table_curve([(1, 2)])

    def test_the_band_at_a_temperature_grows_with_what_is_not_known(self) -> None:
        curve = measure.beta_curve(10_000, 3950)
        band = curve.band_at(25, 2, 0.01)
        self.assertAlmostEqual(band.low, curve.resistance_ohm(27) * 0.99)
        self.assertAlmostEqual(band.high, curve.resistance_ohm(23) * 1.01)
        with self.assertRaises(ValueError):
            curve.band_at(300, 1)


class SupplyAndWire(SimpleTestCase):
    def test_supply_bands(self) -> None:
        # IEC 60038; ANSI C84.1 range A service
        self.assertEqual(measure.supply_band(230), Band(207, 253))
        self.assertEqual(measure.supply_band(120), Band(114, 126))
        self.assertEqual(measure.supply_band(240), Band(228, 252))
        with self.assertRaises(ValueError):
            measure.supply_band(17)
        # 24 V, 0.85 to 1.10 times: common practice, no source
        control = measure.control_band()
        self.assertAlmostEqual(control.low, 20.4)
        self.assertAlmostEqual(control.high, 26.4)
        self.assertTrue(measure.is_class_2(30, 100))  # NEC article 725
        self.assertFalse(measure.is_class_2(24, 101))

    def test_a_wire_is_judged_by_what_it_carries_and_by_how_far(self) -> None:
        told = {
            # 12 A on 1.5 mm² over 4 m: 12 × 2 × 0.004 km × 13.3 Ω/km = 1.28 V of 230 V
            (12, 1.5, None, 4, 230): ("thick enough", 1.28), (12, 1.0, None, 4, 230): ("too thin", 1.87),
            # 0.5 A on 18 AWG over 100 ft each way: 0.777 V, more than 5 % of 12 V and less than 5 % of 24 V
            (0.5, None, 18, 30.48, 12): ("too long", 0.78), (0.5, None, 18, 30.48, 24): ("thick enough", 0.78),
            (8, None, 18, None, 230): ("too thin", None), (1, 0.14, None, None, None): ("not known", None),
        }  # fmt: skip
        for given_, expected in told.items():
            judged = measure.judge_wire(*given_)
            self.assertEqual((judged.verdict, judged.drop_v and round(judged.drop_v, 2)), expected, given_)

    def test_wire(self) -> None:
        # ASTM B258, 18 AWG
        self.assertAlmostEqual(measure.gauge_diameter_mm(18), 1.024, places=3)
        self.assertAlmostEqual(measure.gauge_area_mm2(18), 0.823, places=3)
        # NEC chapter 9 table 8: 24 V, 18 AWG, 100 ft each way, 0.5 A
        self.assertAlmostEqual(measure.voltage_drop_v(0.5, 30.48, measure.gauge_ohm_per_km(18)), 0.777, places=3)
        # IEC 60228 class 5
        self.assertEqual([measure.area_ohm_per_km(a) for a in (0.5, 0.75, 1, 1.5, 2.5)], [39.0, 26.0, 19.5, 13.3, 7.98])
        # IEC 60204-1 table 6, method B1 (from memory); NEC 240.4(D) (from memory)
        self.assertEqual([measure.ampacity_a(a) for a in (0.75, 1, 1.5, 2.5, 4)], [8.6, 10.3, 13.5, 18.3, 24])
        self.assertEqual([measure.gauge_ampacity_a(g) for g in (18, 16, 14, 12, 10)], [7, 10, 15, 20, 30])
        # a size between two of the table counts as the smaller one; 16 AWG is 1.31 mm²
        self.assertEqual(measure.ampacity_a(measure.gauge_area_mm2(16)), 10.3)
        for call in (
            lambda: measure.ampacity_a(0.5),
            lambda: measure.gauge_ampacity_a(20),
            lambda: measure.gauge_ohm_per_km(3),
            lambda: measure.area_ohm_per_km(7),
        ):
            with self.assertRaises(ValueError):
                call()


class StoredEnergy(SimpleTestCase):
    def test_the_wait_is_the_longer_of_computed_and_makers(self) -> None:
        # t = RC ln(V0/V); 470 µF, 325.27 V, 100 kΩ worked by hand; IEC 60204-1, 6.2.4
        self.assertAlmostEqual(measure.discharge_s(470, 325.27, 100), 79.4, places=1)
        self.assertAlmostEqual(measure.largest_bleed_kohm(470, 325.27), 6.29, places=2)
        self.assertEqual(measure.stored_energy(470, 325.27, 100, 300).wait_s, 300)
        self.assertAlmostEqual(measure.stored_energy(470, 325.27, 100, 60).wait_s, 79.4, places=1)
        self.assertEqual(measure.stored_energy(470, 325.27, None).wait_s, 600)  # common practice, no source
        self.assertAlmostEqual(measure.stored_energy(470, 325.27, 100).energy_j, 24.86, places=2)
        self.assertTrue(measure.stored_energy(0.18, 325, 1000).exempt)
        self.assertEqual(measure.discharge_s(470, 50, 100), 0)


class BusAndContacts(SimpleTestCase):
    def test_terminators(self) -> None:
        # ISO 11898-2: 120 Ω at each end
        for ohm, count in ((25_000, 0), (120, 1), (60, 2), (40, 3)):
            self.assertEqual(measure.count_terminators(ohm).terminators, count)
        self.assertEqual(measure.count_terminators(60, 1).judgement.verdict, "inside")
        self.assertEqual(measure.count_terminators(120, 1).judgement.side, "above")
        self.assertIsNone(measure.count_terminators(85).terminators)

    def test_contact_ratings(self) -> None:
        # IEC 60947-5-1 table A.1 / UL 508, from memory
        b300 = measure.designated_rating("B300", 240)
        self.assertEqual((b300.thermal_a, b300.make_a, b300.break_a), (5, 15, 1.5))
        a600 = measure.designated_rating("A600", 120)
        self.assertEqual((a600.thermal_a, a600.make_a, a600.break_a), (10, 60, 6))
        self.assertEqual(measure.designated_rating("A600", 24).make_a, 60)
        self.assertAlmostEqual(measure.designated_rating("R300", 250).break_a, 0.112)
        for designation, volts in (("B300", 400), ("X300", 24), ("B", 24)):
            with self.assertRaises(ValueError):
                measure.designated_rating(designation, volts)

    def test_ohms_law(self) -> None:
        self.assertEqual(measure.resistance_ohm(12, 0.5), 24)
        self.assertAlmostEqual(measure.heater_ohm(230, 1000), 52.9)
        with self.assertRaises(ValueError):
            measure.resistance_ohm(1, 0)
        with self.assertRaises(ValueError):
            measure.heater_ohm(1, 0)
        self.assertEqual(measure.judge(0.4, measure.closed_band(), 0.2).verdict, "inside")
        self.assertEqual(measure.judge(0.2, measure.insulation_band(), 0.05).side, "below")
