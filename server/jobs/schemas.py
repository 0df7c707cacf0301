"""What the API takes besides entries: a job to open, and which jobs to list."""

from uuid import UUID

from pydantic import Field

from twinshown.paging import Paging
from twinshown.shapes import Schema


class NewJob(Schema):
    """A job to open."""

    id: UUID
    machine: str = Field(min_length=1, max_length=200)
    complaint: str = Field("", max_length=2000)


class JobSearch(Paging):
    """Which jobs to list."""

    show: str = Field("open", pattern="^(open|closed|all)$")
    search: str = Field("", max_length=80)
