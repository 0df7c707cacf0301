"""Lists of machines served and of shelves, and the call that plans from them."""

import json
import tempfile
from functools import partial
from pathlib import Path
from types import SimpleNamespace
from unittest import TestCase

from tests.builders import DEMO
from tests.test_cli import call
from twincore.choose import Machine, TwinChecked, check_twin, find_ways, fitting_of
from twincore.cli.catalogue import Catalogue
from twincore.errors import DocumentError
from twincore.profile import factory_record
from twincore.stock import (
    Beta,
    Considered,
    Held,
    Served,
    drawn,
    failures_of,
    grade_of,
    kinds_of,
    parse_pieces,
    parse_served,
    parse_stock,
    pieces_that_serve,
    staircase,
)

SERVED = """van,board,machines,failed,years,fact.altitude_m,fact.outdoors
Ansel,TVH-2210-B,6,2,30,250,no
Ansel,TVH-2205,3,1,9,,

Corm,TVH-2210-B,4,,,900.5,yes
"""


class Lists(TestCase):
    def test_what_is_written_like_a_number_but_is_none_to_reckon_with_stays_as_it_is_written(self) -> None:
        """Defects: 0712 became 712, and nan failed where it was kept."""
        text = (
            "van,board,machines,fact.a,fact.b,fact.c,fact.d,fact.e,fact.f\nAnsel,X,1,0712,nan,-3.5,1e400,Infinity,230\n"
        )
        [row] = parse_served(text.encode())
        self.assertEqual(dict(row.facts), {"a": "0712", "b": "nan", "c": -3.5, "d": "1e400", "e": "Infinity", "f": 230})

    def faults(self, text: str) -> list[str]:
        with self.assertRaises(DocumentError) as caught:
            parse_served(text.encode())
        return [str(fault) for fault in caught.exception.faults]

    def test_machines_served_with_facts_of_their_own(self) -> None:
        first, second, third = parse_served(SERVED.encode())
        self.assertEqual(first, Served("Ansel", "TVH-2210-B", 6, 2, 30, {"altitude_m": 250, "outdoors": False}))
        self.assertEqual((second.facts, third.failed, third.facts), ({}, 0, {"altitude_m": 900.5, "outdoors": True}))

    def test_a_spreadsheets_semicolons_and_decimal_commas_are_read_too(self) -> None:
        (piece,) = parse_pieces("\ufeffpiece;cost;size\r\nOFN-U3;184,50;2\r\n".encode())
        self.assertEqual((piece.cost, piece.size, piece.most), (184.5, 2, 3))
        self.assertEqual(parse_stock(b"van,piece,count\na,OFN-U3,2\n"), [Held("a", "OFN-U3", 2)])

    def test_every_wrong_cell_is_told_with_its_line_and_column(self) -> None:
        text = "van,board,machines,failed,years\n,B,x,1,0\na,B,1\na," + "b" * 81 + ",1,nan,1\n"
        told = self.faults(text)
        for place in ("line 2, van", "line 2, machines", "line 2, failed", "line 3", "line 4, board", "line 4, failed"):
            self.assertTrue(any(each.startswith(place) for each in told), (place, told))

    def test_nobody_carries_none_or_a_thousand_of_a_piece(self) -> None:
        for most in ("0", "1000"):
            with self.assertRaises(DocumentError) as caught:
                parse_pieces(f"piece,cost,most\nP,1,{most}\n".encode())
            self.assertIn("line 2, most: expected from 1 to 20", str(caught.exception.faults[0]))

    def test_columns_that_are_missing_or_strange_are_named(self) -> None:
        self.assertIn("missing: machines", self.faults("van,board\n")[0])
        self.assertIn("not known: colour", self.faults("van,board,machines,colour\n")[0])
        self.assertIn("expected the columns", self.faults("van,van,board,machines\n")[0])
        self.assertIn("expected the columns", self.faults("")[0])
        self.assertIn("UTF-8", str(self.of_bytes(b"van,board\xff\n")))

    def of_bytes(self, data: bytes) -> list[str]:
        with self.assertRaises(DocumentError) as caught:
            parse_served(data)
        return [str(fault) for fault in caught.exception.faults]


class Serving(TestCase):
    def test_the_grade_of_a_candidate(self) -> None:
        for verdict, closeness, grade in (
            ("fits", "identical", "proved"), ("fits", "within tolerance", "proved"), ("with work", "identical", "work"),
            ("to check", "identical", "listed"), ("fits", "not proved", "listed"), ("fits", "open", "listed"),
            ("no", "identical", None), ("fits", "different", None), ("fits", "no position", None),
        ):  # fmt: skip
            with self.subTest(verdict=verdict, closeness=closeness):
                self.assertEqual(grade_of(SimpleNamespace(verdict=verdict, closeness=closeness)), grade)  # type: ignore[arg-type]

    def test_counts_of_a_board_are_those_of_all_its_rows_drawn_towards_its_family(self) -> None:
        served = [Served("a", "X", 10, 1, 10), Served("b", "X", 5, 1, 10), Served("a", "Y", 1)]
        failures = failures_of(served, {"X": "oven", "Y": "oven"}, 365, usual=0.05)
        rate = drawn(Beta(0.5, 9.5), 2, 20).mean  # one board counted: the usual rate, for ten machine-years
        self.assertEqual([round(each, 9) for each in failures], [round(10 * rate, 9), round(5 * rate, 9), 0.05])

    def test_what_is_enough_decides_which_pieces_count(self) -> None:
        served = [Served("a", "X", 1)]
        grades = [{"P": "proved", "W": "work", "L": "listed"}]
        for least, pieces in (("proved", "P"), ("work", "PW"), ("listed", "PWL")):
            (kind,) = kinds_of(served, [0.1], grades, least)  # type: ignore[arg-type]
            self.assertEqual("".join(kind.ways), pieces)


