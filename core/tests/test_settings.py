import json
from fractions import Fraction
from itertools import product
from random import Random
from typing import Any
from unittest.mock import patch

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import settings as hypothesis_settings
from hypothesis import strategies as st

from tests.builders import demo_board, demo_family, encoded, record
from twincore import profile
from twincore.errors import DocumentError
from twincore.profile import Board, Family, Value
from twincore.settings import (
    Decoded,
    carry,
    cpsat,
    decode,
    decode_function,
    eliminate,
    unreadable_points,
)
from twincore.settings.problem import DEVIATION, build_problem, deviation

FUNCTIONS = [
    {"id": "n1", "type": "number", "importance": "safety", "tolerance": {"below": 1, "above": 0.5}, "safer": "lower"},
    {"id": "n2", "type": "count", "importance": "behaviour", "if_absent": 0},
    {"id": "c1", "type": "choice", "choices": ["p", "q", "r"], "importance": "safety", "safer": ["q", "r", "p"]},
    {"id": "f1", "type": "flag", "importance": "comfort"},
]


def family(matters_if: dict[str, dict[str, Any]] | None = None) -> Family:
    """The family; of some functions when they matter at all."""
    functions = [
        each | ({"matters_if": matters_if[each["id"]]} if matters_if and each["id"] in matters_if else {})
        for each in FUNCTIONS
    ]
    return profile.parse_family(encoded({
        "format": "worthy-twin/family", "version": 1, "id": "f", "inputs": [{"id": "power"}],
        "outputs": [{"id": "x"}], "functions": functions,
    }))  # fmt: skip


def random_conditions(rng: Random) -> dict[str, dict[str, Any]]:
    """When functions matter: never in a circle, for each depends on later ones alone."""
    names = [str(each["id"]) for each in FUNCTIONS]
    found: dict[str, dict[str, Any]] = {}
    for number, name in enumerate(names[:-1]):
        for other in rng.sample(names[number + 1 :], rng.randrange(len(names) - number)):
            values = [random_value(rng, FUNCTIONS[names.index(other)]) for _ in range(rng.choice([1, 2, 3]))]
            several = list({str(each): each for each in values}.values())
            found.setdefault(name, {})[other] = several if len(several) > 1 or rng.random() < 0.5 else several[0]
    return found


def random_board(rng: Random, number: str, switches: int, scope: int, gaps: bool = True) -> Board:
    """A board whose functions are tables over random groups of switches, a rotary, sometimes with reserved gaps."""
    elements: list[dict[str, Any]] = [
        {"id": "S", "kind": "dip", "positions": switches, "factory": "".join(rng.choice("01") for _ in range(switches)),
         "locked": [1] if rng.random() < 0.3 else []},
        {"id": "R", "kind": "rotary", "values": ["0", "1", "2"], "factory": rng.choice("012")},
    ]  # fmt: skip
    domains = {f"S.{i + 1}": ["off", "on"] for i in range(switches)} | {"R": ["0", "1", "2"]}
    functions: dict[str, Any] = {}
    for definition in FUNCTIONS:
        if rng.random() < 0.15:
            continue
        points = rng.sample(sorted(domains), min(scope, len(domains)))
        rows = [
            {"when": dict(zip(points, values, strict=True)), "value": random_value(rng, definition)}
            for values in product(*(domains[p] for p in points))
            if not (gaps and rng.random() < 0.15)
        ]
        functions[str(definition["id"])] = {"table": rows or [{"when": {}, "value": random_value(rng, definition)}]}
    return profile.parse_board(encoded({
        "format": "worthy-twin/board", "version": 1, "part_number": number, "maker": "m", "title": "t", "family": "f",
        "status": "current", "settings": elements, "functions": functions,
    }))  # fmt: skip


def random_value(rng: Random, definition: dict[str, Any]) -> Any:
    match definition["type"]:
        case "choice":
            return rng.choice("pqr")
        case "flag":
            return rng.random() < 0.5
        case "count":
            return rng.randrange(5)
    return rng.choice([0, 0.1, 1, 1.5, 2, 3, 7])


def random_found(rng: Random, board: Board, unreadable: float) -> profile.Record:
    return profile.Record(board.part_number, {
        name: None if rng.random() < unreadable else rng.choice(point.domain) for name, point in board.points.items()
    })  # fmt: skip


