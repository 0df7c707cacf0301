"""What the API shows of machines."""

from datetime import datetime
from uuid import UUID

from ninja import Field, Schema

from bench.schemas import Positions
from config.paging import Paging


class MachineLine(Schema):
    """A machine of the depot, by its last job."""

    machine: str
    jobs: int
    last_at: datetime
    board: str | None
    serial: str | None


class MachineJob(Schema):
    """One job on a machine."""

    id: UUID
    code: str
    complaint: str
    opened_at: datetime
    closed_at: datetime | None
    original: str | None
    replacement: str | None
    verdict: str | None


class MachineNow(Schema):
    """A machine: which board is in it now, how it was left, by which job; and what is open about it."""

    machine: str
    board: str | None
    left: Positions | None
    since: datetime | None
    by_job: str
    by_job_id: UUID | None
    serial: str | None
    defects: list[str]
    corrections: list[str]


class MachineSearch(Paging):
    """Which machines to list."""

    search: str = Field("", max_length=80)
