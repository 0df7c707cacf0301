"""The calls about a job that is done: verify its package, and judge a run that was measured on the machine."""

import argparse
from functools import partial
from pathlib import Path
from typing import Any

from twincore import chain, profile, proving
from twincore.behaviour import make_twin
from twincore.cli.files import InputError, named, read, read_board, read_family, read_record
from twincore.profile.values import plain


def add_calls(calls: Any) -> None:
    """Add these calls to the command line."""
    verify = calls.add_parser("verify", help="whether the package of a job is as it was written")
    verify.add_argument("package", metavar="JOB.zip")
    verify.add_argument(
        "--seal", default="", metavar="DIGITS", help="the seal from the cabinet label, or its first eight digits"
    )
    verify.set_defaults(call=_verify)
    run = calls.add_parser("measured", help="a run measured on the machine against the board that came out")
    for option in ("family", "original", "settings", "run"):
        run.add_argument(f"--{option}", required=True, metavar="FILE")
    run.set_defaults(call=_measured)


def _verify(args: argparse.Namespace) -> dict[str, Any]:
    def opened() -> chain.Package:
        try:
            with Path(args.package).open("rb") as file:
                return chain.open_package(file)
        except OSError as error:
            raise InputError(f"{args.package}: expected a file that can be read: {error.strerror}") from error

    answer = chain.verify_package(named(args.package, opened), args.seal)
    if not answer["intact"]:
        raise InputError(
            "\n".join(f"{args.package}: {fault['place']}: {fault['expected']}" for fault in answer["faults"])
        )
    return answer


def _measured(args: argparse.Namespace) -> dict[str, Any]:
    family = read_family(args.family)
    board = read_board(args.original, family)
    record = read_record(args.settings, board)
    run = named(args.run, lambda: profile.parse_trace(read(args.run), family))
    twin = make_twin(board, record, board, record, family)
    if twin.missing or twin.undecided:
        raise InputError(f"{args.original}: expected a known behaviour and settings that leave nothing open")
    found = named(args.original, partial(proving.judge_run, board, twin.values[0], family, run))
    return {
        "verdict": found.verdict,
        "events": [
            {
                "output": e.output, "on": e.on, "seen_at": e.seen_at, "due_at": e.due.at if e.due else None,
                "from": e.due.low if e.due else None, "to": e.due.high if e.due else None,
                "uncertainty": round(e.uncertainty_s, 3), "verdict": e.verdict, "margin": plain(e.margin_s),
            }
            for e in found.events
        ],
    }  # fmt: skip
