"""The command line: check, decode, carry, simulate and prove on files alone."""

import argparse
import json
import sys
from collections.abc import Callable, Sequence
from functools import partial
from pathlib import Path
from typing import Any, TypeVar

from twincore import behaviour, profile, settings
from twincore.errors import DocumentError, TwinError
from twincore.profile import Board, Family, Record
from twincore.profile.values import plain

Answer = TypeVar("Answer")


class InputError(Exception):
    """An input is wrong: the file and what is the matter with it."""


def main(argv: Sequence[str] | None = None) -> int:
    """Run one call; 0 when answered, 2 when an input is wrong."""
    args = _parser().parse_args(argv)
    try:
        answer = args.call(args)
    except InputError as error:
        print(error, file=sys.stderr)
        return 2
    json.dump(plain(answer), sys.stdout, ensure_ascii=False)
    print()
    return 0


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="twin", description="Check, decode, carry over, simulate and prove, on files."
    )
    calls = parser.add_subparsers(required=True, metavar="CALL")
    check = calls.add_parser("check", help="check documents against every rule of their formats")
    check.add_argument("files", nargs="+", metavar="FILE")
    check.add_argument("--family", metavar="FAMILY", help="also check boards against this family")
    check.set_defaults(call=_check)
    for name, call, options, text in (
        ("decode", _decode, ("family", "board", "settings"), "what each function stands at"),
        (
            "carry",
            _carry,
            ("family", "original", "found", "replacement"),
            "positions of the replacement that do the same",
        ),
        ("simulate", _simulate, ("family", "board", "settings", "scenario"), "what a board shows over a scenario"),
        (
            "prove",
            _prove,
            ("family", "original", "original-settings", "replacement", "replacement-settings"),
            "whether two boards ever show anything different",
        ),
    ):
        sub = calls.add_parser(name, help=text)
        for option in options:
            sub.add_argument(f"--{option}", required=True, metavar="FILE")
        if name == "carry":
            sub.add_argument("--facts", metavar="FILE", help="facts about the machine, for the leaflet's tables")
        sub.set_defaults(call=call)
    return parser


def _check(args: argparse.Namespace) -> dict[str, Any]:
    family = _family(args.family) if args.family else None
    boards: list[tuple[str, Board]] = []
    records: list[tuple[str, bytes]] = []
    for name in args.files:
        data = _read(name)
        document = _named(name, partial(profile.open_document, data))
        match document.kind:
            case "family":
                _named(name, partial(profile.parse_family, data))
            case "board":
                boards.append((name, _checked_board(name, data, family)))
            case "settings":
                records.append((name, data))
            case "scenario":
                _named(name, partial(profile.parse_scenario, data, family.inputs if family else None))
    _check_together(boards, records)
    return {"ok": True}


def _checked_board(name: str, data: bytes, family: Family | None) -> Board:
    board = _named(name, lambda: profile.parse_board(data))
    if family:
        _named(name, lambda: profile.check_board_in_family(board, family))
    for warning in profile.warnings_of(board):
        print(f"{name}: {warning} (warning)", file=sys.stderr)
    return board


def _check_together(boards: list[tuple[str, Board]], records: list[tuple[str, bytes]]) -> None:
    """Boards that share a settings layout, and records of boards that are among the files."""
    first: dict[str, Board] = {}
    for name, board in boards:
        if board.settings_layout is not None:
            other = first.setdefault(board.settings_layout, board)
            _named(name, partial(profile.check_layouts_agree, board, other))
    by_number = {board.part_number: board for _, board in boards}
    for name, data in records:
        number = profile.open_document(data).root["part_number"]
        if number in by_number:
            _named(name, partial(profile.parse_record, data, by_number[number]))


def _decode(args: argparse.Namespace) -> dict[str, Any]:
    family = _family(args.family)
    board = _board(args.board, family)
    decoded = settings.decode(board, _record(args.settings, board), family)
    return {"functions": {name: each.answer() for name, each in decoded.items()}}


def _carry(args: argparse.Namespace) -> dict[str, Any]:
    family = _family(args.family)
    original, replacement = _board(args.original, family), _board(args.replacement, family)
    found = _record(args.found, original)
    facts = _facts(args.facts) if args.facts else None
    carried = _named(args.replacement, lambda: settings.carry(original, found, replacement, family))
    answer: dict[str, Any] = {
        "settings": carried.record and profile.written_positions(replacement, carried.record.points),
        "functions": [function.answer() for function in carried.functions],
        "misses": {"safety": carried.misses(True), "other": carried.misses(False)},
        "moved": carried.moved,
    }
    if carried.record is None:
        answer["why"] = {"reserved": list(carried.why)}
    if facts is not None:
        answer["charts"] = [
            {"chart": row.chart, "row": row.row, "set": row.positions, "missing": list(row.missing)}
            for row in settings.chart_rows(replacement, facts)
        ]
    return answer


def _simulate(args: argparse.Namespace) -> dict[str, Any]:
    family = _family(args.family)
    board = _board(args.board, family)
    record = _record(args.settings, board)
    scenario = _named(args.scenario, lambda: profile.parse_scenario(_read(args.scenario), family.inputs))
    shown = _named(args.board, lambda: behaviour.simulate(board, record, family, scenario))
    return {"outputs": [{"at": entry.at, "on": list(entry.on)} for entry in shown]}


def _prove(args: argparse.Namespace) -> dict[str, Any]:
    family = _family(args.family)
    original, replacement = _board(args.original, family), _board(args.replacement, family)
    twin = behaviour.make_twin(
        original,
        _record(args.original_settings, original),
        replacement,
        _record(args.replacement_settings, replacement),
        family,
    )
    return _named(f"{args.original} or {args.replacement}", lambda: behaviour.prove(twin)).answer()


def _family(name: str) -> Family:
    return _named(name, lambda: profile.parse_family(_read(name)))


def _board(name: str, family: Family) -> Board:
    return _checked_board(name, _read(name), family)


def _record(name: str, board: Board) -> Record:
    return _named(name, lambda: profile.parse_record(_read(name), board))


def _facts(name: str) -> dict[str, Any]:
    return _named(name, lambda: profile.parse_facts(_read(name)))


def _read(name: str) -> bytes:
    try:
        with Path(name).open("rb") as file:
            return file.read(profile.LARGEST_BYTES + 1)
    except OSError as error:
        raise InputError(f"{name}: expected a file that can be read: {error.strerror}") from error


def _named(name: str, work: Callable[[], Answer]) -> Answer:
    """Do some work; what the core refuses is told with the file's name."""
    try:
        return work()
    except DocumentError as error:
        raise InputError("\n".join(f"{name}: {fault}" for fault in error.faults)) from error
    except TwinError as error:
        raise InputError(f"{name}: {error}") from error


if __name__ == "__main__":
    sys.exit(main())