def value_by_rows(board: Board, name: str, positions: dict[str, Value]) -> Value | None:
    """A function's value straight from the document; None is reserved."""
    node = board.document["functions"][name]
    for row in node["table"]:
        if all(positions[p] == v for p, v in row["when"].items()):
            return row["value"]  # type: ignore[no-any-return]
    return None


def all_positions(board: Board) -> list[dict[str, Value]]:
    return [
        dict(zip(board.points, values, strict=True)) for values in product(*(p.domain for p in board.points.values()))
    ]


class Decode(SimpleTestCase):
    def test_agrees_with_enumeration_of_every_position(self) -> None:
        for seed in range(60):
            rng = Random(seed)
            board = random_board(rng, "A", 4, 3)
            found = random_found(rng, board, 0.3)
            fits = [p for p in all_positions(board) if all(v in (None, p[n]) for n, v in found.points.items())]
            for name, decoded in decode(board, found, family()).items():
                values = {value_by_rows(board, name, positions) for positions in fits}
                self.assertEqual(set(decoded.values), values - {None}, (seed, name))
                self.assertEqual(decoded.reserved, None in values, (seed, name))

    def test_binary_address_bank_and_rotary_codes(self) -> None:
        # standard arithmetic: binary weights 1 2 4 8, and the reflected Gray code n ^ (n >> 1)
        codes = {"binary": lambda n: n, "gray": lambda n: n ^ (n >> 1)}
        for code in codes.values():
            table = [
                {"when": {f"S.{bit + 1}": "on" if code(n) >> bit & 1 else "off" for bit in range(4)}, "value": n}
                for n in range(16)
            ]
            board = profile.parse_board(encoded({
                "format": "worthy-twin/board", "version": 1, "part_number": "A", "maker": "m", "title": "t",
                "family": "f", "status": "current", "functions": {"n2": {"table": table}},
                "settings": [{"id": "S", "kind": "dip", "positions": 4, "factory": "0000"}],
            }))  # fmt: skip
            for n in range(16):
                written = "".join(str(code(n) >> bit & 1) for bit in range(4))
                self.assertEqual(decode(board, record(board, S=written), family())["n2"].values, (n,))

    def test_hexadecimal_rotary_read_as_numbers(self) -> None:
        symbols = "0123456789ABCDEF"  # hexadecimal digits; a table, for letters do not read as numbers
        table = [{"when": {"R": symbol}, "value": int(symbol, 16)} for symbol in symbols]
        board = profile.parse_board(encoded({
            "format": "worthy-twin/board", "version": 1, "part_number": "A", "maker": "m", "title": "t", "family": "f",
            "status": "current", "settings": [{"id": "R", "kind": "rotary", "values": list(symbols), "factory": "0"}],
            "functions": {"n2": {"table": table}, "n1": {"fixed": 1}},
        }))  # fmt: skip
        self.assertEqual(decode(board, record(board, R="B"), family())["n2"].answer(), {"value": 11})

    def test_parameter_with_scale_and_offset_is_exact(self) -> None:
        board = profile.parse_board(encoded({
            "format": "worthy-twin/board", "version": 1, "part_number": "A", "maker": "m", "title": "t", "family": "f",
            "status": "current",
            "settings": [{"id": "P", "kind": "parameter", "min": 0, "max": 3, "step": 0.1, "factory": 0.3}],
            "functions": {"n1": {"from": "P", "scale": 0.1, "offset": -2}},
        }))  # fmt: skip
        self.assertEqual(decode(board, record(board, P=0.3), family())["n1"].values, (Fraction(-197, 100),))


