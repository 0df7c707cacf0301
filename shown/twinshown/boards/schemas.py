"""What the API shows of the boards of a job."""

from twincore.job import Step
from twinshown.shapes import Schema


class SheetLine(Schema):
    """One board of a job: its sheet, and how far it is."""

    id: str
    board: str
    title: str
    why: str
    original: str | None
    replacement: str | None
    step: Step
    """The step in hand on this board."""
    proved: bool
    """Whether nothing more is to be done on it but to hand over."""


class BoardsOfJob(Schema):
    """The boards of a job as they are taken, where there are several; and the one to go on with."""

    sheets: list[SheetLine]
    next: str
    """The board to go on with."""
    said: bool
    """Whether somebody chose this order."""
    because: list[str]
    """Why this order, in words."""


class EndShown(Schema):
    """One end of wires between two boards: where it was, what it carries, where it goes."""

    board: str
    title: str
    place: str
    carries: str
    new: list[str] | None
    """On the new board: where it goes; empty where it is tied back, null where that is not known yet."""


class LeadShown(Schema):
    """Wires between two boards, and what is not sound about them."""

    id: str
    what: str
    ends: list[EndShown]
    wrong: list[str]
    """In words, with what to do."""


class WiresBetween(Schema):
    """All that goes from one board of the machine to another; for each board, the places that an end may name."""

    between: list[LeadShown]
    places: dict[str, list[str] | None]
