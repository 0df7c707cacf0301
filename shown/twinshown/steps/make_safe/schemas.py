"""Make safe: what the API shows and takes."""

from collections.abc import Mapping
from datetime import datetime
from typing import Any

from twinshown.shapes import Schema


class PairShown(Schema):
    """Two terminals between which is measured."""

    id: str
    title: str


class HoldShown(Schema):
    """One hold point: what to do, what to say, and what was said. `left_s` is what remains of its wait; where there are `pairs` of
    terminals, each has a reading of its own.
    """

    id: str
    kind: str
    title: str
    say: list[str]
    asks: list[str]
    limit: float | None
    unit: str
    wait_s: float
    left_s: float
    energy_j: float | None
    pairs: list[PairShown]
    held: Mapping[str, Any] | None


class MakeSafeShown(Schema):
    """The hold points in order; `now` is the server's clock, by which waits run."""

    power: str
    now: datetime
    locked_off_at: datetime | None
    points: list[HoldShown]
    still_off: list[str]
    """What came off and is not back on, in words."""
    missing_beside: list[str]
    """What is missing before power on the machine's other boards."""
    as_before: dict[str, dict[str, str]]
    """What this person said last of each hold point in another job, as far as it stays the same: where, which lock, with what."""
    unread: list[str]
    """What only the board with power can tell and nobody has read yet, in words."""
