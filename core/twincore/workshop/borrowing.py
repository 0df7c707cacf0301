"""Meanings, plugs and behaviour taken over from another board, so that nothing is entered twice."""

from collections.abc import Iterable, Mapping
from copy import deepcopy
from typing import Any

from twincore.errors import DocumentError
from twincore.profile import Board, check_board_in_family, parse_board
from twincore.profile.document import jsonable
from twincore.workshop.draft import HALF_DONE, Draft, document_bytes, same_json


def meanings_from(draft: Draft, sibling: Mapping[str, Any]) -> tuple[dict[str, Any], list[str]]:
    """The functions of a draft with a sibling's added where they fit this board; and the names of those that do not.

    What the draft says already stays as it is. A meaning fits where this board has its points, with the same positions.
    """
    functions = deepcopy(draft.board.get("functions", {}))
    skeleton = {k: v for k, v in draft.board.items() if k not in HALF_DONE}
    family, left = draft.kind(), []
    for name, node in sibling.get("functions", {}).items():
        if name in functions:
            continue
        try:
            board = parse_board(document_bytes({**skeleton, "functions": {name: node}}))
            check_board_in_family(board, family)
        except DocumentError:
            left.append(name)
        else:
            functions[name] = deepcopy(node)
    return functions, left


def usual_behaviour(boards: Iterable[Board]) -> tuple[dict[str, Any], list[str]] | None:
    """The behaviour that most boards of a kind share, with their numbers; None where none has one."""
    known = [each for each in boards if "behaviour" in each.document]
    groups: list[list[Board]] = []
    for board in known:
        group = next((g for g in groups if same_json(_plain(g[0]), _plain(board))), None)
        if group is None:
            groups.append([board])
        else:
            group.append(board)
    best = max(groups, key=len, default=None)
    return None if best is None else (_plain(best[0]), [each.part_number for each in best])


def _plain(board: Board) -> dict[str, Any]:
    node: dict[str, Any] = jsonable(board.document["behaviour"])
    return node
