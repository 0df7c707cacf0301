"""What whoever does all right does in a task."""

from dataclasses import replace
from typing import Any

from twincore.practice.finding import best_way
from twincore.practice.keys import names_on_panels
from twincore.practice.metering import meter_of, telling_places
from twincore.practice.safety import points_of
from twincore.practice.task import Task
from twincore.practice.whole import BEHAVES, job_of, leads_on, room
from twincore.profile import factory_record, written_positions
from twincore.profile.values import plain
from twincore.programming import panels_of, plan_presses


def solved(task: Task) -> list[dict[str, Any]]:
    """The actions from the beginning to the end."""
    return _whole(task) if task.level == "whole" else _alone(task)


def _alone(task: Task) -> list[dict[str, Any]]:
    actions: list[dict[str, Any]] = []
    match task.level:
        case "read":
            original = task.boards.original
            actions = [{"do": "read", "positions": written_positions(original, task.read().points)}]
        case "set" | "carry":
            assert task.carried is not None and task.carried.record is not None  # such tasks can be carried over
            positions = written_positions(task.boards.replacement, task.carried.record.points)
            actions = [{"do": "set", "positions": positions}, *({"do": "run", "run": each.id} for each in task.runs)]
        case "wires":
            actions = [{"do": "put", "wire": each.id, "place": each.right[0]} for each in task.leads]
        case "keys":
            board = task.boards.replacement
            plan = plan_presses(board, factory_record(board), task.stood)
            panels = panels_of(board)
            for each in plan.panels:
                number = panels.index(each.panel)
                for press in each.presses:
                    times = 0 if press.action == "open" else press.times
                    actions += [{"do": "press", "panel": number, "action": press.action}] * times
        case "meter":
            actions = [{"do": "measure", "place": each} for each in telling_places(task)]
            actions.append({"do": "blame", "what": meter_of(task).blamed})
        case "find":
            actions = [{"do": "test", "test": test} for test, _ in best_way(task)]
            actions.append({"do": "name", "suspect": task.suspect})
        case "safe":
            for point in points_of(task):
                actions += [{"do": "wait", "seconds": point.wait_s}] if point.wait_s else []
                actions.append({"do": "hold", "point": point.id})
            return [*actions, {"do": "touch"}]
    return [*actions, {"do": "done"}]


def _whole(task: Task) -> list[dict[str, Any]]:
    job, board = job_of(task), task.boards.replacement
    assert task.carried is not None and task.carried.record is not None  # it can be carried over
    leads = leads_on(task, task.boards)
    (read, *_), (put, runs) = _alone(room(task, "read")), _set_and_run(task)
    presses = _alone(replace(room(task, "keys"), stood=task.carried.record))[:-1] if job.keyed else []
    keyed = names_on_panels(board) if job.keyed else ()
    return [
        *_alone(room(task, "find"))[:-1],
        {"do": "recognise", "board": task.boards.original.part_number},
        {"do": "choose", "board": board.part_number},
        *_alone(room(task, "safe")),
        read,
        *({"do": "want", "function": name, "value": plain(value)} for name, value in job.card),
        {"do": "set", "positions": {name: each for name, each in put["positions"].items() if name not in keyed}},
        *presses,
        *_alone(replace(room(task, "wires"), leads=leads))[:-1],
        *runs,
        {"do": "tell", "what": BEHAVES[True]},
        {"do": "done"},
    ]


def _set_and_run(task: Task) -> tuple[dict[str, Any], list[dict[str, Any]]]:
    put, *runs, _ = _alone(room(task, "carry"))
    return put, runs
