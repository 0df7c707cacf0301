from math import log
from typing import Any

from django.test import SimpleTestCase

from tests.builders import DEMO, encoded, small_board, small_family
from twincore import profile
from twincore.make_safe import HoldPoint, Pair, fault_of, hold_points


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
    DEAD = HoldPoint(
        "d", "prove dead", "", (), ("instrument", "checked_before", "readings", "checked_after"), 2.4, "V",
        pairs=(Pair("m L-N", "L to N"), Pair("m L-PE", "L to earth")),
    )  # fmt: skip

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
        said = {
            "instrument": "tester 7",
            "checked_before": True,
            "readings": {"m L-N": 0, "m L-PE": 1.2},
            "checked_after": True,
        }
        self.assertIsNone(fault_of(self.DEAD, said, None))
        for name, code in (
            ("instrument", "missing"),
            ("checked_before", "not confirmed"),
            ("checked_after", "not confirmed"),
        ):
            fault = fault_of(self.DEAD, {**said, name: False if name != "instrument" else ""}, None)
            self.assertEqual((fault.code, fault.name) if fault else None, (code, name))
        for reading, code in (
            (231, "not below"), (50, "not below"), (48, "perhaps induced"), (24, "perhaps induced"), (2.4, "perhaps induced"),
            (None, "missing"), ("", "missing"), ("low", "no number"), (-1, "no number"), (True, "no number"),
            (float("inf"), "no number"), (float("nan"), "no number"),
        ):  # fmt: skip
            fault = fault_of(self.DEAD, {**said, "readings": {"m L-N": 0, "m L-PE": reading}}, None)
            self.assertEqual((fault.code, fault.name) if fault else None, (code, "m L-PE"), reading)
        # a defect of this very check: a reading of no pair was compared as it came, also where it was no number
        fault = fault_of(self.DEAD, {**said, "readings": {"m L-N": 0, "m L-PE": 0, "other": "x"}}, None)
        self.assertEqual((fault.code, fault.name) if fault else None, ("not asked", "other"))
        fault = fault_of(self.DEAD, {**said, "readings": None}, None)
        self.assertEqual((fault.code, fault.name) if fault else None, ("missing", "m L-N"))


class Limits(SimpleTestCase):
    """Below what a machine counts as dead."""

    def limit(self, family: dict[str, Any], volts: list[int] | None = None, dead_v: float = 3) -> float | None:
        boards = [profile.parse_board(encoded(small_board(None, supply={"volts": volts})))] if volts else []
        found = hold_points([profile.parse_family(encoded(small_family(**family)))], boards, {}, dead_v)
        return next(each.limit for each in found if each.kind == "prove dead")

    def test_a_tenth_of_the_lowest_supply_that_could_be_there_or_the_depots_own_figure(self) -> None:
        # common practice, no source
        def named(volts: float) -> dict[str, Any]:
            supply = {"id": "m", "volts": volts, "pairs": [["L", "N"]]}
            return {"hold_points": [{"id": "d", "kind": "prove dead", "supplies": [supply]}]}

        self.assertEqual(self.limit({}), 3)
        self.assertEqual(self.limit({}, dead_v=1), 1)
        self.assertEqual(self.limit(named(230)), 3)
        self.assertAlmostEqual(self.limit(named(12)) or 0, 1.2)
        self.assertAlmostEqual(self.limit(named(230), [19, 30]) or 0, 1.9)
        signals = [{"id": "s", "title": "Control supply", "kind": "supply", "volts_class": "24dc"}]
        self.assertAlmostEqual(self.limit({**named(230), "signals": signals}) or 0, 2.4)
        self.assertEqual(self.limit({"hold_points": [{"id": "d", "kind": "prove dead", "limit": 50}]}), 3)

    def test_every_supply_that_a_demo_machine_has_is_found_live_at_its_own_voltage(self) -> None:
        for path in sorted((DEMO / "families").glob("*.json")):
            family = profile.parse_family(path.read_bytes())
            for board_path in sorted((DEMO / "boards").glob("*.json")):
                board = profile.parse_board(board_path.read_bytes())
                if board.family != family.id:
                    continue
                dead = next(each for each in hold_points([family], [board], {}) if each.kind == "prove dead")
                self.assertTrue(dead.pairs, path.name)
                for volts in (5, 12, 24, 48, 230, board.document["supply"]["volts"][0]):
                    for pair in dead.pairs:
                        readings = {each.id: volts if each == pair else 0 for each in dead.pairs}
                        said = {"instrument": "t", "checked_before": True, "checked_after": True, "readings": readings}
                        self.assertIsNotNone(fault_of(dead, said, None), (path.name, board.part_number, volts))
