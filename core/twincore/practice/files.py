"""Tasks as a file: each by what makes it, so that the same catalogue makes the same tasks everywhere."""

from collections.abc import Iterable
from typing import Any, NamedTuple

from twincore.practice.task import Level
from twincore.profile import open_document


class TaskWritten(NamedTuple):
    """A task by its level, its seed, and the part numbers of its boards."""

    level: Level
    seed: int
    original: str
    replacement: str


def parse_tasks(data: bytes) -> list[TaskWritten]:
    """Read a `worthy-twin/tasks` document. Raises DocumentError with every fault and its place."""
    root = open_document(data, "tasks").root
    return [
        TaskWritten(each["level"], int(each["seed"]), each["original"], each["replacement"]) for each in root["tasks"]
    ]


def tasks_document(title: str, tasks: Iterable[TaskWritten]) -> dict[str, Any]:
    """Tasks as a document."""
    return {"format": "worthy-twin/tasks", "version": 1, "title": title, "tasks": [each._asdict() for each in tasks]}
