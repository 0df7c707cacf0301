"""The calls about a job: play it again, verify its package, and judge a run that was measured on the machine."""

import argparse
import zipfile
from collections.abc import Mapping
from functools import partial
from pathlib import Path
from typing import Any

from twincore import chain, job, profile, prove
from twincore.behaviour import make_twin
from twincore.cli.files import named, read, read_board, read_family, read_record
from twincore.cli.wrong import InputError
from twincore.job.record.document import folder_of
from twincore.job.record.second_check import checked_again
from twincore.profile.values import plain


def add_calls(calls: Any) -> None:
    """Add these calls to the command line."""
    played = calls.add_parser("job")
    played.add_argument("job", metavar="JOB.json|ZIP")
    played.set_defaults(call=_job)
    verify = calls.add_parser("verify")
    verify.add_argument("package", metavar="JOB.zip")
    verify.add_argument(
        "--seal", default="", metavar="DIGITS", help="the seal from the cabinet label, or its first eight digits"
    )
    verify.set_defaults(call=_verify)
    run = calls.add_parser("measured")
    for option in ("family", "original", "settings", "run"):
        run.add_argument(f"--{option}", required=True, metavar="FILE")
    run.set_defaults(call=_measured)


def _job(args: argparse.Namespace) -> dict[str, Any]:
    def sheet() -> dict[str, Any]:
        if zipfile.is_zipfile(args.job):
            package = _opened(args.job)
            others = {name: _profiles(package.files, folder_of(name)) for name in job.BOARD_NAMES[1:]}
            return job.sheet_of(package.job, _profiles(package.files), others)
        return job.sheet_of(plain(chain.open_record(read(args.job, chain.LARGEST_RECORD))))

    return named(args.job, sheet)


def _profiles(files: Mapping[str, bytes], folder: str = "") -> job.Profiles:
    """The family and the boards in a package; those of a further board in its folder."""
    family, original, replacement = (files.get(folder + name) for name in chain.DOCUMENTS)
    return job.Profiles(
        profile.parse_family(family) if family else None,
        profile.parse_board(original) if original else None,
        profile.parse_board(replacement) if replacement else None,
    )


def _verify(args: argparse.Namespace) -> dict[str, Any]:
    package = named(args.package, lambda: _opened(args.package))
    answer = job.verify_package(package, args.seal)
    faults = [f"{fault['place']}: {fault['expected']}" for fault in answer["faults"]]
    if not faults:
        answer["twin_check"], refused = checked_again(package)
        faults = [str(each) for each in refused]
    if faults:
        raise InputError("\n".join(f"{args.package}: {fault}" for fault in faults))
    return answer


def _opened(name: str) -> chain.Package:
    try:
        # its files are read as they are asked for, to the end of the call
        return chain.open_package(Path(name).open("rb"))
    except OSError as error:
        raise InputError(f"{name}: expected a file that can be read: {error.strerror}") from error


def _measured(args: argparse.Namespace) -> dict[str, Any]:
    family = read_family(args.family)
    board = read_board(args.original, family)
    record = read_record(args.settings, board)
    run = named(args.run, lambda: profile.parse_trace(read(args.run), family))
    twin = make_twin(board, record, board, record, family)
    if twin.missing or twin.undecided:
        raise InputError(f"{args.original}: expected a known behaviour and settings that leave nothing open")
    found = named(args.original, partial(prove.judge_run, board, twin.values[0], family, run))
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
