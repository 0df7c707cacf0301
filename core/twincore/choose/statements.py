"""Statements: which board may stand in for which, with conditions, needs, a source and a date."""

import json
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from functools import lru_cache
from typing import Any

from twincore.errors import DocumentError, Fault
from twincore.profile.document import open_document
from twincore.profile.facts import fact_read
from twincore.profile.faults import FaultList
from twincore.profile.values import exact, plain

RELATIONS = ("same", "supersedes", "universal", "kit", "exchange", "repair", "donor", "not exchangeable")
"""`supersedes`: the replacement supersedes the original. `exchange`, `repair`, `donor` are other ways out."""
CHAINED = ("same", "supersedes")
TOGETHER = " + "
COLUMNS = (
    "id", "original", "replacement", "relation", "if", "needs", "companions", "words", "source", "date", "valid_from",
    "valid_to", "cost", "days", "worked", "failed",
)  # fmt: skip
LONGEST = {"id": 80, "original": 640, "replacement": 640, "words": 2000, "source": 2000}
WITH_SOURCE = (4.0, 1.0)
WITHOUT_SOURCE = (2.0, 1.0)
"""What a statement counts before anything was tried, as jobs that worked and did not (common practice, no source)."""
COUNTS = ("worked", "failed")
MOST_COUNTED = 1_000_000
CONTROL = re.compile(r"[\x00-\x1f]")
CONDITION = re.compile(r"\s*([^<>=]+?)\s*(<=|>=|=)\s*(.+?)\s*")


@dataclass(frozen=True, slots=True)
class Statement:
    """One directed statement: `replacements` may (or may not) stand in for `originals`."""

    id: str
    originals: tuple[str, ...]
    replacements: tuple[str, ...]
    relation: str
    conditions: Mapping[str, Any] = field(default_factory=dict)
    needs: tuple[str, ...] = ()
    companions: tuple[str, ...] = ()
    words: str = ""
    source: str = ""
    dated: str = ""
    valid_from: str = ""
    valid_to: str = ""
    cost: float | None = None
    days: float | None = None
    worked: int = 0
    failed: int = 0

    @property
    def original(self) -> str:
        """The boards coming out, as one name."""
        return TOGETHER.join(self.originals)

    @property
    def replacement(self) -> str:
        """The boards going in, as one name."""
        return TOGETHER.join(self.replacements)

    @property
    def mean(self) -> float:
        """The chance that the pairing works: the mean of a Beta posterior over what happened in the field."""
        worked, failed = WITH_SOURCE if self.source else WITHOUT_SOURCE
        return (worked + self.worked) / (worked + failed + self.worked + self.failed)

    def valid_on(self, day: date | None) -> bool:
        """Whether the statement holds on a day; without a day, whenever."""
        if day is None:
            return True
        shown = day.isoformat()
        return (not self.valid_from or self.valid_from <= shown) and (not self.valid_to or shown <= self.valid_to)


def parse_statements(data: bytes) -> tuple[Statement, ...]:
    """Read a `worthy-twin/statements` document. Raises DocumentError with every fault and its place."""
    root = open_document(data, "statements").root
    faults = FaultList()
    faults.unique([each["id"] for each in root["statements"]], "statements[{}].id", "name")
    found = tuple(_from_json(node) for node in root["statements"])
    for index, statement in enumerate(found):
        for fault in _faults_of(statement):
            faults.add(f"statements[{index}].{fault.place}", fault.expected)
    faults.done()
    return found


def _from_json(node: dict[str, Any]) -> Statement:
    valid = node.get("valid", {})
    cost, days = node.get("cost"), node.get("days")
    return Statement(
        id=node["id"], originals=tuple(node["original"]), replacements=tuple(node["replacement"]),
        relation=node["relation"], conditions=_plain_conditions(node.get("if", {})), needs=tuple(node.get("needs", ())),
        companions=tuple(node.get("companions", ())), words=node.get("words", ""), source=node.get("source", ""),
        dated=node.get("date", ""), valid_from=valid.get("from", ""), valid_to=valid.get("to", ""),
        cost=None if cost is None else float(cost), days=None if days is None else float(days),
        worked=node.get("worked", 0), failed=node.get("failed", 0),
    )  # fmt: skip


