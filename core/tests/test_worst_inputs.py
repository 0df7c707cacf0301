"""The worst inputs of the size allowed, some by hand and some found by search: read or refused within the bounds stated.

A search starts from a document of the demo world and makes one list or object after another longer, keeping what costs more.
"""

import json
import zipfile
from collections.abc import Callable, Iterator
from copy import deepcopy
from dataclasses import replace
from hashlib import sha256
from io import BytesIO
from random import Random
from typing import Any
from uuid import uuid4

from django.test import SimpleTestCase

from tests.builders import DEMO, demo_family, encoded
from tests.cost import Cost, cost, rounds
from twincore import job, profile
from twincore.chain import (
    LARGEST_FILE,
    LARGEST_PACKAGE,
    LARGEST_PICTURES,
    LARGEST_RECORD,
    MOST_ENTRIES,
    MOST_SAID,
    chained,
    open_package,
    open_record,
)
from twincore.chain.bounds import MOST_FILES
from twincore.chain.bounds import MOST_VALUES as RECORD_VALUES
from twincore.choose import parse_statements
from twincore.choose.contradictions import contradictions
from twincore.errors import DocumentError
from twincore.profile.document import KINDS, LARGEST_BYTES, MOST_VALUES, jsonable
from twincore.recognise import parse_nameplates
from twincore.rule_out import parse_rule_out

SECONDS, MEGABYTES = 2.0, 150.0
LENGTHS = (3, 10, 30, 60, 100, 200, 500, 1000, 5000)
Work = Callable[[bytes], Any]


