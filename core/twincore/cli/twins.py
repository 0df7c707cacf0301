"""The calls on two boards: check, decode, carry, simulate, prove."""

import argparse
from functools import partial
from typing import Any

from twincore import behaviour, certificate, profile, settings, workshop
from twincore.choose import parse_statements
from twincore.cli.files import checked_board, named, read, read_board, read_facts, read_family, read_record
from twincore.cli.wrong import InputError
from twincore.profile import Board
from twincore.recognise import parse_nameplates
from twincore.rule_out import parse_rule_out
from twincore.wiring import parse_adapters, parse_wiring


def add_calls(calls: Any) -> None:
    """Add these calls to the command line."""
    check = calls.add_parser("check")
    check.add_argument("files", nargs="+", metavar="FILE")
    check.add_argument("--family", metavar="FAMILY", help="also check boards against this family")
    check.set_defaults(call=_check)
    pair = ("family", "original", "found", "replacement")
    proof = ("family", "original", "original-settings", "replacement", "replacement-settings")
    for name, call, options in (
        ("decode", _decode, ("family", "board", "settings")),
        ("carry", _carry, pair),
        ("simulate", _simulate, ("family", "board", "settings", "scenario")),
        ("prove", _prove, proof),
        ("certify", _certify, proof),
    ):
        sub = calls.add_parser(name)
        for option in options:
            sub.add_argument(f"--{option}", required=True, metavar="FILE")
        if name == "carry":
            sub.add_argument("--facts", metavar="FILE", help="facts about the machine, for the leaflet's tables")
        if name == "certify":
            sub.add_argument("--certificate", metavar="FILE", help="check this one instead of writing one")
        sub.set_defaults(call=call)


def _check(args: argparse.Namespace) -> dict[str, Any]:
    family = read_family(args.family) if args.family else None
    boards: list[tuple[str, Board]] = []
    records: list[tuple[str, bytes]] = []
    wirings: list[tuple[str, bytes]] = []
    for name in args.files:
        data = read(name)
        document = named(name, partial(profile.open_document, data))
        match document.kind:
            case "family":
                named(name, partial(profile.parse_family, data))
            case "board":
                boards.append((name, checked_board(name, data, family)))
            case "settings":
                records.append((name, data))
            case "wiring":
                wirings.append((name, data))
            case "adapters":
                named(name, partial(parse_adapters, data))
            case "trace":
                named(name, partial(profile.parse_trace, data, family))
            case "rule-out":
                named(name, partial(parse_rule_out, data))
            case "nameplates":
                named(name, partial(parse_nameplates, data))
            case "statements":
                named(name, partial(parse_statements, data))
            case "boards":
                box = named(name, partial(workshop.open_box, data))
                if wrong := [fault for each in (*box.families, *box.boards) for fault in each.located]:
                    raise InputError("\n".join(f"{name}: {fault}" for fault in wrong))
            case "scenario":
                named(name, partial(profile.parse_scenario, data, family.inputs if family else None))
    _check_together(boards, records)
    by_number = {board.part_number: board for _, board in boards}
    for name, data in wirings:
        board = by_number.get(profile.open_document(data).root["part_number"])
        if board and family:
            named(name, partial(parse_wiring, data, board, family))
    return {"ok": True}


def _check_together(boards: list[tuple[str, Board]], records: list[tuple[str, bytes]]) -> None:
    """Boards that share a settings layout, and records of boards that are among the files."""
    first: dict[str, Board] = {}
    for name, board in boards:
        if board.settings_layout is not None:
            other = first.setdefault(board.settings_layout, board)
            named(name, partial(profile.check_layouts_agree, board, other))
    by_number = {board.part_number: board for _, board in boards}
    for name, data in records:
        number = profile.open_document(data).root["part_number"]
        if number in by_number:
            named(name, partial(profile.parse_record, data, by_number[number]))


def _decode(args: argparse.Namespace) -> dict[str, Any]:
    family = read_family(args.family)
    board = read_board(args.board, family)
    decoded = settings.decode(board, read_record(args.settings, board), family)
    return {"functions": {name: each.answer() for name, each in decoded.items()}}


def _carry(args: argparse.Namespace) -> dict[str, Any]:
    family = read_family(args.family)
    original, replacement = read_board(args.original, family), read_board(args.replacement, family)
    found = read_record(args.found, original)
    facts = read_facts(args.facts) if args.facts else None
    carried = named(args.replacement, lambda: settings.carry(original, found, replacement, family))
    answer: dict[str, Any] = {
        "settings": carried.record and profile.written_positions(replacement, carried.record.points),
        "functions": [function.answer() for function in carried.functions],
        "misses": {"safety": carried.misses(True), "other": carried.misses(False)},
        "moved": carried.moved,
    }
    if not carried.proved:
        answer["proved"] = False
    if carried.record is None:
        answer["why"] = {"reserved": list(carried.why)}
    if facts is not None:
        answer["charts"] = [
            {"chart": row.chart, "row": row.row, "set": row.positions, "missing": list(row.missing)}
            for row in settings.chart_rows(replacement, {profile.ORIGINAL: original.part_number, **facts})
        ]
    return answer


def _simulate(args: argparse.Namespace) -> dict[str, Any]:
    family = read_family(args.family)
    board = read_board(args.board, family)
    record = read_record(args.settings, board)
    scenario = named(args.scenario, lambda: profile.parse_scenario(read(args.scenario), family.inputs))
    shown = named(args.board, lambda: behaviour.simulate(board, record, family, scenario))
    return {"outputs": [{"at": entry.at, "on": list(entry.on)} for entry in shown]}


def _prove(args: argparse.Namespace) -> dict[str, Any]:
    twin = _twin(args)
    return named(f"{args.original} or {args.replacement}", lambda: behaviour.prove(twin)).answer()


def _certify(args: argparse.Namespace) -> dict[str, Any]:
    """A certificate, or why there is none; of one that is given, how many places were checked. What it does not show is an
    error of its file.
    """
    twin = _twin(args)
    if args.certificate:
        given = named(args.certificate, lambda: profile.open_document(read(args.certificate), "certificate")).root
        try:
            return {"shown": True, "places": certificate.check_twin(twin, given)}
        except certificate.NotShown as error:
            raise InputError(f"{args.certificate}: {error}") from error
    written = certificate.certificate(twin)
    if written is None:
        raise InputError(
            f"{args.original} and {args.replacement}: expected two boards that are shown to be the same, whose certificate has "
            f"at most {certificate.MOST_PLACES} places, {profile.LARGEST_BYTES // 1_000_000} MB and "
            f"{profile.MOST_VALUES:,} values, and which read at most {certificate.MOST_TOGETHER} inputs and thresholds; "
            "`prove` says whether they are"
        )
    return written


def _twin(args: argparse.Namespace) -> behaviour.Twin:
    family = read_family(args.family)
    original, replacement = read_board(args.original, family), read_board(args.replacement, family)
    return behaviour.make_twin(
        original,
        read_record(args.original_settings, original),
        replacement,
        read_record(args.replacement_settings, replacement),
        family,
    )