def _plain_conditions(given: Mapping[str, Any]) -> dict[str, Any]:
    """Conditions as a table says them: one of one value is that value, and a range without ends is none."""
    return {
        name: each[0] if isinstance(each, list) and len(each) == 1 else each
        for name, each in given.items()
        if each != {}
    }


def as_json(statement: Statement) -> dict[str, Any]:
    """A statement as its document writes it; what is empty is left out."""
    valid = {name: day for name, day in (("from", statement.valid_from), ("to", statement.valid_to)) if day}
    node = {
        "id": statement.id, "original": list(statement.originals), "replacement": list(statement.replacements),
        "relation": statement.relation, "if": plain(dict(statement.conditions)), "needs": list(statement.needs),
        "companions": list(statement.companions), "words": statement.words, "source": statement.source,
        "date": statement.dated, "valid": valid, "cost": statement.cost, "days": statement.days,
        "worked": statement.worked, "failed": statement.failed,
    }  # fmt: skip
    return {
        name: value
        for name, value in node.items()
        if value not in ({}, [], "") and value is not None and not (name in ("worked", "failed") and value == 0)
    }


def as_row(statement: Statement) -> dict[str, str]:
    """A statement as a line of a CSV file, by column."""
    numbers = {
        "cost": statement.cost, "days": statement.days, "worked": statement.worked or None,
        "failed": statement.failed or None,
    }  # fmt: skip
    return {
        "id": statement.id, "original": _listed(statement.originals, TOGETHER),
        "replacement": _listed(statement.replacements, TOGETHER),
        "relation": statement.relation, "if": _conditions_written(statement.conditions),
        "needs": _listed(statement.needs, "; "), "companions": _listed(statement.companions, "; "), "words": statement.words,
        "source": statement.source, "date": statement.dated, "valid_from": statement.valid_from,
        "valid_to": statement.valid_to, **{name: _decimal(value) for name, value in numbers.items()},
    }  # fmt: skip


def _decimal(value: float | None) -> str:
    return "" if value is None else str(int(value)) if value == int(value) else repr(value)


def from_row(row: Mapping[str, str]) -> Statement:
    """A statement from a line of a CSV file. Raises DocumentError with the columns and what was expected there."""
    faults: list[Fault] = []
    statement = Statement(
        id=row.get("id", "").strip(),
        originals=_named(row.get("original", ""), "+"),
        replacements=_named(row.get("replacement", ""), "+"),
        relation=row.get("relation", "").strip(),
        conditions=_conditions(row.get("if", ""), faults) if row.get("if") else {},
        needs=_several(row.get("needs", "")),
        companions=_several(row.get("companions", "")),
        words=row.get("words", "").strip(),
        source=row.get("source", "").strip(),
        dated=row.get("date", "").strip(),
        valid_from=row.get("valid_from", "").strip(),
        valid_to=row.get("valid_to", "").strip(),
        cost=_number(row, "cost", faults),
        days=_number(row, "days", faults),
        worked=int(_number(row, "worked", faults) or 0),
        failed=int(_number(row, "failed", faults) or 0),
    )
    faults += _faults_of(statement)
    if faults:
        raise DocumentError(faults)
    return statement


def _listed(names: Sequence[str], between: str) -> str:
    """Names in one column; one that would not be read as itself stands in quotation marks, and these twice within it."""
    mark = between.strip()
    return between.join(
        '"' + each.replace('"', '""') + '"' if mark in each or each != each.strip() or each.startswith('"') else each
        for each in names
    )


def _named(text: str, mark: str) -> tuple[str, ...]:
    """The names of one column, with this mark between them."""
    if '"' not in text:
        return tuple(part.strip() for part in text.split(mark)) if mark in text else (text.strip(),)
    names = []
    for quoted, inner, bare in re.findall(rf'\s*(")((?:[^"]|"")*)"\s*(?:[{mark}]|$)|([^{mark}]+)', text):
        names.append(inner.replace('""', '"') if quoted else bare.strip())
    return tuple(names)


def _several(text: str) -> tuple[str, ...]:
    return tuple(name for name in _named(text, ";") if name) if text else ()


