"""Documents from outside, spoilt at random: whatever comes, the answer is a board or faults with places, never a crash."""

import contextlib
import json
import zipfile
from collections.abc import Callable
from copy import deepcopy
from io import BytesIO
from pathlib import Path
from random import Random
from time import process_time
from typing import Any

import jsonschema
from django.test import SimpleTestCase

from tests.builders import DEMO, case_twin, chamber, demo_board, demo_family, encoded
from tests.cost import rounds
from twincore import certificate, profile
from twincore.chain import open_package, open_record
from twincore.choose import as_row, find_ways, from_row, parse_statements
from twincore.choose.contradictions import contradictions
from twincore.errors import DocumentError
from twincore.job import partings, sheet_of, verify_package
from twincore.practice import parse_tasks
from twincore.profile.document import KINDS, jsonable, schema_path
from twincore.recognise import parse_nameplates, read_plate, read_serial
from twincore.rule_out import Done, Report, next_tests, parse_rule_out, stand
from twincore.wiring import parse_adapters, parse_wiring
from twincore.workshop.boxes import open_box

PACKAGES = Path(__file__).parent / "packages"

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
            container[key] = deepcopy(rng.choice(JUNK))
        case 2 if isinstance(container, dict):
            container[rng.choice(["surprise", "when", "after", "S1"])] = deepcopy(rng.choice(JUNK))
        case _:
            other, other_key = rng.choice(spots(document))
            container[key] = json.loads(json.dumps(other[other_key]))


class Format:
    """A format with documents that are right, and what is done with one of it that comes from outside."""

    def __init__(self, work: Callable[[bytes], Any], *documents: Any) -> None:
        self.work, self.documents = work, documents


def demo(name: str) -> Any:
    return json.loads((DEMO / name).read_text())


def head(kind: str, **more: Any) -> dict[str, Any]:
    return {"format": f"worthy-twin/{kind}", "version": 1, **more}


def formats() -> dict[str, Format]:
    """Every format, none forgotten."""
    family, board = demo_family(), demo_board("TVH-2205")
    call = [{"at": 1, "set": {"call": True}}]
    wires = [
        {"id": "a", "connector": "C3", "pin": "1", "colour": "black"},
        {"id": "b", "connector": "C2", "pin": "2", "tag": "HT"},
    ]
    with zipfile.ZipFile(PACKAGES / "0.4.0-open.zip") as packed:
        files = {name: packed.read(name) for name in packed.namelist()}
    contents = files.pop("contents.json")
    boards = ("TVH-2205", "OFN-U5", "TVH-2424-A")
    return {
        "board": Format(lambda data: fits(data, family), *(demo(f"boards/{name}.board.json") for name in boards)),
        "family": Format(profile.parse_family, demo("families/deck-oven.family.json"), chamber()),
        "settings": Format(
            lambda data: profile.parse_record(data, board),
            head("settings", part_number="TVH-2205", positions={"J1": "1-2", "R1": "2", "S1": "1?0"}),
        ),
        "scenario": Format(lambda data: profile.parse_scenario(data, {"call": None, "power": None}), head("scenario", until=9, steps=call)),
        "trace": Format(
            lambda data: profile.parse_trace(data, family),
            head("trace", part_number="TVH-2205", until=9, steps=call, seen=[{"at": 2, "output": "fan", "on": True}]),
        ),
        "job": Format(played, json.loads(files["job.json"])),
        "rule-out": Format(weighed, demo("rule-out/retarder-prover.rule-out.json")),
        "tasks": Format(parse_tasks, demo("practice/first-week.tasks.json")),
        "nameplates": Format(decoded, demo("nameplates/tarvenholm.nameplates.json")),
        "statements": Format(matched, demo("statements/spiral-mixer.statements.json")),
        "wiring": Format(
            lambda data: parse_wiring(data, board, family), head("wiring", part_number="TVH-2205", wires=wires, without_record=["C1"])
        ),
        "adapters": Format(parse_adapters, demo("adapters/omnifen.adapters.json")),
        "package": Format(lambda data: packed_with(data, files), json.loads(contents)),
        "certificate": Format(certified, json.loads(profile.dump(certificate.certificate(case_twin("oven-in-register"))))),
        "boards": Format(
            unpacked, head("boards", families=[demo("families/deck-oven.family.json")], boards=[demo(f"boards/{boards[0]}.board.json")])
        ),
    }  # fmt: skip


