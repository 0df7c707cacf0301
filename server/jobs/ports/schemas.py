"""What the API shows of service ports."""

from twinshown.comparison.schemas import Positions
from twinshown.shapes import Schema


class PortValue(Schema):
    """A value that the port gave, and what stands there already."""

    target: str
    title: str
    value: str | int | float
    there: str | int | float | None
    differs: bool


class PortShown(Schema):
    """What the port said; `fault` says what is wrong with it and what to do."""

    identity: str
    values: list[PortValue]
    unreadable: list[str]
    fault: str


class PortWrittenShown(Schema):
    """What writing over the port came to."""

    values: Positions
    differ: list[str]
    fault: str
    undone: bool | None
