"""What somebody says that positions mean, where no profile says it: it holds in this job alone."""

import json
import re
from collections.abc import Iterator, Mapping
from dataclasses import replace
from hashlib import sha256
from math import prod
from typing import Any

from twincore.carry_over import exactly
from twincore.errors import Refusal, WrongValue
from twincore.job.case import Case
from twincore.job.rules.state import State
from twincore.job.targets.carry_over import MeaningSaid
from twincore.profile import Board, Family, FunctionDef
from twincore.profile.functions import FunctionMap, Row
from twincore.profile.values import plain
from twincore.workshop import combinations_of, read_value, value_text

SIDES = ("original", "replacement")
MOST_CELLS = 64
NAME = re.compile(rf"({'|'.join(SIDES)})/[A-Za-z0-9._-]{{1,60}}")


def with_meanings(case: Case) -> Case:
    """A job at hand whose boards mean what was said of them; the case itself where nothing was said."""
    said = _sayings(case.state)
    if not said or case.family is None:
        return case
    family = _family(case.family, said)
    boards = {side: _board(getattr(case, side), side, said, family) for side in SIDES}
    mark = sha256(json.dumps(said, sort_keys=True).encode()).hexdigest()[:16]
    names = tuple(f"{name} {mark}" for name in case.names)
    return replace(case, family=family, names=names, **boards)  # type: ignore[arg-type] # three names


def said_function(name: str) -> tuple[str, str]:
    """The side and the function that a name speaks of. Raises WrongValue."""
    if not NAME.fullmatch(name):
        raise WrongValue(f"Expected a board and a function, such as original/purge, found {name}.")
    side, _, function = name.partition("/")
    return side, function


def checked_meaning(case: Case, name: str, said: MeaningSaid) -> MeaningSaid:
    """What somebody says that positions mean, its values read as they are written. Raises WrongValue and Refusal."""
    side, function = said_function(name)
    board: Board | None = getattr(case, side)
    if board is None or case.family is None:
        raise Refusal("Choose the board first.")
    if said["of"] != board.part_number:
        raise WrongValue(f"This job has {board.part_number} there, not {said['of']}. Load the page again.")
    if function in board.document["functions"]:
        raise Refusal(f"The profile of {board.part_number} says what this means. Correct it in the workshop.")
    points = said["points"]
    if not points or len(set(points)) < len(points) or not set(points) <= set(board.points):
        raise WrongValue(f"Expected places of {board.part_number} that mean it, each once.")
    if not _fits(said, board):
        raise WrongValue(f"Expected a value for each way in which {', '.join(points)} may stand, {MOST_CELLS} at most.")
    others = {each: kept for each, kept in _sayings(case.state).items() if each != name}
    written = any(each["id"] == function for each in case.family.document["functions"])
    known = case.family.function(function) if written else None
    definition = known or _definition(function, [*_of(function, others), said])
    values = [_read(each, definition) for each in said["values"]]
    if all(each is None for each in values):
        raise WrongValue("Give at least one value.")
    return {**said, "values": values}


def meaning_words(said: Mapping[str, Any], board: Board) -> str:
    """What was said as one sentence: "S1.3 off 30 s, on 60 s"."""
    unit = said.get("unit") or ("s" if said["type"] == "duration" else "")
    told = []
    for at, value in zip(combinations_of(said["points"], board.points), said["values"], strict=True):
        if value is not None:
            where = " ".join(f"{point} {value_text(each)}" for point, each in zip(said["points"], at, strict=True))
            told.append(f"{where}: {value_text(exactly(value))}{f' {unit}' if unit else ''}")
    return ", ".join(told)


def told_of(state: State, board: Board) -> Iterator[tuple[str, Mapping[str, Any]]]:
    """The functions that were said of a board, on whichever side it is, each with what was said."""
    for name, said in _sayings(state).items():
        if said["of"] == board.part_number and _fits(said, board):
            yield said_function(name)[1], said


def _sayings(state: State) -> dict[str, Any]:
    """What was said, without names that a record from elsewhere made up."""
    return {name: said for name, said in state["meanings"].items() if NAME.fullmatch(name)}


def _read(value: Any, definition: FunctionDef) -> Any:
    if value is None or value == "":
        return None
    found = read_value(value, definition) if isinstance(value, str) else exactly(value)
    if found is None or not definition.accepts(found):
        raise WrongValue(f"Expected {definition.wanted_value()} for {definition.title}, found {value}.")
    return plain(found)


def _functions(said: Mapping[str, Any]) -> set[str]:
    return {said_function(name)[1] for name in said}


def _of(function: str, said: Mapping[str, Any]) -> list[Any]:
    return [each for name, each in said.items() if said_function(name)[1] == function]


def _definition(function: str, said: list[Any]) -> FunctionDef:
    """A function that only this job knows; what was said of either board to choose from is put together."""
    first = said[0]
    texts = [value for each in said for value in each["values"] if isinstance(value, str) and value]
    choices = tuple(dict.fromkeys(texts)) if first["type"] == "choice" else ()
    unit = first.get("unit") or ("s" if first["type"] == "duration" else "")
    return FunctionDef(function, first["title"], first["type"], unit, choices, "behaviour", 0, 0, None)


def _family(family: Family, said: Mapping[str, Any]) -> Family:
    new = [_definition(each, _of(each, said)) for each in sorted(_functions(said)) if family.function(each) is None]
    titles = family.titles | {each.id: each.title for each in new}
    return replace(family, functions=(*family.functions, *new), titles=titles)


def _board(board: Board | None, side: str, said: Mapping[str, Any], family: Family) -> Board | None:
    if board is None:
        return None
    functions = dict(board.functions)
    for name, each in said.items():
        where, function = said_function(name)
        if where == side and each["of"] == board.part_number and _fits(each, board) and function not in functions:
            definition = family.function(function)
            assert definition is not None  # what is said is among the family's functions
            if (rows := _rows(each, board, definition)) is not None:
                functions[function] = FunctionMap(function, tuple(each["points"]), rows=rows)
    return replace(board, functions=functions)


def _rows(said: Mapping[str, Any], board: Board, definition: FunctionDef) -> tuple[Row, ...] | None:
    """What was said as rows of a table; None where a record from elsewhere says what this function cannot be."""
    values = [exactly(each) for each in said["values"]]
    if not all(each is None or definition.accepts(each) for each in values):
        return None
    ways = combinations_of(said["points"], board.points)
    told = [(at, value) for at, value in zip(ways, values, strict=True) if value is not None]
    return tuple(Row(dict(zip(said["points"], at, strict=True)), value) for at, value in told)


def _fits(said: Mapping[str, Any], board: Board) -> bool:
    """Whether this revision of the board has the places that were spoken of, and a value for each way they may stand."""
    if not set(said["points"]) <= set(board.points):
        return False
    # counted before any of them is made: a menu parameter may have very many numbers
    ways = prod(len(board.points[each].domain) for each in said["points"])
    return ways == len(said["values"]) <= MOST_CELLS and all(map(_is_exact, said["values"]))


def _is_exact(value: Any) -> bool:
    """Whether a value is none, a text, or a number as fine and as large as numbers are here."""
    try:
        exactly(value)
    except WrongValue:
        return False
    return True
