"""Documents from outside, spoilt at random: whatever comes, the answer is a board or faults with places, never a crash."""

import json
from random import Random
from time import process_time
from typing import Any

import jsonschema
from django.test import SimpleTestCase

from tests.builders import DEMO, demo_family, encoded
from twincore import profile
from twincore.choose import as_row, find_ways, from_row, parse_statements
from twincore.choose.contradictions import contradictions
from twincore.errors import DocumentError
from twincore.profile.document import schema_path
from twincore.recognise import parse_nameplates, read_plate, read_serial
from twincore.rule_out import Done, Report, next_tests, parse_rule_out, stand

JUNK: list[Any] = [None, True, -1, 0, 1e12, 0.5, "", "?", "on", [], [[]], {}, {"if": 1}, "x" * 3000, [1] * 600]


def spots(node: Any) -> list[tuple[Any, Any]]:
    """Every (container, key) of a document."""
    found = []
    if isinstance(node, dict | list):
        for key in list(node) if isinstance(node, dict) else range(len(node)):
            found.append((node, key))
            found += spots(node[key])
    return found


def spoil(rng: Random, document: Any) -> None:
    container, key = rng.choice(spots(document))
    match rng.randrange(4):
        case 0:
            del container[key]
        case 1:
            container[key] = rng.choice(JUNK)
        case 2 if isinstance(container, dict):
            container[rng.choice(["surprise", "when", "after", "S1"])] = rng.choice(JUNK)
        case _:
            other, other_key = rng.choice(spots(document))
            container[key] = json.loads(json.dumps(other[other_key]))


class Hostile(SimpleTestCase):
    def test_spoilt_boards_are_read_or_refused_with_places(self) -> None:
        family = demo_family()
        schema = jsonschema.Draft202012Validator(json.loads(schema_path("board").read_text()))
        refused = accepted = 0
        for seed in range(600):
            rng = Random(seed)
            name = rng.choice(["TVH-2205", "OFN-U5", "TVH-2424-A"])
            document = json.loads((DEMO / f"boards/{name}.board.json").read_text())
            for _ in range(rng.choice([1, 1, 2])):
                spoil(rng, document)
            try:
                board = profile.parse_board(encoded(document))
                profile.check_board_in_family(board, family)
                accepted += 1
            except DocumentError as error:
                refused += 1
                self.assertTrue(all(fault.expected for fault in error.faults), seed)
            else:
                # what the program accepts, an independent validator accepts by the published schema
                self.assertTrue(schema.is_valid(document), seed)
                self.assertTrue(set(profile.factory_record(board).points) == set(board.points))
        self.assertGreater(refused, 200)
        self.assertGreater(accepted, 20)

    def test_spoilt_families_records_and_scenarios(self) -> None:
        board = profile.parse_board((DEMO / "boards/TVH-2205.board.json").read_bytes())
        scenario = {
            "format": "worthy-twin/scenario",
            "version": 1,
            "until": 9,
            "steps": [{"at": 1, "set": {"call": True}}],
        }
        record = {"format": "worthy-twin/settings", "version": 1, "part_number": "TVH-2205",
                  "positions": {"J1": "1-2", "R1": "2", "S1": "1?0"}}  # fmt: skip
        family = json.loads((DEMO / "families/deck-oven.family.json").read_text())
        refused = 0
        for seed in range(300):
            rng = Random(seed)
            for document, read in (
                (family, profile.parse_family),
                (record, lambda data: profile.parse_record(data, board)),
                (scenario, lambda data: profile.parse_scenario(data, ("call", "power"))),
            ):
                copy = json.loads(json.dumps(document))
                spoil(rng, copy)
                try:
                    read(encoded(copy))  # type: ignore[operator]
                except DocumentError as error:
                    refused += 1
                    self.assertTrue(error.faults, seed)
        self.assertGreater(refused, 300)

    def test_spoilt_guides_and_statements(self) -> None:
        """Rule-out data, nameplates, statements: read or refused; what is read can be worked with."""
        kinds: tuple[tuple[str, str, Any], ...] = (
            ("rule-out", "rule-out/retarder-prover.rule-out.json", self.weigh),
            ("nameplates", "nameplates/tarvenholm.nameplates.json", self.decode),
            ("statements", "statements/spiral-mixer.statements.json", self.match),
        )
        for kind, name, work in kinds:
            schema = jsonschema.Draft202012Validator(json.loads(schema_path(kind).read_text()))
            refused = accepted = 0
            for seed in range(150):
                rng = Random(seed)
                document = json.loads((DEMO / name).read_text())
                spoil(rng, document)
                with self.subTest(kind, seed=seed):
                    try:
                        work(encoded(document))
                        accepted += 1
                    except DocumentError as error:
                        refused += 1
                        self.assertTrue(all(fault.expected for fault in error.faults))
                    else:
                        self.assertTrue(schema.is_valid(document))
            self.assertGreater(refused, 20, kind)
            self.assertGreater(accepted, 10, kind)

    def weigh(self, data: bytes) -> None:
        known = parse_rule_out(data)
        report = Report({each.id: True for each in known.symptoms})
        done = [Done(each.id, each.results[0].id) for each in known.tests if each.reading is None]
        standing = stand(known, report, done)
        self.assertAlmostEqual(sum(standing.weights.values()), 1)
        next_tests(known, standing, [])

    def decode(self, data: bytes) -> None:
        for scheme in parse_nameplates(data):
            for text in ("DK2G30107B", "", "ÄÖ 1", "9" * 80):
                read_plate(text, scheme)
                read_serial(text, scheme)

    def match(self, data: bytes) -> None:
        statements = parse_statements(data)
        contradictions(statements)
        for each in statements[:20]:
            find_ways(
                each.original, lambda boards: [s for s in statements if {*s.originals, s.replacement} & set(boards)], {}
            )
            self.assertEqual(from_row(as_row(each)), each)

    def test_a_table_with_very_many_kinds_of_rows_is_refused(self) -> None:
        document = json.loads((DEMO / "boards/OFN-U3.board.json").read_text())
        document["settings"].append({"id": "Q", "kind": "dip", "positions": 12, "factory": "0" * 12})
        rows = [
            {"when": {f"Q.{bit + 1}": "on" for bit in range(12) if number >> bit & 1}, "value": number}
            for number in range(1, 60)
        ]
        document["functions"]["bake.limit"] = {"table": rows}
        with self.assertRaisesRegex(DocumentError, "at most 40 different sets of points"):
            profile.parse_board(encoded(document))

    def test_a_key_that_comes_twice_among_very_many_is_found_at_once(self) -> None:
        """A defect: 209 kB of keys, the last of them twice, took half a minute."""
        keys = ",".join(f'"k{number}":1' for number in range(18_000))
        began = process_time()
        with self.assertRaisesRegex(DocumentError, 'found "k17999" twice'):
            profile.open_document(f'{{{keys},"k17999":1}}'.encode())
        self.assertLess(process_time() - began, 2)
