"""Make up a catalogue of a hundred thousand boards and a file of a million statements, always the same from a seed."""

import csv
import json
from collections.abc import Iterator
from dataclasses import replace
from datetime import UTC, datetime
from hashlib import sha256
from pathlib import Path
from random import Random
from typing import Any

from django.db.models import OuterRef, Subquery

from catalogue.models import Board, BoardRevision, Family, FamilyRevision, Marking
from twincore.choose import COLUMNS, traits_of
from twincore.profile import parse_board, parse_family
from twincore.recognise import features_of

FAMILIES = 500
BOARDS_EACH = 200
STATEMENTS = 1_000_000
WRONG_EVERY = 5_000
NOW = datetime(2026, 1, 1, tzinfo=UTC)
PREFIXES = ("TVH", "UMC", "QN", "MGT", "ISB", "OFN", "LRT", "BRK")
COLOURS = ("green", "blue", "brown", "black", "white")
SIZES = ((160, 110), (180, 120), (140, 100), (120, 90), (200, 140))
SIGNALS = [f"s{n}" for n in range(14)]


def part_number(index: int) -> str:
    """The number of a board: prefix, four or five digits, a suffix."""
    return f"{PREFIXES[index % len(PREFIXES)]}-{1000 + index // len(PREFIXES)}-{'ABCDEFGH'[index // 7 % 8]}{index % 5}"


def family_document(index: int) -> dict[str, Any]:
    """A family: two machines' worth of inputs, four functions."""
    return {
        "format": "worthy-twin/family", "version": 1, "id": f"family-{index:03d}", "title": f"Machine of kind {index}",
        "inputs": [{"id": name} for name in ("power", "call", "limit_ok", "reset")],
        "outputs": [{"id": name} for name in ("fan", "valve", "alarm")], "rest": {"power": True, "limit_ok": True},
        "signals": [{"id": name, "kind": "output", "volts_class": "mains"} for name in SIGNALS],
        "functions": [
            {"id": "pre", "type": "duration", "importance": "safety", "tolerance": {"below": 0, "above": 5}},
            {"id": "post", "type": "duration", "importance": "behaviour", "tolerance": {"below": 5, "above": 15}},
            {"id": "trial", "type": "duration", "importance": "safety", "tolerance": {"below": 3, "above": 0}},
            {"id": "restart", "type": "choice", "importance": "safety", "choices": ["auto", "manual"]},
        ],
    }  # fmt: skip


def board_document(index: int, rng: Random) -> dict[str, Any]:
    """A board of its family, with settings, behaviour, plugs, holes and contacts like a real one's."""
    width, height = rng.choice(SIZES)
    signals = SIGNALS[: rng.randint(9, 14)]
    if rng.random() < 0.2:
        signals[3], signals[4] = signals[4], signals[3]
    times = {"pre": (15, 30), "trial": (5, 7), "post": (30, 60, 90, 120)}
    points = iter(range(1, 6))
    functions: dict[str, Any] = {}
    for name, values in times.items():
        names = [f"S1.{next(points)}" for _ in range((len(values) - 1).bit_length())]
        functions[name] = {
            "table": [
                {"when": {p: "on" if k >> b & 1 else "off" for b, p in enumerate(names)}, "value": value}
                for k, value in enumerate(values)
            ]
        }
    functions["restart"] = {
        "table": [{"when": {"S1.5": "off"}, "value": "auto"}, {"when": {"S1.5": "on"}, "value": "manual"}]
    }
    kept = ["lockout"] if rng.random() < 0.8 else []
    return {
        "format": "worthy-twin/board", "version": 1, "part_number": part_number(index), "also_marked": [f"0-{index:06d}"],
        "maker": PREFIXES[index % len(PREFIXES)], "title": "Burner board", "family": f"family-{index // BOARDS_EACH:03d}",
        "status": rng.choice(["current", "discontinued"]),
        "settings": [{"id": "S1", "kind": "dip", "positions": 6, "factory": "000000"}], "functions": functions,
        "behaviour": {"start": "standby", "survive_power_loss": kept, "states": {
            "standby": {"on": [], "go": [{"to": "purge", "if": {"call": True, "limit_ok": True}}]},
            "purge": {"on": ["fan"], "go": [{"to": "standby", "if": {"call": False}}, {"to": "light", "after": "pre"}]},
            "light": {"on": ["fan", "valve"], "go": [
                {"to": "post", "if": {"call": False}}, {"to": "lockout", "after": "trial", "when": {"restart": "manual"}},
                {"to": "purge", "after": "trial"}]},
            "post": {"on": ["fan"], "go": [{"to": "standby", "after": "post"}]},
            "lockout": {"on": ["alarm"], "go": [{"to": "standby", "if": {"reset": True}}]}}},
        "size_mm": [width, height], "height_mm": rng.choice([30, 35, 40]),
        "holes": [{"at": [x, y], "diameter_mm": 4.3} for x in (6, width - 6) for y in (6, height - 6)],
        "look": {"colour": rng.choice(COLOURS), "button": rng.choice(["none", "red", "black"]), "chip": f"print {rng.randint(1, 40)}"},
        "supply": {"volts": rng.choice([[198, 253], [198, 253], [103, 127], [21, 27]]), "hertz": [50], "phases": 1},
        "connectors": [{"id": f"C{n}", "style": f"QL-{len(part)}", "keyed": True,
                        "pins": [{"pin": k + 1, "signal": s} for k, s in enumerate(part)]}
                       for n, part in enumerate((signals[:8], signals[8:]), 1) if part],
        "relays": [{"id": f"RL{n}", "signal": s, "amps": {"resistive": rng.choice([5, 8, 10])}} for n, s in enumerate(signals[3:6], 1)],
    }  # fmt: skip


