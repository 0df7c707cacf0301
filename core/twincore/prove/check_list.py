"""What a fitted board is looked at for, in seconds and in any order: that it works, not yet that it works as the original did."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from twincore.profile import Board, Family
from twincore.prove.data import forcing_of

Kind = Literal["output", "input", "supply", "codes", "leaks", "own"]
ALWAYS: tuple[Kind, ...] = ("supply", "codes", "leaks")
"""Looked at on every machine (common practice, no source)."""

OWN = "own/"
"""What the names of lines of one's own begin with."""


@dataclass(frozen=True, slots=True)
class CheckLine:
    """One thing to look at; `of` is the output or input, or what somebody wrote."""

    id: str
    kind: Kind
    of: str = ""


def check_lines(family: Family | None, board: Board | None, own: Mapping[str, str]) -> list[CheckLine]:
    """Every output seen, every input made that can be made here, what is always looked at, and lines of one's own.

    Of a machine of no known kind only what is always looked at; of no known board every output of the kind.
    """
    always = [
        *(CheckLine(kind, kind) for kind in ALWAYS),
        *(CheckLine(name, "own", words) for name, words in own.items()),
    ]
    if family is None:
        return always
    machines = board.behaviour.machines if board and board.behaviour else ()
    known = {output.name for machine in machines for state in machine.states.values() for output in state.on}
    outputs = [name for name in family.outputs if name in family.compared and (not known or name in known)]
    cannot = {each.input for each in forcing_of(family).values() if each.way == "cannot"}
    inputs = [name for name in family.inputs if name != "power" and name not in cannot]
    return [
        *(CheckLine(f"output/{name}", "output", name) for name in outputs),
        *(CheckLine(f"input/{name}", "input", name) for name in inputs),
        *always,
    ]
