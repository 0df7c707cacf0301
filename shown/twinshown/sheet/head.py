"""What a job is besides what its entries add up to: its number, its machine, who opened it, what its depot has decided."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from twincore.job import Void
from twinshown.sheet.schemas import BoardRef


@dataclass(frozen=True, slots=True)
class Rules:
    """What a depot has decided that its jobs' pages rest on."""

    school_when_agreed: str = ""
    school_when_not: str = ""
    second_person: bool = False
    assumptions: Mapping[str, Any] = field(default_factory=dict)
    """What repairs cost there."""
    currency: str = ""


@dataclass(frozen=True, slots=True)
class Head:
    """The head of one of a job's sheets."""

    id: str
    """Of the job, without that of the board."""
    code: str
    machine: str
    complaint: str
    opened_at: datetime
    opened_by: str
    changed_at: datetime
    closed_at: datetime | None
    rules: Rules
    original: BoardRef | None = None
    replacement: BoardRef | None = None
    origin: Mapping[str, Any] | None = None
    void: tuple[Void, ...] = ()
