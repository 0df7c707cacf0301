"""A draft: a board's document and its kind's while somebody works on them. Half done is allowed, unreadable is not."""

import json
from collections.abc import Mapping, Sequence
from copy import deepcopy
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

from twincore.errors import DocumentError, Fault, Refusal, WrongValue
from twincore.profile import (
    LARGEST_BYTES,
    Board,
    Element,
    Family,
    check_board_in_family,
    doubtful_elements,
    hanging_of,
    parse_board,
    parse_family,
)
from twincore.profile.document import DEEPEST, depth_of, jsonable

HALF_DONE = ("functions", "behaviour", "charts", "learning", "acts")
"""Parts of a board that may be half done; without them it can always be read and drawn."""
PARTS = ("board", "family")
FIXED = ("format", "version", "part_number", "family", "id")
"""What a draft is a draft of, and what no edit changes."""
DEEPEST_PATH = 10
Path = Sequence[str | int]


@dataclass(frozen=True, slots=True)
class Draft:
    """Both documents as plain JSON data. `board` may be half done in its HALF_DONE parts; `family` is always whole."""

    board: dict[str, Any]
    family: dict[str, Any]

    def kind(self) -> Family:
        """The kind of machine as this draft has it."""
        return parse_family(document_bytes(self.family))

    def skeleton(self) -> Board:
        """The board without what may be half done: what can be set, plugs, drawing."""
        plain = {key: value for key, value in self.board.items() if key not in HALF_DONE}
        return parse_board(document_bytes({**plain, "functions": {}}))

    def whole(self) -> Board:
        """The board in full, fitted into its kind. Raises DocumentError with every fault while it is half done."""
        board = parse_board(document_bytes(self.board))
        check_board_in_family(board, self.kind())
        return board

    def at(self, path: Path) -> Any:
        """What stands at a place; None where nothing does."""
        node: Any = {"board": self.board, "family": self.family}
        for part in path:
            if isinstance(node, dict) and isinstance(part, str):
                node = node.get(part)
            elif isinstance(node, list) and isinstance(part, int) and 0 <= part < len(node):
                node = node[part]
            else:
                return None
        return node


def opened(board: bytes, family: bytes) -> Draft:
    """A draft of documents that are whole."""
    return Draft(json.loads(board), json.loads(family))


def edited(draft: Draft, path: Path, before: Any, after: Any) -> Draft:
    """The draft with something else at a place; None takes away what is there.

    Raises Refusal where the place is none that may be edited or where something else stands there than `before` says,
    and WrongValue or DocumentError where the draft could not be read any more.
    """
    if not path or path[0] not in PARTS or len(path) < 2 or len(path) > DEEPEST_PATH or path[1] in FIXED:
        raise Refusal("Nothing of a draft stands at this place.", place=list(path))
    _check_writable(path, after)
    if not same_json(draft.at(path), before):
        raise Refusal("Somebody else changed this meanwhile. Look at it again.", now=draft.at(path))
    new = Draft(deepcopy(draft.board), deepcopy(draft.family))
    _put(new, path, deepcopy(after))
    _check_readable(draft, new, path)
    return new


def _check_writable(path: Path, after: Any) -> None:
    """Refuse what a JSON text cannot hold, or holds too deep: not a number, half a character, endless nesting."""
    try:
        json.dumps([list(path), after], allow_nan=False, ensure_ascii=False).encode()
        deep = depth_of(after) + len(path) > DEEPEST
    except (ValueError, RecursionError):
        deep = True
    if deep:
        raise WrongValue(
            "This is no value that a board's document can hold.", [Fault(str(path[-1]), "expected plain values")]
        )


def _put(draft: Draft, path: Path, after: Any) -> None:
    node: Any = {"board": draft.board, "family": draft.family}
    for part, following in pairwise(path):
        if isinstance(node, dict) and isinstance(part, str):
            if part not in node and after is not None:
                node[part] = [] if isinstance(following, int) else {}
            node = node.get(part)
        elif isinstance(node, list) and isinstance(part, int) and 0 <= part < len(node):
            node = node[part]
        else:
            raise Refusal("Nothing of a draft stands at this place.", place=list(path))
    last = path[-1]
    if isinstance(node, dict) and isinstance(last, str):
        if after is None:
            node.pop(last, None)
        else:
            node[last] = after
    elif isinstance(node, list) and isinstance(last, int) and 0 <= last <= len(node):
        node[last : last + 1] = [] if after is None else [after]
    else:
        raise Refusal("Nothing of a draft stands at this place.", place=list(path))


