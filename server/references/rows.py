"""Between the database's statements and the core's."""

from datetime import date
from typing import Any

from references.models import Statement
from twincore.choose import TOGETHER
from twincore.choose import Statement as CoreStatement
from twincore.profile.values import plain


def as_core(row: Statement) -> CoreStatement:
    """A row as the core's statement."""
    return CoreStatement(
        id=row.code,
        originals=tuple(row.original.split(TOGETHER)),
        replacements=tuple(row.replacement.split(TOGETHER)),
        relation=row.relation,
        conditions=row.conditions,
        needs=tuple(row.needs),
        companions=tuple(row.companions),
        words=row.words,
        source=row.source,
        dated=_written(row.dated),
        valid_from=_written(row.valid_from),
        valid_to=_written(row.valid_to),
        cost=row.cost,
        days=row.days,
        worked=counts_of(row)[0],
        failed=counts_of(row)[1],
    )


def counts_of(row: Statement) -> tuple[int, int]:
    """How often a pairing worked and did not: by the statement's file, and by what was said in the field since."""
    return row.worked + getattr(row, "seen_worked", 0), row.failed + getattr(row, "seen_failed", 0)


def values_of(statement: CoreStatement) -> dict[str, Any]:
    """The columns of a statement, by field."""
    return {
        "code": statement.id,
        "original": statement.original,
        "replacement": statement.replacement,
        "relation": statement.relation,
        "members": list(statement.originals) if len(statement.originals) > 1 else None,
        "conditions": plain(dict(statement.conditions)),
        "needs": list(statement.needs),
        "companions": list(statement.companions),
        "words": statement.words,
        "source": statement.source,
        "dated": statement.dated or None,
        "valid_from": statement.valid_from or None,
        "valid_to": statement.valid_to or None,
        "cost": statement.cost,
        "days": statement.days,
        "worked": statement.worked,
        "failed": statement.failed,
    }


def _written(day: date | None) -> str:
    return day.isoformat() if day else ""
