"""A task as it is played: what was done one after another, what the learner sees of it, and how it ended."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from types import ModuleType
from typing import Any

from twincore.practice import finding, keys, metering, reading, safety, setting, whole, wires
from twincore.practice.outcome import Outcome
from twincore.practice.task import Level, Task

ROOMS: Mapping[Level, ModuleType] = {
    "read": reading, "set": setting, "carry": setting, "wires": wires, "keys": keys, "meter": metering, "find": finding,
    "safe": safety, "whole": whole,
}  # fmt: skip
"""Where each level is played: `begin`, `act`, `shown` and `outcome`."""
ENDS_BY_ITSELF: Mapping[Level, Callable[[Task, Any], bool]] = {"safe": safety.ended, "whole": whole.ended}
MOST_ACTIONS = 400
DONE = "done"


class WrongAction(ValueError):
    """Something that cannot be done in this task; says at which place, and what was expected."""


@dataclass(frozen=True, slots=True)
class Played:
    """A task after some actions."""

    shown: dict[str, Any]
    """What the learner sees; never what should be."""
    outcome: Outcome | None
    """None until the task is ended."""


def play(task: Task, actions: Sequence[Mapping[str, Any]]) -> Played:
    """A task after these actions. Raises WrongAction."""
    room = ROOMS[task.level]
    if len(actions) > MOST_ACTIONS:
        raise WrongAction(f"expected at most {MOST_ACTIONS} actions")
    state = room.begin(task)
    ended = False
    for number, action in enumerate(actions):
        if ended:
            raise WrongAction(f"actions[{number}]: the task is ended")
        if action.get("do") == DONE:
            ended = True
            continue
        try:
            state = room.act(task, state, action)
        except (ValueError, KeyError, TypeError, AttributeError) as error:
            raise WrongAction(f"actions[{number}]: {error}") from error
        ended = task.level in ENDS_BY_ITSELF and ENDS_BY_ITSELF[task.level](task, state)
    return Played(room.shown(task, state), room.outcome(task, state) if ended else None)
