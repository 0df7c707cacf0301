import json
from fractions import Fraction
from itertools import product
from typing import Any

import numpy
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from tests.builders import demo_board, demo_family, encoded, record, small_board, small_family
from twincore import profile, settings
from twincore.carry_over import Comparison, schools_of
from twincore.errors import DocumentError

BANK = {"id": "S", "kind": "dip", "positions": 3, "factory": "000"}
TIMES = {"table": [{"when": {"S.1": "off", "S.2": "off"}, "value": 5}, {"when": {"S.1": "on", "S.2": "off"}, "value": 10},
                   {"when": {"S.2": "on"}, "value": 20}]}  # fmt: skip


def family() -> profile.Family:
    return profile.parse_family(encoded(small_family()))


def board(number: str = "S-1", **more: Any) -> profile.Board:
    return profile.parse_board(
        encoded(small_board(None, number, **{"settings": [BANK], "functions": {"t": TIMES}, **more}))
    )


class Schools(SimpleTestCase):
    ROWS = (
        {"if": {"model": "D", "made": {"from": 2001, "to": 2005}}, "set": {"S": "01-"}},
        {"if": {"model": "E"}, "set": {"S": "10-"}},
        {"if": {"model": "E", "damper": True}, "set": {"S": "1-1"}},
        {"if": {"model": "F"}, "set": {"S": "1--"}},
        {"if": {"model": "F"}, "set": {"S": "0--"}},
    )

    def test_a_leaflet_may_list_its_rows_by_the_number_of_the_old_board(self) -> None:
        rows = [
            {"if": {"original": "OLD-1"}, "set": {"S": "011"}},
            {"if": {"original": ["OLD-2", "OLD-3"]}, "set": {"S": "100"}},
        ]
        new = board(charts=[{"id": "leaflet", "rows": rows}])
        for number, expected in (("OLD-1", "011"), ("OLD-3", "100"), ("OLD-4", None)):
            old = board(number)
            table = schools_of(old, record(old, S="000"), new, {}, None)[1]
            written = table.record and profile.written_positions(new, table.record.points)["S"]
            self.assertEqual(written, expected)

    def test_a_row_is_proposed_where_nobody_knows_what_positions_mean_and_it_can_be_taken_whole(self) -> None:
        rows = [
            {"if": {"original": "OLD-1", "damper": False}, "set": {"S": "011"}, "use": ["lead E"]},
            {"if": {"original": "OLD-1", "damper": True}, "set": {"S": "010"}, "use": ["lead F"]},
        ]
        new = board("NEW-1", functions={}, charts=[{"id": "sheet", "rows": rows}])
        old = board("OLD-1")

        def compared(**more: Any) -> Comparison:
            return Comparison(family(), old, new, {"S": "110"}, **more)

        # a fact is missing that decides between the rows: neither is taken, and it is asked for
        unsure = compared().by_table()
        assert unsure is not None
        self.assertEqual((compared().proposed, compared().plan_record()), ("functions", None))
        self.assertEqual((unsure.missing, unsure.wanted("damper"), unsure.use), (("damper",), False, ()))
        sure = compared(facts={"damper": True})
        table, plan = sure.by_table(), sure.plan_record()
        assert table is not None and plan is not None
        self.assertEqual((sure.proposed, table.settled, table.use), ("table", True, ("lead F",)))
        self.assertEqual(profile.written_positions(new, plan.points), {"S": "010"})

    def test_a_row_is_proposed_where_nothing_of_the_original_could_be_read(self) -> None:
        new = board("NEW-1", charts=[{"id": "sheet", "rows": [{"if": {"model": "D"}, "set": {"S": "01-"}}]}])
        for found, proposed in (({"S": "???"}, "table"), ({}, "table"), ({"S": "1??"}, "functions")):
            self.assertEqual(Comparison(family(), board("OLD-1"), new, found, facts={"model": "D"}).proposed, proposed)

    def test_half_a_row_is_never_taken(self) -> None:
        # the row that holds says nothing of S.3, the one that could hold says it: the two belong together or not
        rows = [
            {"if": {"model": "E"}, "set": {"S": "10-"}},
            {"if": {"model": "E", "damper": True}, "set": {"S": "1-1"}},
        ]
        new = board("NEW-1", functions={}, charts=[{"id": "sheet", "rows": rows}])
        for facts, settled in (({"model": "E"}, False), ({"model": "E", "damper": False}, True)):
            table = settings.set_by_table(new, facts, None)
            self.assertEqual((table.settled, table.record is not None), (settled, True))

    def test_a_whole_chart_may_be_for_boards_that_are_replaced(self) -> None:
        chart = {"id": "leaflet", "for": {"replaces": ["OLD-1"]}, "rows": [{"if": {"model": "D"}, "set": {"S": "011"}}]}
        new = board("NEW-1", charts=[chart])
        for number, holds in (("OLD-1", 1), ("OLD-2", 0)):
            table = settings.set_by_table(new, {"original": number, "model": "D"}, None)
            self.assertEqual(len(table.holding), holds)

    def test_what_is_asked_for_names_every_value_of_the_rows_that_could_hold(self) -> None:
        rows = [
            {"if": {"stages": 1, "model": "D"}, "set": {"S": "011"}},
            {"if": {"stages": [2, 3]}, "set": {"S": "100"}},
            {"if": {"made": {"from": 2001}}, "set": {"S": "111"}},
        ]
        table = settings.set_by_table(board("NEW-1", charts=[{"id": "sheet", "rows": rows}]), {}, None)
        # those of the row that lacks fewest first
        self.assertEqual(table.missing, ("stages", "made", "model"))
        self.assertEqual(
            [table.wanted(name) for name in ("stages", "made", "model")], [[1, 2, 3], {"from": 2001}, ["D"]]
        )

    def test_the_table_is_laid_over_and_says_what_would_decide(self) -> None:
        new = board(charts=[{"id": "leaflet", "rows": list(self.ROWS)}])
        over = record(new, S="111")
        one = settings.set_by_table(new, {"model": "D", "made": 2003}, over)
        assert one.record is not None
        self.assertEqual(profile.written_positions(new, one.record.points), {"S": "011"})
        none = settings.set_by_table(new, {"model": "D", "made": 1999}, over)
        self.assertEqual((none.record, none.holding, none.possible), (None, (), ()))
        unsure = settings.set_by_table(new, {"model": "E"}, over)
        self.assertEqual((unsure.missing, unsure.record is not None), (("damper",), True))
        both = settings.set_by_table(new, {"model": "E", "damper": True}, over)
        assert both.record is not None
        self.assertEqual(profile.written_positions(new, both.record.points), {"S": "101"})
        self.assertEqual(settings.set_by_table(new, {"model": "F"}, over).clash, ("S.1",))
        self.assertEqual(
            settings.off_own_table(new, record(new, S="11?"), {"model": "D", "made": 2003}), {"S.1": "off"}
        )
        self.assertEqual(settings.off_own_table(new, record(new, S="?1?"), {"model": "F"}), {})

    def test_what_a_board_learns_and_what_stays_for_the_hand(self) -> None:
        old = board()
        new = board(
            "S-2", learning={"knows": {"S-1": {"S": "1--"}}, "finds": ["t", "nothing"], "can_be_stopped": False}
        )
        found = settings.set_by_learning(old, new, None)
        assert found is not None
        self.assertEqual((found.knows, found.finds, found.by_hand), (("S.1",), ("t",), ("S.3",)))
        self.assertEqual(found.record.points["S.1"], "on")
        self.assertIsNone(settings.set_by_learning(new, old, None))

    def test_a_test_mode_is_not_carried_over_and_never_chosen(self) -> None:
        # 2 acts: found on, it is a temporary state; and the only way to 20 s would be to leave it on
        acts = [{"point": "S.2", "when": "on", "what": "Test run", "ends": "by itself after 2 min"}]
        old = board(acts=acts)
        found = record(old, S="110")
        self.assertEqual([act.what for act in settings.acting(old, found)], ["Test run"])
        self.assertEqual(settings.wanted_functions(old, found, family())["t"].values, (10,))
        carried = settings.carry(board(), record(board(), S="010"), old, family())
        assert carried.record is not None
        self.assertEqual(profile.written_positions(old, carried.record.points), {"S": "100"})
        with self.assertRaises(DocumentError) as caught:
            board(acts=[{"point": "S.9", "when": "on", "what": ""}, {"point": "S.1", "when": "up", "what": ""}])
        self.assertEqual([f.place for f in caught.exception.faults], ["acts[0].point", "acts[1].when"])

    def test_other_settings_with_the_same_functions_are_all_there_are(self) -> None:
        only = board()
        for written in map("".join, product("01", repeat=3)):
            start = record(only, S=written)
            found = {tuple(each.points.values()) for each in settings.same_functions(only, start, family(), 50)}
            wanted = settings.decode(only, start, family())
            everything = (record(only, S="".join(places)) for places in product("01", repeat=3))
            same = {
                tuple(each.points.values())
                for each in everything
                if settings.decode(only, each, family()) == wanted
                and each.points != start.points
                and each.points["S.3"] == start.points["S.3"]
            }
            self.assertEqual(found, same)