def places(node: Any, path: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    """Every list and object of a document that is not empty."""
    if isinstance(node, dict | list) and node:
        yield path
        for key in list(node) if isinstance(node, dict) else range(len(node)):
            yield from places(node[key], (*path, key))


def lengthened(document: Any, path: tuple[Any, ...], length: int) -> Any:
    """A copy in which a list or an object has so many items, each with a name of its own."""
    copy = deepcopy(document)
    box = copy
    for key in path:
        box = box[key]
    items = list(box.items() if isinstance(box, dict) else enumerate(box))
    for number in range(len(box), length):
        key, value = items[number % len(items)]
        fresh = deepcopy(value)
        if isinstance(fresh, dict):
            fresh |= {
                each: f"{fresh[each]}{number}"
                for each in ("id", "name", "part_number")
                if isinstance(fresh.get(each), str)
            }
        elif isinstance(fresh, str):
            fresh += str(number)
        if isinstance(box, dict):
            box[f"{key}{number}"] = fresh
        else:
            box.append(fresh)
    return copy


class Bounded(SimpleTestCase):
    """What a piece of work costs is within the bounds."""

    def within(self, found: Cost, what: Any) -> Cost:
        self.assertNotIn("failed", found.said, what)
        self.assertLess(found.seconds, SECONDS, what)
        self.assertLess(found.megabytes, MEGABYTES, what)
        return found


class WorstDocuments(Bounded):
    def climb(self, start: Any, work: Work, seed: int, steps: int) -> int:
        """Search for a document that costs much; how many were tried."""
        rng, best, most, tried = Random(seed), start, 0.0, 0
        for _ in range(steps):
            path = rng.choice(list(places(best)))
            grown = encoded(lengthened(best, path, rng.choice(LENGTHS)))
            if len(grown) > LARGEST_BYTES:
                continue
            tried += 1
            found = self.within(cost(lambda: work(grown), (DocumentError,)), (seed, path))  # noqa: B023  # run at once
            if found.said == "done" and found.seconds >= most:
                best, most = json.loads(grown), found.seconds
        return tried

    def test_documents_found_by_search(self) -> None:
        family = demo_family()

        def board(data: bytes) -> None:
            read = profile.parse_board(data)
            profile.check_board_in_family(read, family)
            profile.warnings_of(read)

        readers: dict[str, Work] = {
            "families/deck-oven.family.json": profile.parse_family,
            "boards/TVH-2210-B.board.json": board,
            "statements/spiral-mixer.statements.json": lambda data: contradictions(parse_statements(data)),
            "nameplates/tarvenholm.nameplates.json": parse_nameplates,
            "rule-out/retarder-prover.rule-out.json": parse_rule_out,
        }
        for name, work in readers.items():
            start = json.loads((DEMO / name).read_text())
            for seed in range(rounds(1, 10)):
                with self.subTest(name, seed=seed):
                    self.assertGreater(self.climb(start, work, seed, rounds(25, 200)), 5)

    def test_the_most_values_of_every_format(self) -> None:
        """A defect: half a million wrong numbers in 2 MB took a minute, and 1.3 GB, to be told."""
        rng = Random(5)
        for kind in KINDS:
            for count in (MOST_VALUES // 2 - 10, 4_500, 600_000):
                name = rng.choice(["x", "notes", "entries", "settings", "statements", "steps", "tests"])
                one = rng.choice(["1.5", "{}", "1", '"a"', "[]", '{"a":1}'])
                text = f'{{"format":"worthy-twin/{kind}","version":1,"{name}":[{",".join([one] * count)}]}}'
                data = text.encode()[:LARGEST_BYTES]
                with self.subTest(kind, name=name, one=one, count=count):
                    found = self.within(cost(lambda: profile.open_document(data), (DocumentError,)), kind)  # noqa: B023
                    self.assertIn("refused", found.said)

    def test_lists_in_lists_that_are_wrong_everywhere(self) -> None:
        pins = '{"pins":[' + ",".join(["1"] * 500) + "]}"
        data = f'{{"format":"worthy-twin/board","version":1,"connectors":[{",".join([pins] * 250)}]}}'.encode()
        found = self.within(cost(lambda: profile.open_document(data), (DocumentError,)), "pins")
        self.assertIn("refused", found.said)


def record_of(entry: Callable[[int], dict[str, Any]], state: Any = None, count: int = MOST_ENTRIES) -> bytes:
    """A job's document of so many entries."""
    named = str(uuid4())
    entries = [
        {"id": str(uuid4()), "number": number, "at": "2031-02-03T04:05:06.000+00:00", "by": "Wennick Tarl", "before": None} | entry(number)
        for number in range(1, count + 1)
    ]  # fmt: skip
    entries = [each | {"digest": digest} for each, digest in zip(entries, chained(named, entries), strict=True)]
    return encoded({
        "format": "worthy-twin/job", "version": 1, "id": named, "number": "J-1", "depot": "Cressel", "machine": "Deck oven 1",
        "opened": {"at": "2031-02-03T04:05:06.000+00:00", "by": "Wennick Tarl"}, "entries": entries, "entry_count": count,
        "state": state or {},
    })  # fmt: skip


class WorstRecords(Bounded):
    """A job's record at its largest."""

    def looked_at(self, data: bytes) -> None:
        record = jsonable(open_record(data))
        faults = job.partings(record["entries"], record["state"])
        if faults:
            raise DocumentError(faults)

    def test_a_record_of_the_most_entries(self) -> None:
        kinds: dict[str, Callable[[int], dict[str, Any]]] = {
            "a wire each": lambda n: {
                "target": f"wire.w{n}", "after": {"pin": "1", "tag": "HT", "colour": "black", "connector": "C3"},
            },
            "what cannot stand": lambda n: {"target": f"wire.w{n}", "after": {"pin": []}},
            "what cannot stand, and is taken back": lambda n: {
                "target": f"wire.w{n % 2500}", "after": {"pin": []} if n < 2500 else None,
            },
            "no target of a job": lambda n: {"target": f"nowhere.{n}", "after": 1},
            "the same again": lambda n: {"target": "found.S1", "after": "0" * 60},
        }  # fmt: skip
        for name, entry in kinds.items():
            with self.subTest(name):
                data = record_of(entry)
                self.within(cost(lambda: self.looked_at(data), (DocumentError,)), name)  # noqa: B023

    def test_a_record_whose_state_differs_everywhere(self) -> None:
        wires = {f"w{number}": {"pin": "2"} for number in range(MOST_ENTRIES)}
        data = record_of(lambda n: {"target": f"wire.w{n}", "after": {"pin": "1", "connector": "C3"}}, {"wires": wires})
        found = self.within(cost(lambda: self.looked_at(data), (DocumentError,)), "wires")
        self.assertIn("refused", found.said)

    def test_one_entry_more_and_one_byte_more_are_refused(self) -> None:
        more = record_of(lambda n: {"target": "complaint", "after": "x"}, count=MOST_ENTRIES + 1)
        self.assertIn("at most 5000 entries", cost(lambda: open_record(more), (DocumentError,)).said)
        large = b" " * (LARGEST_RECORD + 1)
        self.assertIn("at most 12,000,000 bytes", cost(lambda: open_record(large), (DocumentError,)).said)


class WorstPackages(Bounded):
    """A package is read one file at a time."""

    def packed(self, files: dict[str, bytes], how: int = zipfile.ZIP_STORED) -> bytes:
        listed = [
            {"name": name, "bytes": len(data), "sha256": sha256(data).hexdigest()} for name, data in files.items()
        ]
        files = {**files, "contents.json": encoded({"format": "worthy-twin/package", "version": 1, "files": listed})}
        out = BytesIO()
        with zipfile.ZipFile(out, "w", how) as packed:
            for name, data in files.items():
                packed.writestr(name, data)
        return out.getvalue()

    def opened(self, data: bytes) -> None:
        package = open_package(data)
        if package.faults:
            raise DocumentError(package.faults)

    def test_the_most_pictures_of_the_largest_size(self) -> None:
        noise = Random(1).randbytes(LARGEST_FILE)
        pictures = {f"pictures/{number}.png": noise[number:] for number in range(15)}
        record = record_of(lambda n: {"target": "found.S1", "after": "0" * 60}, count=2000)
        data = self.packed({"job.json": record, **pictures})
        hashed = cost(lambda: sha256(data), ()).seconds  # what any reader of so many bytes pays, on this machine
        found = cost(lambda: self.opened(data), (DocumentError,))
        self.within(replace(found, seconds=found.seconds - hashed), 15)
        self.assertIn("done", found.said)

    def test_what_grows_as_it_is_unpacked(self) -> None:
        """A defect: 371 kB grew to 512 MB before they were refused."""
        bomb = {f"pictures/{number}.png": bytes(LARGEST_FILE) for number in range(19)}
        data = self.packed({"job.json": b"{}", **bomb}, zipfile.ZIP_DEFLATED)
        self.assertLess(len(data), 500_000)
        self.assertIn("folded to no less", self.within(cost(lambda: self.opened(data), (DocumentError,)), "bomb").said)

    def test_very_many_names(self) -> None:
        data = self.packed({f"{number}": b"" for number in range(60_000)})
        self.assertIn("at most 260 files", self.within(cost(lambda: self.opened(data), (DocumentError,)), "names").said)


class Stated(SimpleTestCase):
    def test_the_bounds_are_stated_in_the_formats(self) -> None:
        text = (DEMO.parent / "docs/formats/README.md").read_text()
        for bound in (
            LARGEST_BYTES,
            MOST_VALUES,
            LARGEST_RECORD,
            RECORD_VALUES,
            MOST_ENTRIES,
            MOST_SAID,
            LARGEST_FILE,
            LARGEST_PICTURES,
            LARGEST_PACKAGE,
            MOST_FILES,
        ):
            self.assertIn(f"{bound:,}".replace(",000,000", " MB"), text)