def _number(row: Mapping[str, str], column: str, faults: list[Fault]) -> float | None:
    text = row.get(column, "")
    if not text or not text.strip():
        return None
    try:
        number = float(exact(text.strip()))
    except (ValueError, ZeroDivisionError):
        number = -1.0
    if number < 0 or (column in COUNTS and not (number.is_integer() and number <= MOST_COUNTED)):
        wanted = f"a whole number from 0 to {MOST_COUNTED:,}" if column in COUNTS else "a number of at least 0"
        faults.append(Fault(column, f'expected {wanted}, found "{text[:40]}"'))
        return None
    return number


def _conditions(text: str, faults: list[Fault]) -> dict[str, Any]:
    """Conditions as a spreadsheet writes them: "burner.stages=1; made>=2001; made<=2005; fuel=gas|oil"."""
    found, wrong = _read_conditions(text)
    faults += wrong
    return dict(found)


@lru_cache(maxsize=4096)
def _read_conditions(text: str) -> tuple[dict[str, Any], tuple[Fault, ...]]:
    """The same few conditions stand in very many rows: each text is read once."""
    found: dict[str, Any] = {}
    faults = []
    for part in _several(text):
        match = CONDITION.fullmatch(part)
        if match is None:
            faults.append(Fault("if", f'expected fact=value, fact>=number or fact<=number, found "{part[:60]}"'))
            continue
        name, sign, written = match.groups()
        if sign == "=":
            values = [fact_read(each.strip()) for each in written.split("|")]
            found[name] = values if len(values) > 1 else values[0]
            continue
        value = fact_read(written)
        limits = found.setdefault(name, {})
        if isinstance(value, str | bool) or not isinstance(limits, dict):
            faults.append(Fault("if", f'expected a number after {sign}, found "{written[:40]}"'))
        else:
            limits["from" if sign == ">=" else "to"] = value
    return found, tuple(faults)


def _conditions_written(conditions: Mapping[str, Any]) -> str:
    parts = []
    for name, condition in conditions.items():
        if isinstance(condition, dict):
            signs = {"from": ">=", "to": "<="}
            parts += [f"{name}{signs[end]}{_written(value)}" for end, value in condition.items()]
        else:
            values = condition if isinstance(condition, list | tuple) else [condition]
            parts.append(f"{name}={'|'.join(_written(each) for each in values)}")
    return "; ".join(parts)


def _written(value: Any) -> str:
    return value if isinstance(value, str) else json.dumps(plain(value))


def _faults_of(statement: Statement) -> list[Fault]:
    faults = []
    texts = {
        "id": statement.id, "original": statement.original, "replacement": statement.replacement,
        "words": statement.words, "source": statement.source, "needs": "".join(statement.needs),
        "companions": "".join(statement.companions),
    }  # fmt: skip
    if CONTROL.search("".join(texts.values())):
        faults += [
            Fault(name, "expected no control characters") for name, text in texts.items() if CONTROL.search(text)
        ]
    for name, most in LONGEST.items():
        if len(texts[name]) > most:
            faults.append(Fault(name, f"expected at most {most} characters"))
    if not statement.id:
        faults.append(Fault("id", "expected a name for the statement"))
    for name, boards in (("original", statement.originals), ("replacement", statement.replacements)):
        if not all(boards) or any(len(each) > 80 for each in boards) or len(boards) > 8:
            faults.append(Fault(name, "expected a part number, or several with + between them"))
    if statement.relation not in RELATIONS:
        faults.append(Fault("relation", f'expected one of {", ".join(RELATIONS)}, found "{statement.relation[:40]}"'))
    elif statement.originals == statement.replacements and statement.relation not in ("repair", "exchange", "donor"):
        faults.append(Fault("replacement", "expected another board than the original"))
    days = {"date": statement.dated, "valid_from": statement.valid_from, "valid_to": statement.valid_to}
    for name, text in days.items():
        if text and not _is_day(text):
            faults.append(Fault(name, f'expected a day such as 2024-03-31, found "{text[:40]}"'))
    return faults


@lru_cache(maxsize=4096)
def _is_day(text: str) -> bool:
    try:
        return date.fromisoformat(text).isoformat() == text
    except ValueError:
        return False