class Trimmers(SimpleTestCase):
    MARKS = (0.0, 30.0, 90.0, 60.0, 120.0)

    def trimmer(self) -> profile.Board:
        return board(
            settings=[{"id": "V", "kind": "trimmer", "values": list("01234"), "factory": "0", "angles": {"from": -120, "to": 120}}],
            functions={"t": {"table": [{"when": {"V": str(n)}, "value": value} for n, value in enumerate(self.MARKS)]}},
        )  # fmt: skip

    @given(st.integers(-120, 120), st.integers(0, 70))
    def test_between_marks_it_agrees_with_linear_interpolation_and_the_ends_hold_all_values(
        self, at: int, within: int
    ) -> None:
        # numpy.interp is the reference
        only = self.trimmer()
        reading = settings.read_angle(only.elements[0], {"from": -120, "to": 120}, at, within)
        found = settings.interpolate(only, only.functions["t"], reading)
        assert found is not None
        angles = numpy.linspace(-120, 120, 5)
        self.assertAlmostEqual(float(found.value), float(numpy.interp(at, angles, self.MARKS)), places=2)
        around = numpy.interp(numpy.linspace(max(at - within, -120), min(at + within, 120), 200), angles, self.MARKS)
        self.assertLessEqual(float(found.low), around.min() + 1e-3)
        self.assertGreaterEqual(float(found.high), around.max() - 1e-3)
        self.assertLessEqual(found.low, found.value)
        self.assertLessEqual(found.value, found.high)

    def test_a_reading_is_on_a_mark_or_between_two(self) -> None:
        element = self.trimmer().elements[0]
        turn = {"from": -120, "to": 120}
        exact = settings.read_angle(element, turn, -60, 5)
        self.assertEqual((exact.marks, exact.nearest, exact.on_mark), (Fraction(1), "1", True))
        between = settings.read_angle(element, turn, -20, 10)
        self.assertEqual((between.nearest, between.on_mark), ("2", False))
        for angle, within in ((140, 5), (0, -1)):
            with self.assertRaises(ValueError):
                settings.read_angle(element, turn, angle, within)