class Carry(SimpleTestCase):
    def without_matter(self, fam: Family, original: Board, found: profile.Record) -> set[str]:
        """The functions that do not matter, from the documents: by enumerating everything that the original may stand at."""
        fits = [p for p in all_positions(original) if all(v in (None, p[n]) for n, v in found.points.items())]
        pointless = set()
        for node in fam.document["functions"]:
            for name, asked in node.get("matters_if", {}).items():
                absent = next(each.get("if_absent") for each in FUNCTIONS if each["id"] == name)
                may = {value_by_rows(original, name, p) for p in fits} if name in original.functions else {absent}
                if None not in may and not may & set(asked if isinstance(asked, list) else [asked]):
                    pointless.add(node["id"])
        return pointless

    def best_by_enumeration(self, fam: Family, original: Board, found: profile.Record, replacement: Board) -> Any:
        """The order of the criteria, written out again over every position of the replacement."""
        decoded = decode(original, found, fam)
        wanted = {n: d.values[0] for n, d in decoded.items() if d.decided}
        still_open = {n: d.values for n, d in decoded.items() if not d.decided and d.values}
        for definition in fam.functions:
            if definition.id not in original.functions and definition.if_absent is not None:
                wanted[definition.id] = definition.if_absent
        for name in self.without_matter(fam, original, found):
            wanted.pop(name, None)
            still_open.pop(name, None)
        safest = {"c1": "qrp", "n1": (0, Fraction(1, 10), 1, Fraction(3, 2), 2, 3, 7)}
        ranked = []
        for positions in all_positions(replacement):
            if any(p.locked and positions[n] != p.factory for n, p in replacement.points.items()):
                continue
            got = {name: value_by_rows(replacement, name, positions) for name in replacement.functions}
            if None in got.values():
                continue
            misses, total = {True: 0, False: 0}, Fraction(0)
            impossible, safer = {True: 0, False: 0}, 0
            for definition in fam.functions:
                value = got.get(definition.id, definition.if_absent)
                if possible := still_open.get(definition.id):
                    if value is None or not any(definition.within(each, value) for each in possible):
                        impossible[definition.importance == "safety"] += 1
                    if order := safest.get(definition.id):
                        safer += sum(value is None or order.index(each) < order.index(value) for each in possible)  # type: ignore[arg-type]
                if definition.id not in wanted:
                    continue
                if value is None or not definition.within(wanted[definition.id], value):
                    misses[definition.importance == "safety"] += 1
                total += deviation(wanted[definition.id], value, definition)
            moved = sum(positions[n] != p.factory for n, p in replacement.points.items())
            places = [p.domain.index(positions[n]) for n, p in replacement.points.items()]
            rank = (misses[True], impossible[True], misses[False], impossible[False], total, safer, moved, places)
            ranked.append((rank, positions))
        return min(ranked, key=lambda each: each[0], default=None)

    def test_agrees_with_enumeration(self) -> None:
        pointless = 0
        for seed in range(160):
            rng = Random(seed)
            original, replacement = random_board(rng, "A", 4, 3), random_board(rng, "B", 5, 3)
            found = random_found(rng, original, 0.15)
            fam = family(random_conditions(rng) if seed % 2 else None)
            best = self.best_by_enumeration(fam, original, found, replacement)
            carried = carry(original, found, replacement, fam)
            if best is None:
                self.assertIsNone(carried.record, seed)
                self.assertTrue(carried.why, seed)
                continue
            assert carried.record is not None
            self.assertEqual(carried.record.points, best[1], seed)
            self.assertEqual(
                (carried.misses(True), carried.misses(False), carried.moved), (best[0][0], best[0][2], best[0][6])
            )
            said = {each.id for each in carried.functions if each.verdict == "does not matter"}
            listed = {each.id for each in carried.functions}
            self.assertEqual(said, self.without_matter(fam, original, found) & listed, seed)
            pointless += len(said)
        self.assertGreater(pointless, 20)

    def test_when_a_function_matters_must_be_said_of_other_functions_and_not_in_a_circle(self) -> None:
        for conditions, place in (
            ({"n1": {"n1": 2}}, "functions[0].matters_if.n1"),
            ({"n1": {"n9": 2}}, "functions[0].matters_if.n9"),
            ({"n1": {"c1": "s"}}, "functions[0].matters_if.c1"),
            ({"n1": {"f1": [True, "on"]}}, "functions[0].matters_if.f1"),
            ({"n1": {"n2": 1}, "n2": {"c1": "p"}, "c1": {"n1": 0}}, "functions[0].matters_if"),
        ):
            with self.subTest(place), self.assertRaises(DocumentError) as refused:
                family(conditions)
            self.assertIn(place, [fault.place for fault in refused.exception.faults])

    def test_two_exact_solvers_agree_on_larger_boards(self) -> None:
        for seed in range(6):
            rng = Random(seed)
            board = random_board(rng, "B", 14, 5, gaps=seed % 2 == 0)
            wanted = {
                "n1": Decoded((1, 2, 7)),
                "n2": Decoded((3,)),
                "c1": Decoded(("p", "r"), True),
                "f1": Decoded((True,)),
            }
            problem = build_problem(board, family(), wanted)
            self.assertEqual((eliminate.solve(problem), True), cpsat.solve(problem), seed)

    def test_sums_beyond_64_bits_stay_exact(self) -> None:
        # eleven primes as wanted values: the common denominator of the relative deviations has 36 bits a function more
        primes = [10007, 10009, 10037, 10039, 10061, 10067, 10069, 10079, 10091, 10093, 10099]
        functions = [{"id": f"n{p}", "type": "number", "importance": "comfort"} for p in primes]
        wide = profile.parse_family(encoded({
            "format": "worthy-twin/family", "version": 1, "id": "f", "inputs": [{"id": "power"}],
            "outputs": [{"id": "x"}], "functions": functions,
        }))  # fmt: skip
        rng = Random(5)
        tables = {}
        for prime in primes:
            points = [f"S.{n}" for n in rng.sample(range(1, 9), 3)]
            tables[f"n{prime}"] = {"table": [
                {"when": dict(zip(points, values, strict=True)), "value": prime + rng.randrange(-9, 9)}
                for values in product(["off", "on"], repeat=3)
            ]}  # fmt: skip
        board = profile.parse_board(encoded({
            "format": "worthy-twin/board", "version": 1, "part_number": "B", "maker": "m", "title": "t", "family": "f",
            "status": "current", "settings": [{"id": "S", "kind": "dip", "positions": 8, "factory": "00000000"}],
            "functions": tables,
        }))  # fmt: skip
        problem = build_problem(board, wide, {f"n{p}": Decoded((p,)) for p in primes})
        self.assertGreater(max(cost[DEVIATION] for term in problem.terms for _, cost in term.cases), 2**64)
        self.assertEqual((eliminate.solve(problem), True), cpsat.solve(problem))

    def test_everything_reserved_is_said(self) -> None:
        family_ = demo_family()
        original = demo_board("TVH-2210-B")
        node = {"table": [{"when": {"SW1.1": "on", "SW1.4": "on"}, "value": 7}]}
        source = json.loads(profile.dump(demo_board("OFN-U3").document))
        source["functions"]["trial"] = node
        source["settings"][0]["locked"] = [1]
        source["settings"][0]["factory"] = "0111"
        replacement = profile.parse_board(encoded(source))
        carried = carry(original, record(original, S1="010110"), replacement, family_)
        self.assertIsNone(carried.record)
        self.assertEqual(carried.why, ("trial",))

    def test_what_is_still_possible_steers_and_the_safer_side_first(self) -> None:
        # S1.4 is burnt: with S1.3 on, post-purge is 60 or 90 s, or reserved; nothing else would be one of the two
        original, replacement = demo_board("TVH-2210-B"), demo_board("TVH-2214-A")
        purge = {
            row.id: row for row in carry(original, record(original, S1="01?110"), replacement, demo_family()).functions
        }
        post = purge["purge.post"]
        self.assertEqual((post.verdict, post.possible, post.got), ("open", True, max(post.wanted.values)))
        self.assertEqual(post.answer()["possible"], True)

    def test_which_side_is_safer_must_fit_the_function(self) -> None:
        for safer, place in (
            ({"safer": "lower"}, 2),
            ({"safer": ["p", "q"]}, 2),
            ({"safer": [True, False]}, 0),
            ({"safer": "up"}, 0),
        ):
            functions = [dict(each) for each in FUNCTIONS]
            functions[place] |= safer
            with self.subTest(safer), self.assertRaisesRegex(DocumentError, rf"functions\[{place}\].safer"):
                profile.parse_family(encoded({
                    "format": "worthy-twin/family", "version": 1, "id": "f", "inputs": [{"id": "power"}],
                    "outputs": [{"id": "x"}], "functions": functions,
                }))  # fmt: skip

    def test_demo_pair_worked_by_hand(self) -> None:
        # S1 010110: pre-purge 15, trial 10, post-purge 90, restart manual; SW1 is upside down, R1 counts 15 s a mark
        original, replacement = demo_board("TVH-2210-B"), demo_board("TVH-2214-A")
        carried = carry(original, record(original, S1="010110"), replacement, demo_family())
        assert carried.record is not None
        self.assertEqual(profile.written_positions(replacement, carried.record.points), {"SW1": "0111", "R1": "6"})
        self.assertTrue(all(row.verdict == "same" for row in carried.functions))

    def test_what_cannot_be_met_gets_the_nearest(self) -> None:
        original, replacement = demo_board("TVH-2420-A"), demo_board("OFN-U5")
        found = record(original, P01=15, P02=60, P03=60, P04=15, prog="2", S1="00")
        rows = {row.id: row for row in carry(original, found, replacement, demo_family()).functions}
        self.assertEqual((rows["purge.pre"].got, rows["purge.pre"].verdict), (20, "within tolerance"))
        self.assertEqual(rows["stage2.delay"].got, 10)  # 10 and 20 are equally far from 15; only 10 is allowed


