"""Choose: what the API shows and takes."""

from typing import Any

from catalogue.schemas import MarkedBoard
from references.api import StatementShown
from twinshown.comparison.schemas import Positions, ProofShown
from twinshown.shapes import Schema
from twinshown.words.schemas import HoleShown, QuestionAsked


class ReasonShown(Schema):
    """A reason in words."""

    verdict: str
    words: str


class CellShown(Schema):
    """One cell of the matrix."""

    criterion: str
    verdict: str
    reasons: list[ReasonShown]
    questions: list[QuestionAsked]


class OfferShown(Schema):
    """What the parts desk said last, and how old that is."""

    price: float | None
    stock: int | None
    on_van: bool
    days: float | None
    age_s: float | None
    fault: str
    unknown: bool


class CandidateShown(Schema):
    """A candidate, judged on every criterion."""

    part_number: str
    maker: str
    title: str
    status: str
    revision: int
    verdict: str
    closeness: str
    minutes: float
    offer: OfferShown | None
    cells: list[CellShown]
    proof: ProofShown | None
    statements: list[StatementShown]
    questions: list[QuestionAsked]


class CandidatesShown(Schema):
    """A page of the matrix, best first."""

    items: list[CandidateShown]
    total: int
    page: int
    size: int
    judged_on: str
    unprofiled: list[str]
    other_ways: list[StatementShown]
    elsewhere: list[StatementShown]
    whole: bool
    desk: str


class HaveShown(Schema):
    """A number that somebody has in hand: what it may be, and the judgement where it is one board."""

    read: list[MarkedBoard]
    candidate: CandidateShown | None
    words: str


class PinRow(Schema):
    """A pin on both boards; `trap` where one plug fits the other and carries something else there."""

    connector: str
    pin: str
    signal: str
    to: str
    trap: bool


class ContactRow(Schema):
    """A load and the contact that would switch it."""

    words: str
    verdict: str


class TwinShown(Schema):
    """How a candidate would behave, set so that its functions come nearest."""

    positions: Positions
    judged_on: str
    """Of how the original stands: the record, its factory settings, or no setting where neither is known."""
    proof: ProofShown


class BesideShown(Schema):
    """Original and candidate laid on each other."""

    original: dict[str, Any]
    replacement: dict[str, Any]
    turn: int | None
    right_mm: float
    up_mm: float
    serving: int
    new_holes: list[HoleShown]
    pins: list[PinRow]
    contacts: list[ContactRow]