def fits(data: bytes, family: profile.Family) -> None:
    board = profile.parse_board(data)
    profile.check_board_in_family(board, family)
    assert set(profile.factory_record(board).points) == set(board.points)


def certified(data: bytes) -> None:
    root = profile.open_document(data, "certificate").root
    with contextlib.suppress(certificate.NotShown):
        certificate.check_twin(case_twin("oven-in-register"), root)


def played(data: bytes) -> None:
    record = jsonable(open_record(data))
    sheet_of(record)
    partings(record["entries"], record["state"] if isinstance(record.get("state"), dict) else {})


def weighed(data: bytes) -> None:
    known = parse_rule_out(data)
    report = Report({each.id: True for each in known.symptoms})
    done = [Done(each.id, each.results[0].id) for each in known.tests if each.reading is None]
    standing = stand(known, report, done)
    assert abs(sum(standing.weights.values()) - 1) < 1e-7
    next_tests(known, standing, [])


def decoded(data: bytes) -> None:
    for scheme in parse_nameplates(data):
        for text in ("DK2G30107B", "", "ÄÖ 1", "9" * 80):
            read_plate(text, scheme)
            read_serial(text, scheme)


def matched(data: bytes) -> None:
    statements = parse_statements(data)
    contradictions(statements)
    for each in statements[:20]:
        find_ways(
            each.original, lambda boards: [s for s in statements if {*s.originals, s.replacement} & set(boards)], {}
        )
        assert from_row(as_row(each)) == each


def packed_with(contents: bytes, files: dict[str, bytes]) -> None:
    """A package with another list of contents: what does not agree with it is told."""
    out = BytesIO()
    with zipfile.ZipFile(out, "w") as packed:
        for name, data in files.items():
            packed.writestr(name, data)
        packed.writestr("contents.json", contents)
    package = open_package(out.getvalue())
    verify_package(package, "56df 5cef")
    if package.faults:
        raise DocumentError(list(package.faults))


def unpacked(data: bytes) -> None:
    box = open_box(data)
    faults = [fault for each in (*box.families, *box.boards) for fault in each.faults]
    if faults:
        raise DocumentError(faults)


class Hostile(SimpleTestCase):
    def test_spoilt_documents_of_every_format(self) -> None:
        """Read or refused with places; what the program accepts, an independent validator accepts by the published schema."""
        every = formats()
        self.assertEqual(set(every), set(KINDS))
        for kind, each in every.items():
            schema = jsonschema.Draft202012Validator(json.loads(schema_path(kind).read_text()))
            refused = accepted = 0
            for document in each.documents:
                each.work(encoded(document))
            for seed in range(rounds(300 if kind == "board" else 100, 10_000)):
                rng = Random(seed)
                document = json.loads(json.dumps(rng.choice(each.documents)))
                for _ in range(rng.choice([1, 1, 2])):
                    spoil(rng, document)
                try:
                    each.work(encoded(document))
                    accepted += 1
                except DocumentError as error:
                    refused += 1
                    self.assertTrue(error.faults and all(fault.expected for fault in error.faults), (kind, seed))
                except Exception as error:
                    raise AssertionError(f"{kind} {seed}: {type(error).__name__} {error}") from error
                else:
                    self.assertTrue(schema.is_valid(document), (kind, seed))
            self.assertGreater(refused, 20, kind)
            if kind not in ("package", "settings", "scenario"):
                self.assertGreater(accepted, 3, kind)

    def test_bytes_turned_in_a_package(self) -> None:
        """Whatever stands in the file, the answer is a package, one with changes told, or none."""
        whole = (PACKAGES / "0.4.0-closed.zip").read_bytes()
        self.assertEqual(open_package(whole).faults, ())
        told = 0
        for seed in range(rounds(200, 10_000)):
            rng, data = Random(seed), bytearray(whole)
            for _ in range(rng.choice([1, 1, 3, 30])):
                data[rng.randrange(len(data))] = rng.randrange(256)
            try:
                told += bool(open_package(bytes(data)).faults)
            except DocumentError:
                told += 1
        self.assertGreater(told, rounds(100, 5_000))

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