class Copying(SimpleTestCase):
    def test_banks_are_paired_by_name_before_any_is_taken_for_another(self) -> None:
        def board(number: str, names: list[str]) -> profile.Board:
            banks = [{"id": name, "kind": "dip", "positions": 2, "factory": "00"} for name in names]
            return profile.parse_board(encoded(small_board(None, number, settings=banks)))

        old, new = board("A", ["S1", "S2"]), board("B", ["S2", "S3"])
        copied = settings.copy_positions(old, record(old, S1="01", S2="10"), new)
        self.assertEqual(profile.written_positions(new, copied.record.points), {"S2": "10", "S3": "01"})
        self.assertEqual(copied.without_place, ())


class OfTheDemo(SimpleTestCase):
    def test_copying_is_right_within_one_layout_and_wrong_across(self) -> None:
        original, fam = demo_board("TVH-2210-B"), demo_family()
        found = record(original, S1="110110")
        wanted = settings.decode(original, found, fam)
        same = settings.copy_positions(original, found, demo_board("TVH-2210-C"))
        self.assertTrue(
            all(r.verdict == "same" for r in settings.judge(wanted, demo_board("TVH-2210-C"), same.record, fam))
        )
        other = settings.copy_positions(original, found, demo_board("OFN-U3"))
        self.assertEqual(other.without_place, ("S1.5", "S1.6"))
        verdicts = {r.id: r.verdict for r in settings.judge(wanted, demo_board("OFN-U3"), other.record, fam)}
        self.assertEqual(verdicts["purge.post"], "off")

    def test_chart_rows_hold_are_possible_or_fall_away(self) -> None:
        document = json.loads(profile.dump(demo_board("TVH-2214-A").document))
        document["charts"] = [{"id": "leaflet", "rows": [
            {"if": {"model": "DK2", "made": {"from": 2001, "to": 2005}}, "set": {"SW1": "01--"}},
            {"if": {"model": "DK3"}, "set": {"R1": "4"}},
        ]}]  # fmt: skip
        board = profile.parse_board(encoded(document))
        rows = settings.chart_rows(board, {"model": "DK2", "made": 2003})
        self.assertEqual([(r.row, r.missing) for r in rows], [(0, ())])
        self.assertEqual([(r.row, r.missing) for r in settings.chart_rows(board, {"model": "DK2"})], [(0, ("made",))])
        self.assertEqual(settings.chart_rows(board, {"model": "DK2", "made": 2006}), [])
