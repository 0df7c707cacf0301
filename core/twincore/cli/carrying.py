"""The calls that carry a board over by hand: wire, press, and trace against what was observed."""

import argparse
from functools import partial
from typing import Any

from twincore import behaviour, profile, programming, wiring
from twincore.cli.files import checked_board, named, read, read_board, read_family, read_record
from twincore.cli.wrong import InputError
from twincore.profile.values import plain


def add_calls(calls: Any) -> None:
    """Add these calls to the command line."""
    for name, call, options in (
        ("wire", _wire, ("family", "original", "found", "replacement")),
        ("press", _press, ("board", "from", "to")),
        (
            "trace",
            _trace,
            ("family", "board", "settings", "trace"),
        ),
    ):
        sub = calls.add_parser(name)
        for option in options:
            sub.add_argument(f"--{option}", required=True, metavar="FILE", dest=option.replace("from", "start"))
        if name == "wire":
            sub.add_argument("--adapters", metavar="FILE", help="adapter leads that are at hand")
            sub.add_argument("--order", choices=wiring.ORDERS, default=wiring.ORDERS[0])
        sub.set_defaults(call=call)


def _wire(args: argparse.Namespace) -> dict[str, Any]:
    family = read_family(args.family)
    original, replacement = read_board(args.original, family), read_board(args.replacement, family)
    record = named(args.found, lambda: wiring.parse_wiring(read(args.found), original, family))
    adapters = named(args.adapters, lambda: wiring.parse_adapters(read(args.adapters))) if args.adapters else ()
    plan = named(
        args.replacement, partial(wiring.carry_wires, original, record, replacement, family, adapters, args.order)
    )
    findings = wiring.wiring_findings(original, family, record.wires, record.without_record)
    return wiring.plan_document(plan, findings)


def _press(args: argparse.Namespace) -> dict[str, Any]:
    board = checked_board(args.board, read(args.board), None)
    start, target = read_record(args.start, board), read_record(args.to, board)
    try:
        plan = programming.plan_presses(board, start, target)
    except ValueError as error:
        raise InputError(f"{args.start} or {args.to}: {error}") from error
    return programming.press_document(plan)


def _trace(args: argparse.Namespace) -> dict[str, Any]:
    family = read_family(args.family)
    board = read_board(args.board, family)
    record = read_record(args.settings, board)
    trace = named(args.trace, lambda: profile.parse_trace(read(args.trace), family))
    found = named(args.board, lambda: behaviour.check_trace(board, record, family, trace))
    return {
        "agrees": found.agrees,
        "events": [
            {"output": e.output, "on": e.on, "seen_at": plain(e.seen_at), "at": plain(e.at), "verdict": e.verdict}
            for e in found.events
        ],
    }
