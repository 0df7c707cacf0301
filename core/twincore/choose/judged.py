"""A verdict on one criterion, with the reasons and data behind it, and what would decide where it is to check."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

VERDICTS = ("fits", "with work", "to check", "no")
RANK = {verdict: rank for rank, verdict in enumerate(VERDICTS)}
MINUTES = {"wire": 2.0, "plug": 1.0, "hole": 8.0, "position": 0.5, "part": 5.0, "need": 4.0}
"""Minutes of work, rough (common practice, no source); they rank candidates and feed the sum of costs."""

Facts = Mapping[str, Any]
"""Facts of the machine by name."""


@dataclass(frozen=True, slots=True)
class Reason:
    """One reason, as a code and the data that its sentence is made from."""

    code: str
    verdict: str
    data: dict[str, Any] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Question:
    """A fact to find out on the machine; with a value that meets `wanted`, the criterion fits."""

    fact: str
    wanted: Any
    unit: str = ""


@dataclass(frozen=True, slots=True)
class Judged:
    """One cell of the matrix."""

    criterion: str
    verdict: str
    reasons: tuple[Reason, ...]
    questions: tuple[Question, ...] = ()
    minutes: float = 0.0


def worst(verdicts: Iterable[str]) -> str:
    """The worst of several verdicts; of none, "fits"."""
    found = 0
    for each in verdicts:
        if (rank := RANK[each]) > found:
            found = rank
    return VERDICTS[found]


def questions_of(cells: Sequence[Judged]) -> tuple[Question, ...]:
    """What to find out on the machine, each fact once."""
    found: dict[str, Question] = {}
    for cell in cells:
        for question in cell.questions:
            found.setdefault(question.fact, question)
    return tuple(found.values())
