"""What the API shows of packages."""

from uuid import UUID

from twinshown.shapes import Schema


class ImportedShown(Schema):
    """A job that was brought in."""

    id: UUID
    code: str
    machine: str
    new: bool
    entries: int
    pictures: int
    profiles: list[str]
