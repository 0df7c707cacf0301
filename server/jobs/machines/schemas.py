"""What the API shows of machines."""

from datetime import datetime
from uuid import UUID

from pydantic import Field

from twincore.job import Supply
from twinshown.comparison.schemas import Positions
from twinshown.paging import Paging
from twinshown.shapes import Schema


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


class AlsoOpen(Schema):
    """Another open job on the machine: its step in hand, what it says of the supply, and by whom."""

    id: UUID
    code: str
    step: str
    original: str | None
    supply: Supply | None
    by: str
    at: str


class BoardIn(Schema):
    """Another board of a machine: which it is, and how it was left."""

    title: str
    board: str
    left: Positions


class MachineNow(Schema):
    """A machine: which board is in it now, how it was left, by which job; and what is open about it."""

    machine: str
    board: str | None
    left: Positions | None
    others: list[BoardIn]
    """The machine's further boards, where a job was about several."""
    since: datetime | None
    by_job: str
    by_job_id: UUID | None
    serial: str | None
    defects: list[str]
    corrections: list[str]
    also_open: list[AlsoOpen]


class MachineSearch(Paging):
    """Which machines to list."""

    search: str = Field("", max_length=80)
