"""Practice in the browser: tasks that are along are made and played without the depot's server; text in, text out."""

import json
from typing import Any

from twincore.practice import Boards, Task, make_task
from twincore.profile import parse_board, parse_family
from twincore.rule_out import parse_rule_out
from twinshown.practice.schemas import TaskPlayed
from twinshown.practice.view import play, play_shown
from twinshown.with_you.answering import told

_there: dict[str, Task] = {}
"""The one task that is played, by its name."""


def put_in_task(name: str, document: str) -> None:
    """Have a task at hand, made anew from the documents that came with it. Raises DocumentError, NoTask."""
    given = json.loads(document)
    texts = given["documents"]
    rule_out = parse_rule_out(texts["rule_out"].encode()) if texts["rule_out"] else None
    boards = Boards(
        parse_family(texts["family"].encode()), parse_board(texts["original"].encode()),
        parse_board(texts["replacement"].encode()), rule_out,
        tuple(parse_board(each.encode()) for each in texts["others"]),
    )  # fmt: skip
    _there.clear()
    _there[name] = make_task(given["task"]["level"], boards, given["task"]["seed"])


def play_task(name: str, given: str) -> list[Any]:
    """The status and the body that the depot's server answers to `TaskPlayed`. Raises KeyError."""
    task = _there[name]
    said = told(lambda: play_shown(task, play(task, TaskPlayed.model_validate(json.loads(given)).actions)))
    return [said.status, said.body]
