"""Criteria of the fit, each by itself on the demo world; minutes and verdicts are the product's own rules."""

from dataclasses import replace
from fractions import Fraction
from typing import Any

from django.test import SimpleTestCase

from tests.builders import DEMO, demo_board
from twincore import choose, profile
from twincore.choose import AdapterLead, Context, Fitting, Machine, Statement, Way
from twincore.choose.criteria import BY_ID
from twincore.choose.ways import Link
from twincore.profile import factory_record


def fitting(part_number: str) -> Fitting:
    return choose.fitting_of(demo_board(part_number.replace("/", "_").replace(" ", "_")).document)


def codes(cell: choose.Judged) -> list[tuple[str, str]]:
    return [(each.code, each.verdict) for each in cell.reasons]


class Criteria(SimpleTestCase):
    def judge(
        self, criterion: str, original: Fitting, candidate: Fitting, facts: dict[str, Any], **more: Any
    ) -> choose.Judged:
        """The verdict of one criterion by itself."""
        family = more.pop("family", self.family)
        return BY_ID[criterion].judge(Context(original, candidate, family, facts, **more))

    def listed(self, way: Way | None, facts: dict[str, Any], elsewhere: tuple[Statement, ...] = ()) -> choose.Judged:
        return self.judge("listing", self.original, self.original, facts, way=way, elsewhere=elsewhere)

    def setUp(self) -> None:
        self.family = profile.parse_family((DEMO / "families/deck-oven.family.json").read_bytes())
        self.original = fitting("TVH-2210-B")

    def way(self, **more: Any) -> Way:
        statement = Statement("s", ("A",), ("B",), "supersedes", **{"source": "leaflet", **more})
        return Way("B", (Link("A", "B", statement),), (), statement.mean)

    def test_listing(self) -> None:
        self.assertEqual(codes(self.listed(None, {})), [("not listed", "to check")])
        self.assertEqual(codes(self.listed(self.way(), {})), [("listed", "fits")])
        self.assertEqual(self.listed(self.way(needs=("lead",)), {}).verdict, "with work")
        self.assertIn(("no source", "fits"), codes(self.listed(self.way(source=""), {})))

    def test_a_condition_that_fails_is_told_and_not_hidden_behind_nobody_lists_it(self) -> None:
        elsewhere = Statement(
            "s", ("A",), ("B",), "supersedes", conditions={"made": {"from": 2012}, "fuel": "gas"}, source="l"
        )
        cell = self.listed(None, {"made": 1999, "fuel": "gas"}, (elsewhere,))
        self.assertEqual(codes(cell), [("listed elsewhere", "to check")])
        self.assertEqual(cell.reasons[0].data["failed"], [{"fact": "made", "wanted": {"from": 2012}, "value": 1999}])

    def test_an_adapter_lead_at_hand_serves_a_plug_that_has_no_place(self) -> None:
        old = fitting("UMC 40-118")
        power = [pin for pin in old.pins or () if pin.connector == "C1"]
        new = fitting("OFN-P1")
        its = {pin.signal: pin for pin in new.pins or ()}
        to = {pin.pin: (str(its[pin.signal].style), its[pin.signal].pin) for pin in power}
        lead = AdapterLead("Power lead", 14, str(power[0].style), 1, to)
        short = replace(lead, title="Short lead", price=3, to={name: end for name, end in to.items() if name != "1"})
        without = self.judge("connectors", old, new, {})
        cell = self.judge("connectors", old, new, {}, adapters=[short, lead])
        told = {each.data["connector"]: (each.code, each.data.get("lead")) for each in cell.reasons}
        self.assertEqual(told["C1"], ("adapter lead", "Power lead"))
        self.assertLess(cell.minutes, without.minutes)

    def test_supply_by_profile_and_by_reading(self) -> None:
        export = fitting("TVH-2210-X")
        self.assertEqual(self.judge("supply", self.original, export, {}).verdict, "no")
        self.assertEqual(self.judge("supply", self.original, export, {"supply.volts": 24}).verdict, "fits")
        self.assertEqual(self.judge("supply", self.original, fitting("OFN-U3"), {"supply.volts": 260}).verdict, "no")

    def test_what_the_machine_must_be_is_a_question_until_it_is_known(self) -> None:
        short = fitting("TVH-2216-A")
        asked = self.judge("machine", self.original, short, {})
        self.assertEqual(
            (asked.verdict, [q.fact for q in asked.questions]), ("to check", ["burner.stages", "fan.volts"])
        )
        self.assertEqual(
            self.judge("machine", self.original, short, {"burner.stages": 1, "fan.volts": 230}).verdict, "fits"
        )
        self.assertEqual(
            self.judge("machine", self.original, short, {"burner.stages": 2, "fan.volts": 230}).verdict, "no"
        )

    def test_surroundings_by_reading_by_what_the_original_stood_or_to_be_found_out(self) -> None:
        def stands(**bands: tuple[float, float]) -> Fitting:
            return replace(self.original, surroundings=bands)

        old, wide, narrow = (
            stands(temperature_c=(0, 60)),
            stands(temperature_c=(-10, 70)),
            stands(temperature_c=(0, 50)),
        )

        def judge(original: Fitting, candidate: Fitting, facts: dict[str, Any]) -> choose.Judged:
            return self.judge("surroundings", original, candidate, facts)

        self.assertEqual(codes(judge(stands(), stands(), {})), [("surroundings not said", "to check")])
        self.assertEqual(codes(judge(old, stands(), {})), [("surroundings unknown", "to check")])
        self.assertEqual(codes(judge(old, wide, {})), [("surroundings covered", "fits")])
        asked = judge(old, narrow, {})
        self.assertEqual(
            (asked.verdict, [(q.fact, q.wanted, q.unit) for q in asked.questions]),
            ("to check", [("surroundings.coldest_c", {"from": 0, "to": 50}, "°C"),
                          ("surroundings.hottest_c", {"from": 0, "to": 50}, "°C")]),
        )  # fmt: skip
        known = {"surroundings.coldest_c": 5, "surroundings.hottest_c": 48}
        self.assertEqual(judge(old, narrow, known).verdict, "fits")
        self.assertEqual(judge(old, narrow, {**known, "surroundings.hottest_c": 55}).verdict, "no")
        high = stands(altitude_m=(0, 2000))
        self.assertEqual([q.fact for q in judge(old, high, {}).questions], ["surroundings.altitude_m"])
        self.assertEqual(judge(stands(), high, {"surroundings.altitude_m": 2400}).verdict, "no")

    def test_boards_in_one_place_stand_what_all_of_them_stand(self) -> None:
        parts = [
            replace(self.original, surroundings={"temperature_c": (0.0, 60.0), "altitude_m": (0.0, 2000.0)}),
            replace(self.original, surroundings={"temperature_c": (5.0, 70.0)}),
        ]
        self.assertEqual(choose.merged(parts).surroundings, {"temperature_c": (5.0, 60.0), "altitude_m": (0.0, 2000.0)})

    def test_a_rating_for_heaters_carries_no_motor(self) -> None:
        """A motor or a coil is harder on a contact than a heater of the same current (common practice, no source)."""

        def board(name: str, **ratings: Any) -> Fitting:
            return choose.fitting_of(
                {"part_number": name, "status": "current", "relays": [{"id": "RL1", "signal": "fan.line", **ratings}]}
            )

        heater, motor = board("H", amps={"resistive": 10}), board("M", amps={"resistive": 5, "motor": 3})
        named = board("N", rating="A300")
        five = {"load.fan.line.amps": 5, "load.fan.line.kind": "motor"}
        for old, new, facts, code in (
            (motor, heater, {}, "contact of another kind"),
            (heater, heater, five, "contact of another kind"),
            (heater, board("h", amps={"resistive": 4}), five, "contact too small"),
            (heater, heater, {}, "contact carries"),
            (heater, heater, {"load.fan.line.amps": 5}, "contact carries"),
            (motor, board("m", amps={"resistive": 10, "motor": 3}), {}, "contact carries"),
            (motor, named, {}, "contact carries"),
        ):
            self.assertEqual([each.code for each in self.judge("contacts", old, new, facts).reasons], [code], facts)

    def test_contacts_by_rating_and_by_measured_load(self) -> None:
        short = fitting("TVH-2216-A")
        asked = self.judge("contacts", self.original, short, {})
        self.assertEqual((asked.verdict, asked.questions[0].fact), ("to check", "load.fan.line.amps"))
        self.assertEqual(
            self.judge("contacts", self.original, short, {"load.fan.line.amps": Fraction(18, 10)}).verdict, "fits"
        )
        self.assertEqual(
            self.judge("contacts", self.original, short, {"load.fan.line.amps": Fraction(24, 10)}).verdict, "no"
        )

    def test_a_signal_that_is_missing_or_perhaps_not_used(self) -> None:
        family = profile.parse_family((DEMO / "families/retarder-prover.family.json").read_bytes())
        full = fitting("UMC 40-118")
        pins = tuple(pin for pin in full.pins or () if pin.signal not in ("humid.probe", "heater.line"))
        poor = choose.fitting_of({"part_number": "P", "status": "current"} | {"connectors": [
            {"id": pin.connector, "style": pin.style, "pins": [{"pin": pin.pin, "signal": pin.signal}]} for pin in pins
        ]})  # fmt: skip
        found = self.judge("signals", full, poor, {}, family=family)
        self.assertEqual(codes(found), [("signal missing", "no"), ("signal perhaps used", "to check")])
        known = self.judge("signals", full, poor, {"uses.heater.line": False, "uses.humid.probe": False}, family=family)
        self.assertEqual(known.verdict, "fits")

    def test_the_same_housing_with_other_pinning_is_named_pin_by_pin(self) -> None:
        cell = self.judge("connectors", self.original, fitting("TVH-2210-X"), {})
        trap = next(each for each in cell.reasons if each.code == "other pinning")
        self.assertEqual((trap.data["connector"], trap.data["pins"][0]["pin"]), ("C1", "4"))
        self.assertEqual(self.judge("connectors", self.original, fitting("TVH-2210-C"), {}).verdict, "fits")
        wires = self.judge("connectors", fitting("UMC 40-118"), fitting("OFN-P1"), {})
        self.assertEqual({each.code for each in wires.reasons}, {"single wires"})

    def test_one_socket_takes_one_plug(self) -> None:
        def board(name: str, *plugs: tuple[str, str]) -> Fitting:
            return choose.fitting_of({"part_number": name, "status": "current", "connectors": [
                {"id": plug, "style": "QL-2", "pins": [{"pin": 1, "signal": signal}]} for plug, signal in plugs
            ]})  # fmt: skip

        two = board("two", ("C1", "fan.line"), ("C2", "valve.line"))
        one = self.judge("connectors", two, board("one", ("X1", "valve.line")), {})
        self.assertEqual(codes(one), [("single wires", "with work"), ("plug fits", "fits")])
        swapped = self.judge("connectors", two, board("swapped", ("X1", "valve.line"), ("X2", "fan.line")), {})
        self.assertEqual([each.data["to"] for each in swapped.reasons], ["X2", "X1"])
        self.assertEqual(swapped.verdict, "fits")

    def test_a_fact_that_is_no_number_is_not_taken_for_one(self) -> None:
        facts = {"supply.volts": "about 230", "load.fan.line.amps": "little", "load.relay.common.kind": "coil"}
        self.assertEqual(self.judge("supply", self.original, fitting("TVH-2210-C"), facts).verdict, "fits")
        found = self.judge("contacts", self.original, fitting("TVH-2216-A"), facts)
        self.assertEqual({each.code for each in found.reasons}, {"contact smaller", "contact carries"})

    def test_mounting_asks_for_room_and_counts_new_holes(self) -> None:
        old, large = fitting("UMC 40-118"), fitting("UMC 44-010")
        asked = self.judge("mounting", old, large, {})
        self.assertEqual({q.fact for q in asked.questions}, {"room.right_mm", "room.top_mm"})
        self.assertEqual(
            self.judge("mounting", old, large, {"room.right_mm": 20, "room.top_mm": 10}).verdict, "with work"
        )
        self.assertEqual(self.judge("mounting", old, large, {"room.right_mm": 5, "room.top_mm": 10}).verdict, "no")

    def test_parts_companions_and_kit_by_policy_and_facts(self) -> None:
        kit, original = fitting("OFN-P1"), fitting("UMC 40-118")
        cell = self.judge("parts", original, kit, {"probe.kind": "NTC 10k"}, change_companions=True)
        self.assertIn(("kit part not needed", "fits"), codes(cell))
        self.assertIn(("part moves", "with work"), codes(cell))
        mixer = fitting("OFN-MK")
        self.assertIn(
            ("companion changes", "with work"), codes(self.judge("parts", mixer, mixer, {}, change_companions=True))
        )
        self.assertIn(
            ("companion stays", "fits"), codes(self.judge("parts", mixer, mixer, {}, change_companions=False))
        )

    def test_availability_is_what_the_desk_said(self) -> None:
        current, old = fitting("TVH-2210-C"), fitting("TVH-2205")
        self.assertEqual(self.judge("availability", self.original, current, {}, offer=None).verdict, "to check")
        self.assertEqual(
            codes(self.judge("availability", self.original, old, {}, offer=None)), [("discontinued", "to check")]
        )
        self.assertEqual(
            self.judge("availability", self.original, current, {}, offer={"stock": 2, "price": 3.0}).verdict, "fits"
        )
        self.assertEqual(
            self.judge("availability", self.original, current, {}, offer={"stock": 0, "days": 3, "price": 3.0}).verdict,
            "with work",
        )
        self.assertEqual(
            self.judge(
                "availability", self.original, current, {}, offer={"stock": 0, "days": None, "price": 3.0}
            ).verdict,
            "no",
        )


