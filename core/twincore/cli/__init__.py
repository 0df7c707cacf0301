"""The command line: the core's answers on files alone."""

import argparse
import json
import sys
from collections.abc import Sequence

from twincore.cli import carrying, catalogue, readings, records, twins
from twincore.cli.files import InputError
from twincore.profile.values import plain


def main(argv: Sequence[str] | None = None) -> int:
    """Run one call; 0 when answered, 2 when an input is wrong."""
    parser = argparse.ArgumentParser(
        prog="twin",
        description="Check, decode, carry over, wire, press, simulate, prove, trace, recognise, choose, measure, verify and replay, on files.",
    )
    calls = parser.add_subparsers(required=True, metavar="CALL")
    for part in (twins, carrying, catalogue, readings, records):
        part.add_calls(calls)
    args = parser.parse_args(argv)
    try:
        answer = args.call(args)
    except InputError as error:
        print(error, file=sys.stderr)
        return 2
    json.dump(plain(answer), sys.stdout, ensure_ascii=False)
    print()
    return 0