class Unreadable(SimpleTestCase):
    def test_what_a_reading_decides_agrees_with_decoding_anew_for_every_reading(self) -> None:
        for seed in range(80):
            rng = Random(seed)
            board = random_board(rng, "A", 4, 3)
            found = random_found(rng, board, 0.5)
            still_open = {name for name, each in decode(board, found, family()).items() if not each.decided}
            for each in unreadable_points(board, found, family()):
                domain = board.points[each.point].domain
                decided = 0
                for value in domain:
                    read = profile.Record("A", {**found.points, each.point: value})
                    after = decode(board, read, family())
                    decided += sum(
                        after[name].decided for name in still_open if each.point in board.functions[name].scope
                    )
                self.assertEqual(each.decides, decided / len(domain), (seed, each.point))

    def test_a_parameter_of_very_many_values_costs_no_more_than_its_rows(self) -> None:
        def board(count: int) -> Board:
            return profile.parse_board(encoded({
                "format": "worthy-twin/board", "version": 1, "part_number": "A", "maker": "m", "title": "t", "family": "f", "status": "current",
                "settings": [{"id": "P", "kind": "parameter", "min": 0, "max": count - 1, "step": 1, "factory": 0}],
                "functions": {"n1": {"from": "P"}, "n2": {"table": [{"when": {"P": n}, "value": n} for n in range(min(count, 5000))]}},
            }))  # fmt: skip

        for count in (400, 100_000):
            large = board(count)
            with patch("twincore.settings.decode.decode_function", side_effect=decode_function) as decoding:
                [point] = unreadable_points(large, profile.Record("A", {"P": None}), family())
            self.assertEqual(decoding.call_count, 2)  # once for each function, whatever the number of readings
            self.assertEqual(point.functions, ("n1", "n2"))
            self.assertEqual(point.decides, 1 + min(count, 5000) / count)

    def test_says_what_hangs_on_a_point_and_which_reading_helps_most(self) -> None:
        board = demo_board("TVH-2210-B")
        points = unreadable_points(board, record(board, S1="?1??1?"), demo_family())
        by_name = {p.point: p for p in points}
        self.assertEqual(by_name["S1.1"].functions, ("purge.pre",))
        self.assertEqual(by_name["S1.1"].decides, 1)
        self.assertEqual(by_name["S1.3"].functions, ("purge.post",))
        self.assertEqual(by_name["S1.3"].decides, 0)  # S1.4 is needed too
        self.assertEqual(by_name["S1.6"].functions, ())
        self.assertEqual(points[0].point, "S1.1")


class ExactNumbers(SimpleTestCase):
    @hypothesis_settings(max_examples=60)
    @given(st.decimals(min_value=-(10**6), max_value=10**6, places=4))
    def test_numbers_survive_reading_and_writing(self, number: Any) -> None:
        facts = profile.parse_facts(b'{"n": %s}' % str(number).encode())
        self.assertEqual(facts["n"], Fraction(number))
        self.assertEqual(float(facts["n"]), float(number))
