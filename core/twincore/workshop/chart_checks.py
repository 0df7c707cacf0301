"""What is wrong with a chart, or looks so: what a plain check of the file does not ask."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from twincore.profile import Board, Family, Record, Scenario
from twincore.profile.facts import ORIGINAL, fact_agrees
from twincore.profile.values import is_number, same
from twincore.settings import chart_points, decode
from twincore.workshop.charts import condition_text
from twincore.workshop.values import value_text

MOST_PAIRS = 60_000
FEWEST_ALIKE = 3
"""So many lines must be even before a row in the only uneven one is asked about."""


@dataclass(frozen=True, slots=True)
class Finding:
    """Something at a place of a document: a fault keeps it from being published, a note does not."""

    place: str
    says: str
    weight: Literal["fault", "note"] = "fault"
    way: Scenario | None = None
    """A scenario at whose end it shows, where there is one."""


def check_chart(index: int, chart: Mapping[str, Any], family: Family, board: Board | None) -> list[Finding]:
    """Rows that nobody can reach, that contradict each other, or that ask for facts nobody knows.

    `board` is the board as it can be read; None where its own faults must be put right first.
    """
    facts = {each["id"]: each for each in family.document.get("facts", ())}
    rows: Sequence[Mapping[str, Any]] = chart["rows"]
    found = []
    for number, row in enumerate(rows):
        place = f"charts[{index}].rows[{number}]"
        for name, condition in row["if"].items():
            if says := _wrong_condition(name, condition, facts):
                found.append(Finding(f"{place}.if.{name}", says))
        if not row["set"]:
            found.append(Finding(place, "this row sets nothing", "note"))
    if len(rows) ** 2 // 2 <= MOST_PAIRS:
        found += _pairs(index, rows, board)
    return found + (_odd_rows(index, rows, board, family) if board else [])


def _wrong_condition(name: str, condition: Any, facts: Mapping[str, Mapping[str, Any]]) -> str:
    if name == ORIGINAL:
        return ""
    fact = facts.get(name)
    if fact is None:
        return f'nobody can say "{name}" of a machine of this kind: add it as a fact, or take another one'
    if isinstance(condition, dict):
        low, high = condition.get("from"), condition.get("to")
        if not fact.get("number"):
            return f"{fact['title']} has no order: expected a value, not a range"
        return "this range is empty: no machine is in it" if low is not None and high is not None and low > high else ""
    for each in condition if isinstance(condition, list) else [condition]:
        if fact.get("choices") and not any(same(each, choice) for choice in fact["choices"]):
            return "expected one of " + ", ".join(value_text(choice) for choice in fact["choices"])
        if fact.get("number") and not is_number(each):
            return "expected a number, or a range such as 2001–2005"
        if fact.get("flag") and not isinstance(each, bool):
            return "expected yes or no"
    return ""


def _pairs(index: int, rows: Sequence[Mapping[str, Any]], board: Board | None) -> list[Finding]:
    found = []
    for second in range(len(rows)):
        for first in range(second):
            one, other = rows[first], rows[second]
            if not _can_both_hold(one["if"], other["if"]):
                continue
            place = f"charts[{index}].rows[{second}]"
            if clash := _clash(one["set"], other["set"], board):
                found.append(Finding(place, f"says otherwise than row {first + 1} for the same machine: {clash}"))
            elif one["if"] == other["if"]:
                found.append(Finding(place, f"the same machine as row {first + 1}: never needed", "note"))
            else:
                continue
            break
    return found


def _can_both_hold(one: Mapping[str, Any], other: Mapping[str, Any]) -> bool:
    return all(_overlap(condition, other[name]) for name, condition in one.items() if name in other)


def _overlap(one: Any, other: Any) -> bool:
    """Whether one value can meet both conditions."""
    if isinstance(one, dict) and isinstance(other, dict):
        low = max((each["from"] for each in (one, other) if "from" in each), default=None)
        high = min((each["to"] for each in (one, other) if "to" in each), default=None)
        return low is None or high is None or low <= high
    if isinstance(one, dict) or isinstance(other, dict):
        span, value = (one, other) if isinstance(one, dict) else (other, one)
        return any(fact_agrees(each, span) for each in (value if isinstance(value, list) else [value]))
    values = one if isinstance(one, list) else [one]
    return any(fact_agrees(each, other) for each in values)


def _clash(one: Mapping[str, Any], other: Mapping[str, Any], board: Board | None) -> str:
    if board is None:
        return ", ".join(name for name in one if name in other and not same(one[name], other[name]))
    mine, theirs = (_points(board, each) for each in (one, other))
    return ", ".join(name for name in mine if name in theirs and mine[name] != theirs[name])


def _points(board: Board, written: Mapping[str, Any]) -> dict[str, Any]:
    return dict(chart_points(board, written))


def _odd_rows(index: int, rows: Sequence[Mapping[str, Any]], board: Board, family: Family) -> list[Finding]:
    """Rows whose value of a function is unlike that of the rows beside them, where nothing else in the chart is so.

    Rows that differ in one fact only stand in one line. A row is odd where its line is the only one along that fact in
    which the function is not the same throughout, and it alone is otherwise there: a misprint is likelier than a reason.
    """
    factory = {name: point.factory for name, point in board.points.items()}
    decoded = []
    for row in rows:
        values = decode(board, Record(board.part_number, factory | _points(board, row["set"])), family)
        decoded.append({name: each.values[0] for name, each in values.items() if each.decided})
    axes = [_lines(fact, rows) for fact in dict.fromkeys(name for row in rows for name in row["if"])]
    found = []
    for definition in family.functions:
        values_of = [each.get(definition.id) for each in decoded]
        for number, (said, usual) in _odd_in(values_of, axes).items():
            says = f"{definition.title} {value_text(said)} here, {value_text(usual)} in the rows like it"
            found.append(Finding(f"charts[{index}].rows[{number}].set", f"{says}: a misprint?", "note"))
    return found


def _lines(fact: str, rows: Sequence[Mapping[str, Any]]) -> list[list[int]]:
    """Rows that differ in this fact alone, together."""
    lines: dict[str, list[int]] = {}
    for number, row in enumerate(rows):
        if fact in row["if"]:
            others = sorted((name, condition_text(each)) for name, each in row["if"].items() if name != fact)
            lines.setdefault(repr(others), []).append(number)
    return [line for line in lines.values() if len(line) > 1]


def _odd_in(values: Sequence[Any], axes: Sequence[Sequence[Sequence[int]]]) -> dict[int, tuple[Any, Any]]:
    """The rows that are odd in a function with these values: each with its value, and with that of the rows beside it."""
    suspects: dict[int, Any] = {}
    alike: Counter[int] = Counter()
    for lines in axes:
        uneven = [line for line in lines if len({repr(values[each]) for each in line}) > 1]
        if len(uneven) != 1:
            continue
        for each in uneven[0]:
            alike[each] += len(lines) - 1
        counted = Counter(repr(values[each]) for each in uneven[0])
        alone = [each for each in uneven[0] if counted[repr(values[each])] == 1]
        if len(counted) == 2 and len(alone) == 1 and len(uneven[0]) > 2:
            suspects[alone[0]] = next(values[each] for each in uneven[0] if each != alone[0])
    return {
        each: (values[each], usual) for each, usual in suspects.items()
        if alike[each] >= FEWEST_ALIKE and values[each] is not None and usual is not None
    }  # fmt: skip
