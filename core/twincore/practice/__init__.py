"""Practice: tasks made from any two boards and a seed, played on simulated things; what went wrong shows itself."""

from twincore.practice.files import TaskWritten, parse_tasks, tasks_document
from twincore.practice.making import make_task
from twincore.practice.outcome import Outcome, Row
from twincore.practice.playing import MOST_ACTIONS, Played, WrongAction, play
from twincore.practice.skills import OF_LEVEL, SKILLS, Skill, after_task, next_level, practised, traced
from twincore.practice.solving import solved
from twincore.practice.task import LEVELS, MOST_OTHERS, Boards, Lead, Level, NoTask, Run, Task

__all__ = [
    "LEVELS", "MOST_ACTIONS", "MOST_OTHERS", "OF_LEVEL", "SKILLS", "Boards", "Lead", "Level", "NoTask", "Outcome", "Played", "Row", "Run",
    "Skill", "Task", "TaskWritten", "WrongAction", "after_task", "make_task", "next_level", "parse_tasks", "play", "practised", "solved",
    "tasks_document", "traced",
]  # fmt: skip