class Call(TestCase):
    def test_a_plan_from_files(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            served, there = Path(folder) / "served.csv", Path(folder) / "there.csv"
            served.write_text(SERVED)
            there.write_text("van,piece,count\nAnsel,TVH-2205,2\n")
            code, out, err = call(
                "stock", "--catalogue", DEMO, "--served", served, "--there", there, "--budget", 2, "--days", 60
            )
            self.assertEqual((code, err), (0, ""))
            told = json.loads(out)
            self.assertEqual(set(told["plan"]), {"Ansel", "Corm"})
            self.assertTrue(all(sum(counts.values()) <= 2 for counts in told["plan"].values()))
            expected = told["expected"]
            self.assertLessEqual(expected["served"], expected["at_most"])
            self.assertLessEqual(expected["at_most"], expected["failures"] + 1e-5)
            gone = sum(each["count"] for each in told["changes"] if each["from"] == "Ansel")
            self.assertEqual(gone, 2 - told["plan"]["Ansel"].get("TVH-2205", 0))
            for option, value in (("days", "inf"), ("days", "nan"), ("days", 0), ("gap", "nan"), ("seconds", "inf"), ("budget", "nan"),
                                  ("budget", -3), ("shelf", "inf"), ("lend", -1)):  # fmt: skip
                code, out, err = call("stock", "--catalogue", DEMO, "--served", served, f"--{option}", value)
                self.assertEqual((code, out), (2, ""), (option, value))
                self.assertIn(f"--{option}", err)
            code, out, err = call("stock", "--catalogue", DEMO, "--served", served, "--budget", 0)
            self.assertEqual((json.loads(out)["gap"], json.loads(out)["expected"]["served"]), (0, 0))
            served.write_text("van,board,machines\nAnsel,NONE-1,1\n")
            code, out, err = call("stock", "--catalogue", DEMO, "--served", served)
            self.assertIn("row 1: expected a board", err)
            served.write_text("van,board,machines\nAnsel,TVH-2205,-1\n")
            code, out, err = call("stock", "--catalogue", DEMO, "--served", served)
            self.assertIn("line 2, machines: expected a whole number", err)


class InOrder(TestCase):
    def test_the_piece_that_serves_most_stands_first_above_what_it_serves(self) -> None:
        machines = {"a": 1, "b": 5, "c": 2, "d": 9, "e": 1}
        serves = {"a": ["P"], "b": ["Q"], "c": ["P", "Q"], "e": ["P", "Q"]}
        kinds, pieces = staircase(machines, serves)
        self.assertEqual((kinds, pieces), (["b", "c", "e", "a", "d"], ["Q", "P"]))
        self.assertEqual(staircase({}, {}), ([], []))


class Judging(TestCase):
    def test_a_twin_check_is_run_only_where_nothing_else_says_no(self) -> None:
        demo = Catalogue(str(DEMO))
        original, family = demo.boards["TVH-2210-B"], demo.families["deck-oven"]
        asked = []

        def checked(number: str) -> TwinChecked:
            asked.append(number)
            return check_twin(original, factory_record(original), demo.boards[number], family, {})

        def again(twin: TwinChecked) -> bool:
            assert twin.carried is not None and twin.carried.record is not None
            board = demo.boards[twin.carried.record.part_number]
            told.append(board.part_number)
            return board.part_number != "TVH-2210-C"

        told: list[str] = []
        ways = find_ways("TVH-2210-B", demo.about, {}).to
        machine = Machine(fitting_of(original.document), family, {})
        grades = pieces_that_serve(
            machine,
            [
                Considered(fitting_of(board.document), ways.get(number), partial(checked, number), again)
                for number, board in demo.boards.items()
                if board.family == family.id
            ],
        )
        self.assertEqual((grades["TVH-2210-B"], grades["TVH-2210-C"], grades["OFN-K2"]), ("proved", "listed", "listed"))
        # of one the second program does not agree: it is not counted as a twin
        self.assertLessEqual({"TVH-2210-B", "TVH-2210-C"}, set(told))
        self.assertNotIn("OFN-K2", told)
        self.assertNotIn("OFN-U3", grades)
        # "not exchangeable" is said of it: nothing is proved of what will not be fitted
        self.assertNotIn("TVH-2210-X", asked)
        self.assertLessEqual(set(grades), set(asked))