class Wishes(SimpleTestCase):
    def test_what_was_wanted_otherwise_is_no_difference(self) -> None:
        family = profile.parse_family((DEMO / "families/deck-oven.family.json").read_bytes())
        original, replacement = demo_board("TVH-2210-B"), demo_board("TVH-2214-A")
        found = factory_record(original)
        plain = choose.check_twin(original, found, replacement, family, {})
        wished = choose.check_twin(original, found, replacement, family, {"purge.post": 90})
        assert plain.proof and wished.proof and wished.carried.record and plain.carried.record
        self.assertEqual((plain.proof.verdict, wished.proof.verdict), ("identical", "identical"))
        self.assertNotEqual(wished.carried.record.points, plain.carried.record.points)
        got = {row.id: (row.got, row.verdict) for row in wished.carried.functions}
        self.assertEqual(got["purge.post"], (90, "same"))


class Ranking(SimpleTestCase):
    def candidate(self, number: str, **more: Any) -> choose.Candidate:
        family = profile.parse_family((DEMO / "families/deck-oven.family.json").read_bytes())
        original = demo_board("TVH-2210-B")
        machine = Machine(choose.fitting_of(original.document), family, more.pop("facts", {}))
        board = demo_board(number)
        twin = choose.check_twin(original, factory_record(original), board, family, {})
        found = choose.judge_candidate(
            machine, choose.fitting_of(board.document), more.get("way"), None, more.get("offer")
        )
        return choose.with_twin(found, twin, more.get("known", True))

    def test_where_nobody_knows_how_the_old_board_is_set_nothing_is_no_and_what_is_listed_comes_first(self) -> None:
        """A defect: the data sheet's own replacement stood under “do not fit” on factory settings that nobody knew."""
        statement = Statement("s", ("TVH-2210-B",), ("OFN-U3",), "supersedes", source="data sheet")
        way = Way("OFN-U3", (Link("TVH-2210-B", "OFN-U3", statement),), (), statement.mean)
        for known, verdict, first in ((True, "no", "TVH-2210-C"), (False, "to check", "OFN-U3")):
            listed = self.candidate("OFN-U3", way=way, known=known)
            other = self.candidate("TVH-2210-C", known=known)
            self.assertEqual(listed.cell("behaviour").verdict, verdict)
            self.assertEqual(listed.proof, self.candidate("OFN-U3").proof)
            self.assertEqual(choose.ranked([other, listed])[0].part_number, first, known)

    def test_closeness_beats_money_and_money_decides_between_equals(self) -> None:
        cheap = self.candidate("OFN-U3", offer={"stock": 1, "price": 10.0})
        close = self.candidate("TVH-2210-C", offer={"stock": 1, "price": 300.0})
        self.assertEqual([each.part_number for each in choose.ranked([cheap, close])], ["TVH-2210-C", "OFN-U3"])
        dear = self.candidate("TVH-2210-C", offer={"stock": 1, "price": 400.0})
        self.assertEqual(choose.ranked([dear, close])[0].price, 300.0)
        self.assertEqual(choose.ranked([cheap, close, dear]), choose.ranked([dear, close, cheap]))

    def test_every_criterion_has_its_cell_and_a_twin_check_changes_two_of_them(self) -> None:
        for number in ("TVH-2210-B", "TVH-2210-C", "OFN-U3"):
            checked = self.candidate(number)
            original = demo_board("TVH-2210-B")
            family = profile.parse_family((DEMO / "families/deck-oven.family.json").read_bytes())
            machine = Machine(choose.fitting_of(original.document), family, {})
            before = choose.judge_candidate(machine, choose.fitting_of(demo_board(number).document), None, None, None)
            for each in (before, checked):
                self.assertEqual(
                    tuple(cell.criterion for cell in each.cells), tuple(each.id for each in choose.CRITERIA)
                )
            changed = {one.criterion for one, other in zip(before.cells, checked.cells, strict=True) if one != other}
            self.assertLessEqual(changed, {"settings", "behaviour"})
            self.assertIn("behaviour", changed)


class Costs(SimpleTestCase):
    def test_a_plain_sum_worked_by_hand(self) -> None:
        found = choose.cost_sum(100, 60, 1, {"tax_percent": 10, "hour_rate": 50, "travel": 20, "lost_per_hour": 10})
        # 100 part + 50 work + 20 way = 170, tax 17, lost 10·(1·8 + 1) = 90
        self.assertEqual([each.amount for each in found.own], [100, 50, 20, 17, 90])
        self.assertEqual(found.own_total, 277)
        self.assertEqual(found.saved, round(found.service_total - 277, 2))