def _check_readable(old: Draft, new: Draft, path: Path) -> None:
    if len(document_bytes(new.board)) > LARGEST_BYTES:
        raise WrongValue(f"A board has room for {LARGEST_BYTES:,} bytes.")
    if path[0] == "family":
        check_shape(new.kind)
        return
    half_done = {key: new.board[key] for key in HALF_DONE if key in new.board}
    if wrong := shape_faults(half_done):
        raise WrongValue("This does not have the form of a board's part.", wrong)
    check_shape(new.skeleton)


def check_shape(read: Any) -> None:
    """Run what reads a document; its faults come out as a wrong value, for nothing of it is kept."""
    try:
        read()
    except DocumentError as error:
        raise WrongValue("The board could not be read with this. Nothing was changed.", error.faults) from error


def shape_faults(parts: Mapping[str, Any]) -> list[Fault]:
    """Where a half done part is not even of the form in which it can be shown: lists and objects where they belong."""
    found = []
    for name, node in parts.get("functions", {}).items() if isinstance(parts.get("functions", {}), dict) else ():
        table = node.get("table", []) if isinstance(node, dict) else None
        if not (isinstance(table, list) and all(_has(row, when=dict) and "value" in row for row in table)):
            found.append(Fault(f"functions.{name}", "expected fixed, from or a table of rows with when and value"))
        elif not {"fixed", "from", "table"} & node.keys():
            found.append(Fault(f"functions.{name}", "expected fixed, from or table"))
    charts = parts.get("charts", [])
    for index, chart in enumerate(charts if isinstance(charts, list) else [charts]):
        rows = chart.get("rows") if isinstance(chart, dict) else None
        if not (isinstance(rows, list) and all(_has(row, **{"if": dict, "set": dict}) for row in rows)):
            found.append(Fault(f"charts[{index}]", "expected rows with if and set"))
    if not isinstance(parts.get("functions", {}), dict):
        found.append(Fault("functions", "expected an object"))
    behaviour = parts.get("behaviour", {"states": {}})
    machines = behaviour.get("machines", [behaviour]) if isinstance(behaviour, dict) else None
    if not (isinstance(machines, list) and all(_has(each, states=dict) for each in machines)):
        return [*found, Fault("behaviour", "expected states")]
    for number, machine in enumerate(machines):
        for name, state in machine["states"].items():
            arrows = state.get("go", []) if isinstance(state, dict) else None
            if not (isinstance(arrows, list) and all(isinstance(each, dict) for each in arrows)):
                found.append(Fault(f"behaviour.machines[{number}].states.{name}", "expected on and go"))
    return found


def _has(node: Any, **kinds: type) -> bool:
    return isinstance(node, dict) and all(isinstance(node.get(name), kind) for name, kind in kinds.items())


def same_json(one: Any, other: Any) -> bool:
    """Whether two JSON values are the same, whatever the order of keys."""
    return json.dumps(one, sort_keys=True) == json.dumps(other, sort_keys=True)


def elements_of(board: Board) -> dict[str, Element]:
    """A board's elements by name."""
    return {each.id: each for each in board.elements}


def on_ways(board: Board) -> dict[str, str]:
    """For each bank the way in which a switch that is on points, as it hangs; left out where nobody could tell."""
    doubtful = doubtful_elements(board.document, "on")
    placed = {each["ref"] for each in board.document.get("layout", ())}
    return {
        each.id: hanging_of(board, each.id).on
        for each in board.elements
        if each.rules.on_off and each.id in placed and each.id not in doubtful
    }


def document_bytes(node: Any) -> bytes:
    """A document as the bytes that are parsed."""
    return json.dumps(jsonable(node), ensure_ascii=False).encode()
