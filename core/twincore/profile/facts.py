"""Facts about a machine, and conditions on them: a value, a range, or one of several values."""

from collections.abc import Mapping
from typing import Any

from twincore.profile.values import is_number, same

ORIGINAL = "original"
"""The fact that every job knows by itself: the number of the board that is replaced."""


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
