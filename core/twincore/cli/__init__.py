"""The command line: the core's answers on files alone. What a call needs is loaded when it is called."""

import argparse
import json
import sys
from collections.abc import Sequence
from importlib import import_module
from typing import Any

from twincore import VERSION
from twincore.cli.wrong import InputError

PARTS: dict[str, dict[str, str]] = {
    "twins": {
        "check": "check documents against every rule of their formats",
        "decode": "what each function stands at",
        "carry": "positions of the replacement that do the same",
        "simulate": "what a board shows over a scenario",
        "prove": "whether two boards ever show anything different",
        "certify": "what shows that two boards never do, written down; or whether what is written shows it",
    },
    "carrying": {
        "wire": "where every wire of the original goes",
        "press": "the fewest presses from one setting to another",
        "trace": "whether a board makes what another was seen to do",
    },
    "catalogue": {
        "recognise": "which boards carry a marking like this, or what a nameplate says",
        "choose": "which boards may take a board's place, best first",
    },
    "stocking": {"stock": "which boards to carry, so that most failures are put right at the first visit"},
    "readings": {"measure": "judge a reading: inside, outside or cannot tell, with the margin"},
    "records": {
        "job": "a job played again from its entries: its sheet",
        "verify": "whether the package of a job is as it was written, and follows from its entries",
        "measured": "a run measured on the machine against the board that came out",
    },
}
"""The calls, by the module that answers them."""


class Calls:
    """The calls of the command line, each with its one line of help."""

    def __init__(self, parser: argparse.ArgumentParser) -> None:
        self._parsers = parser.add_subparsers(required=True, metavar="CALL")
        self._told = {name: text for names in PARTS.values() for name, text in names.items()}

    def add_parser(self, name: str) -> argparse.ArgumentParser:
        """A call, to be given its options."""
        return self._parsers.add_parser(name, help=self._told[name], description=self._told[name])


def main(argv: Sequence[str] | None = None) -> int:
    """Run one call; 0 when answered, 2 when an input is wrong."""
    given = sys.argv[1:] if argv is None else list(argv)
    parser = argparse.ArgumentParser(prog="twin", description="Replacement boards, judged on files alone.")
    parser.add_argument("--version", action="version", version=VERSION)
    calls = Calls(parser)
    for part, names in PARTS.items():
        if given and given[0] in names:
            import_module(f"twincore.cli.{part}").add_calls(calls)
        else:
            for name in names:
                calls.add_parser(name)
    args = parser.parse_args(given)
    try:
        answer: Any = args.call(args)
    except InputError as error:
        print(error, file=sys.stderr)
        return 2
    plain = import_module("twincore.profile.values").plain
    json.dump(plain(answer), sys.stdout, ensure_ascii=False)
    print()
    return 0
