from math import log
from typing import Any

from django.test import SimpleTestCase

from tests.builders import encoded, small_board, small_family
from twincore import profile
from twincore.make_safe import HoldPoint, fault_of, hold_points


def points(family: dict[str, Any], *boards: dict[str, Any], **facts: Any) -> list[HoldPoint]:
    built = [profile.parse_board(encoded(small_board(None, stored_energy=each))) for each in boards]
    return hold_points([profile.parse_family(encoded(small_family(**family)))], built, facts)


class Points(SimpleTestCase):
    def test_what_boards_store_adds_a_wait_the_longer_of_computed_and_the_makers(self) -> None:
        self.assertEqual([each.kind for each in points({})], ["isolate", "prove dead", "static"])
        # t = R·C·ln(V0/V): 470 µF, 325.27 V, 100 kΩ to 60 V is 79.4 s (worked by hand)
        with_board = points({}, {"capacitance_uf": 470, "volts": 325.27, "bleed_kohm": 100})
        self.assertEqual([each.kind for each in with_board], ["isolate", "prove dead", "stored energy", "static"])
        self.assertAlmostEqual(with_board[2].wait_s, 79.4, places=1)
        self.assertAlmostEqual(with_board[2].wait_s, 470e-6 * 100e3 * log(325.27 / 60), places=6)
        longer = points({}, {"capacitance_uf": 470, "volts": 325.27, "bleed_kohm": 100, "wait_s": 300}, {"wait_s": 5})
        self.assertEqual(longer[2].wait_s, 300)
        self.assertEqual(points({}, {"capacitance_uf": 470, "volts": 325})[2].wait_s, 600)

    def test_a_family_names_its_own_and_facts_leave_out_only_what_does_not_apply(self) -> None:
        own = {"hold_points": [{"id": "i", "kind": "isolate", "say": ["Main switch"]},
                               {"id": "g", "kind": "gas", "if": {"fuel": "gas"}}]}  # fmt: skip
        self.assertEqual([each.id for each in points(own)], ["i", "g"])
        self.assertEqual([each.id for each in points(own, fuel="gas")], ["i", "g"])
        self.assertEqual([each.id for each in points(own, fuel="oil")], ["i"])
        self.assertEqual(points(own)[0].say, ("Main switch",))


class Holding(SimpleTestCase):
    STORED = HoldPoint("s", "stored energy", "", (), ("reading",), 60, "V", wait_s=80)
    DEAD = HoldPoint("d", "prove dead", "", (), ("instrument", "checked_before", "reading", "checked_after"), 50, "V")

    def test_only_a_reading_below_the_limit_after_the_wait_ends_it(self) -> None:
        for said, since, code in (
            ({"reading": 12}, 79.0, "too early"), ({"reading": 12}, None, "too early"), ({}, 1000.0, "missing"),
            ({"reading": 60}, 81.0, "not below"), ({"reading": "low"}, 81.0, "no number"),
            ({"reading": -3}, 81.0, "no number"), ({"reading": True}, 81.0, "no number"),
        ):  # fmt: skip
            fault = fault_of(self.STORED, said, since)
            self.assertEqual(fault.code if fault else None, code, (said, since))
        self.assertIsNone(fault_of(self.STORED, {"reading": 59.9}, 80.0))
        early = fault_of(self.STORED, {"reading": 12}, 30.0)
        self.assertEqual(early.left_s if early else None, 50.0)

    def test_proving_dead_needs_an_instrument_checked_before_and_after(self) -> None:
        said = {"instrument": "tester 7", "checked_before": True, "reading": 0, "checked_after": True}
        self.assertIsNone(fault_of(self.DEAD, said, None))
        for name, code in (
            ("instrument", "missing"),
            ("checked_before", "not confirmed"),
            ("checked_after", "not confirmed"),
        ):
            fault = fault_of(self.DEAD, {**said, name: False if name != "instrument" else ""}, None)
            self.assertEqual((fault.code, fault.name) if fault else None, (code, name))
        fault = fault_of(self.DEAD, {**said, "reading": 231}, None)
        self.assertEqual(fault.code if fault else None, "not below")
