"""Answers as JSON: the same bytes wherever they are written."""

import json
from datetime import date, datetime
from typing import Any
from uuid import UUID

from pydantic import BaseModel


def rendered(data: Any) -> str:
    """What is shown, as JSON. Times to the millisecond, in UTC with a Z (RFC 3339). Raises TypeError at what has no JSON."""
    return json.dumps(data, default=_plain)


def _plain(value: Any) -> Any:
    match value:
        case BaseModel():
            return value.model_dump()
        case datetime():
            return _moment(value)
        case date():
            return value.isoformat()
        case UUID():
            return str(value)
    raise TypeError(f"no JSON is written of a {type(value).__name__}")


def _moment(at: datetime) -> str:
    text = at.isoformat(timespec="milliseconds" if at.microsecond else "auto")
    return text.removesuffix("+00:00") + "Z" if text.endswith("+00:00") else text