def fill_catalogue() -> None:
    """Load every family and board, in bulk, with what loading them one by one would have kept."""
    rng = Random(11)
    for number in range(FAMILIES):
        data = json.dumps(family_document(number)).encode()
        profile = parse_family(data)
        family = Family.objects.create(code=profile.id, title=profile.title)
        family.current = FamilyRevision.objects.create(
            family=family, number=1, document=data, digest=sha256(data).hexdigest(), loaded_at=NOW
        )
        family.save()
        _fill_family(family, range(number * BOARDS_EACH, (number + 1) * BOARDS_EACH), rng)


def _fill_family(family: Family, numbers: range, rng: Random) -> None:
    """All boards have the same settings, so that checking the first of a family checks them all."""
    documents = [board_document(index, rng) for index in numbers]
    first = parse_board(json.dumps(documents[0]).encode())
    rows = [
        Board(
            part_number=document["part_number"], family=family, maker=document["maker"], title=document["title"],
            status=document["status"], traits=traits_of(document), features=features_of(replace(first, document=document)),
        )
        for document in documents
    ]  # fmt: skip
    Board.objects.bulk_create(rows)
    encoded = [json.dumps(document).encode() for document in documents]
    BoardRevision.objects.bulk_create(
        BoardRevision(
            board=row, number=1, document=data, digest=sha256(data).hexdigest(), loaded_at=NOW,
            family_revision=family.current,
        )
        for row, data in zip(rows, encoded, strict=True)
    )  # fmt: skip
    current = BoardRevision.objects.filter(board=OuterRef("pk")).values("pk")[:1]
    Board.objects.filter(family=family).update(current=Subquery(current))
    Marking.objects.bulk_create(
        Marking.of(row, text)
        for row, index in zip(rows, numbers, strict=True)
        for text in (row.part_number, f"0-{index:06d}")
    )


def statement_rows() -> Iterator[dict[str, Any]]:
    """A million directed statements: chains of successors, universal boards, notes against, conditions; a few wrong."""
    rng = Random(12)
    boards = FAMILIES * BOARDS_EACH
    for number in range(STATEMENTS):
        original = number // 10
        base = original // BOARDS_EACH * BOARDS_EACH
        kind = number % 10
        relation = (
            "supersedes",
            "same",
            "universal",
            "universal",
            "kit",
            "not exchangeable",
            "exchange",
            "repair",
            "universal",
            "kit",
        )[kind]
        target = original + 1 if kind == 0 else base + rng.randrange(BOARDS_EACH)
        if relation in ("exchange", "repair"):
            target = original
        elif target == original or target >= boards:
            target = base if original != base else base + 1
        replacement = part_number(target) if kind != 1 else f"D{original % 100:02d}-{original}"
        yield {
            "id": f"st-{number}", "original": part_number(original), "replacement": replacement,
            "relation": relation if number % WRONG_EVERY else "cousin",
            "if": rng.choice(["", "", "made>=2001; made<=2015", "stages=1", "fuel=gas|oil"]),
            "needs": "adapter lead" if kind == 2 else "", "source": "" if kind == 8 else f"leaflet {number % 97}",
            "date": f"20{number % 20 + 5:02d}-0{number % 9 + 1}-1{number % 9}",
            "worked": number % 13 if kind < 3 else "", "failed": number % 3 if kind < 3 else "",
        }  # fmt: skip


def write_statements(path: Path) -> None:
    """The statements as the CSV file that somebody would send."""
    with path.open("w", newline="", encoding="utf-8") as file:
        writer = csv.DictWriter(file, COLUMNS, restval="")
        writer.writeheader()
        writer.writerows(statement_rows())
