"""Documents for tests: the demo world, the oven cases, and small boards made in place."""

import json
from pathlib import Path
from typing import Any

from twincore import behaviour, profile
from twincore.profile import Board, Family, Record

ROOT = Path(__file__).resolve().parents[2]
DEMO = ROOT / "demo"
CASES = Path(__file__).parent / "cases"


def encoded(document: Any) -> bytes:
    return json.dumps(document).encode()


def demo_family() -> Family:
    return profile.parse_family((DEMO / "families/deck-oven.family.json").read_bytes())


def demo_board(part_number: str) -> Board:
    return profile.parse_board((DEMO / f"boards/{part_number}.board.json").read_bytes())


def record(board: Board, **positions: Any) -> Record:
    document = {
        "format": "worthy-twin/settings",
        "version": 1,
        "part_number": board.part_number,
        "positions": positions,
    }
    return profile.parse_record(encoded(document), board)


def case_twin(name: str) -> behaviour.Twin:
    folder = CASES / name
    family = profile.parse_family((folder / "family.json").read_bytes())
    boards = [profile.parse_board((folder / f"{side}.board.json").read_bytes()) for side in ("original", "replacement")]
    records = [
        profile.parse_record((folder / f"{side}.settings.json").read_bytes(), board)
        for side, board in zip(("original", "replacement"), boards, strict=True)
    ]
    return behaviour.make_twin(boards[0], records[0], boards[1], records[1], family)


def twin_of(
    family: dict[str, Any],
    boards: list[dict[str, Any]],
    positions: dict[str, Any] | list[dict[str, Any]] | None = None,
) -> behaviour.Twin:
    """A twin from documents, both boards standing alike, or each as is said (or as they leave the maker)."""
    parsed = profile.parse_family(encoded(family))
    built = [profile.parse_board(encoded(each)) for each in boards]
    for each in built:
        profile.check_board_in_family(each, parsed)
    each_stands = positions if isinstance(positions, list) else [positions, positions]
    records = [
        record(each, **stands) if stands else profile.factory_record(each)
        for each, stands in zip(built, each_stands, strict=True)
    ]
    return behaviour.make_twin(built[0], records[0], built[1], records[1], parsed)


def small_family(**more: Any) -> dict[str, Any]:
    """Inputs power, a, b; outputs x, y; one duration."""
    return {
        "format": "worthy-twin/family", "version": 1, "id": "small",
        "inputs": [{"id": name} for name in ("power", "a", "b")], "outputs": [{"id": "x"}, {"id": "y"}],
        "functions": [{"id": "t", "type": "duration", "importance": "behaviour"}], **more,
    }  # fmt: skip


def small_board(behaviour: dict[str, Any] | None, number: str = "S-1", **more: Any) -> dict[str, Any]:
    document = {
        "format": "worthy-twin/board", "version": 1, "part_number": number, "maker": "m", "title": "t",
        "family": "small", "status": "current", "settings": [], "functions": {"t": {"fixed": 5}},
    }  # fmt: skip
    if behaviour:
        document["behaviour"] = behaviour
    return {**document, **more}


CHAMBER = {"id": "temp", "title": "Chamber temperature", "level": True, "unit": "°C", "from": -30, "to": 60}
SET = {"id": "set", "type": "number", "importance": "behaviour", "unit": "°C", "tolerance": {"below": 2, "above": 0}}


def chamber() -> dict[str, Any]:
    """The small family with a level, and a function that thresholds may name."""
    family = small_family()
    return {
        **family, "inputs": [*family["inputs"], CHAMBER], "rest": {"power": True, "temp": 25},
        "functions": [*family["functions"], SET],
    }  # fmt: skip
