"""What somebody can do: an estimate of each skill that rises and falls with what they do, and when to practise it again.

Knowledge tracing: A. T. Corbett and J. R. Anderson, "Knowledge tracing: modeling the acquisition of procedural knowledge",
User Modeling and User-Adapted Interaction 4 (1995), equations 1 and 2. Repetition: SM-2, P. A. Woźniak, "Optimization of
repetition spacing in the practice of learning" (1990).
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from twincore.practice.outcome import Row
from twincore.practice.task import LEVELS, Level

OF_LEVEL: Mapping[Level, tuple[str, ...]] = {
    "read": ("read", "unreadable"), "set": ("safety", "settings"), "carry": ("safety", "settings"), "wires": ("wires",),
    "keys": ("keys",), "meter": ("meter",), "find": ("find", "shortest way"), "safe": ("order", "wait"),
    "whole": ("recognise", "choose", "prove", "hand over"),
}  # fmt: skip
"""The skills that each level asks for."""
SKILLS = tuple(dict.fromkeys(skill for skills in OF_LEVEL.values() for skill in skills))
FIRST, LEARNT, SLIP, GUESS = 0.2, 0.15, 0.1, 0.2
"""P(L0), P(T), P(S) and P(G): within what the authors allow (slip and guess below 0.5), the same for every skill (our choice)."""
MASTERED = 0.95
"""The authors' criterion."""
EASE, LEAST_EASE = 2.5, 1.3
LONGEST_DAYS = 365.0
"""Whatever was practised is practised again once a year (our choice)."""


@dataclass(frozen=True, slots=True)
class Skill:
    """How likely somebody has it, and when it is to be practised again."""

    known: float = FIRST
    times: int = 0
    """How often in a row it went well."""
    ease: float = EASE
    days: float = 0.0
    due: datetime | None = None


def traced(known: float, right: bool) -> float:
    """The estimate after it was seen to be applied rightly or not."""
    had = known * (1 - SLIP) if right else known * SLIP
    had_not = (1 - known) * GUESS if right else (1 - known) * (1 - GUESS)
    after = had / (had + had_not)
    return after + (1 - after) * LEARNT


def practised(skill: Skill, rights: Sequence[bool], now: datetime) -> Skill:
    """A skill after a task in which it was applied so often, rightly or not.

    A task is one opportunity: it was applied rightly where it was so throughout, for half of a board stands right by itself.
    """
    known = traced(skill.known, all(rights))
    if skill.due is not None and now < skill.due and all(rights):
        return replace(skill, known=known)  # before it is due, what is known shows; how long it stays known does not
    quality = round(5 * sum(rights) / len(rights))
    ease = max(LEAST_EASE, skill.ease + 0.1 - (5 - quality) * (0.08 + (5 - quality) * 0.02))
    if quality < 3:
        return Skill(known, 0, ease, 1.0, now + timedelta(days=1))
    days = 1.0 if skill.times == 0 else 6.0 if skill.times == 1 else min(skill.days * ease, LONGEST_DAYS)
    return Skill(known, skill.times + 1, ease, days, now + timedelta(days=days))


def after_task(skills: Mapping[str, Skill], rows: Iterable[Row], now: datetime) -> dict[str, Skill]:
    """All skills after a task."""
    seen: dict[str, list[bool]] = {}
    for row in rows:
        seen.setdefault(row.skill, []).append(row.right)
    return {**skills, **{name: practised(skills.get(name, Skill()), rights, now) for name, rights in seen.items()}}


def next_level(skills: Mapping[str, Skill], now: datetime) -> Level:
    """What to practise next: what is due to be repeated and least known; else the first level that is not mastered yet."""

    def least(level: Level) -> float:
        return min(skills.get(name, Skill()).known for name in OF_LEVEL[level])

    due = [
        level for level in LEVELS
        if any((each := skills.get(name)) is not None and each.due is not None and each.due <= now for name in OF_LEVEL[level])
    ]  # fmt: skip
    if due:
        return min(due, key=least)
    return next((level for level in LEVELS if least(level) < MASTERED), min(LEVELS, key=least))
