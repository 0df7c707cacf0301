"""Facts about a machine, and conditions on them: a value, a range, or one of several values."""

import re
from collections.abc import Mapping
from typing import Any

from twincore.profile.values import exact, is_number, same

NUMBER = re.compile(r"-?(0|[1-9][0-9]*)(\.[0-9]+)?([eE][+-]?[0-9]+)?", re.ASCII)

ORIGINAL = "original"
"""The fact that every job knows by itself: the number of the board that is replaced."""


def fact_read(text: str) -> Any:
    """A fact as a table writes it: true, false, a number, or a word. What is written like a number but is none to reckon with, such
    as 0712 or nan, is a word: it stays as it is written.
    """
    if text in ("true", "false"):
        return text == "true"
    if not NUMBER.fullmatch(text):
        return text
    try:
        return exact(text)
    except (ValueError, ZeroDivisionError):
        return text


def fact_agrees(fact: Any, condition: Any) -> bool:
    """Whether a fact meets a condition: equal to a value, within `from` and `to` (ends included), or in a list."""
    if isinstance(condition, dict):
        low, high = condition.get("from"), condition.get("to")
        return is_number(fact) and (low is None or fact >= low) and (high is None or fact <= high)
    if isinstance(condition, list):
        return any(same(fact, each) for each in condition)
    return same(fact, condition)


def missing_facts(conditions: Mapping[str, Any], facts: Mapping[str, Any]) -> tuple[str, ...] | None:
    """The facts that would still decide whether all conditions hold; None where one of them fails."""
    if not all(fact_agrees(facts[name], condition) for name, condition in conditions.items() if name in facts):
        return None
    return tuple(name for name in conditions if name not in facts)
