"""What the API shows of the front of a job."""

from typing import Any

from ninja import Schema

from bench.schemas import ProofShown
from catalogue.guides_api import PlateShown
from references.api import StatementShown

Scalar = str | bool | int | float


class SuspectShown(Schema):
    """A suspect and how much weighs against it, before anything was tested and now."""

    id: str
    title: str
    before: float
    weight: float
    words: str
    source: str


class ResultShown(Schema):
    """A result that a test can have."""

    id: str
    title: str


class CurvePoint(Schema):
    """A point along a sensor's curve, with the band around it."""

    at_c: float
    value: float
    low: float
    high: float


class ReadingWanted(Schema):
    """What is read: its unit, the band to expect, or the curve at a temperature."""

    quantity: str
    unit: str
    uncertainty: float
    low: float | None
    high: float | None
    curve: str | None
    points: list[CurvePoint]


class EventShown(Schema):
    """An event of a timed run."""

    at_s: float
    what: str
    within_s: float


class TestShown(Schema):
    """A test: what it costs and risks, how it is done, what is expected, what it would tell."""

    id: str
    title: str
    minutes: float
    risk: str
    how: list[str]
    expected: str
    undo: str
    as_found: str
    reading: ReadingWanted | None
    results: list[ResultShown]
    events: list[EventShown]
    bits: float
    source: str


class LinkShown(Schema):
    """One link of the chain of reasoning."""

    kind: str
    id: str
    title: str
    result: str
    counted: bool
    words: str
    verdict: str | None
    side: str
    margin: float | None
    value: float | None
    low: float | None
    high: float | None
    at_c: float | None
    unit: str
    leading: str
    weight: float


class SymptomShown(Schema):
    """Something the machine may do or not do."""

    id: str
    title: str


class CauseShown(Schema):
    """Why a board may have died."""

    id: str
    title: str
    blocks_power: bool
    clear: str


class CodeShown(Schema):
    """A code that the board shows."""

    shown: str
    meaning: str
    look_at: str
    clears: str


class RuleOutShown(Schema):
    """Where the suspicion stands, and what to do next."""

    family: str
    school: str
    symptoms: list[SymptomShown]
    code: CodeShown | None
    suspects: list[SuspectShown]
    chain: list[LinkShown]
    tests: list[TestShown]
    """Every test of the family."""
    next: list[str]
    conclusion: str
    contradictory: bool
    causes: list[CauseShown]
    to_restore: list[str]


class FeatureChoice(Schema):
    """An answer to a question of the key, and how many boards would stay."""

    value: str
    boards: int


class QuestionShown(Schema):
    """The next question of the key."""

    feature: str
    title: str
    choices: list[FeatureChoice]
    bits: float


class SightingShown(Schema):
    """A board that is still possible, as far as it is drawn."""

    part_number: str
    maker: str
    title: str
    status: str
    features: dict[str, str]
    sketch: dict[str, Any]


class LookAlike(Schema):
    """Two boards that may be taken for each other, or for different ones."""

    one: str
    other: str
    kind: str
    words: str


class KeyShown(Schema):
    """The key of features: what was answered, what to look at next, what is left."""

    answers: dict[str, str]
    question: QuestionShown | None
    left: list[SightingShown]
    left_count: int
    of: int
    look_alikes: list[LookAlike]
    inseparable: list[str]


class FactWanted(Schema):
    """A fact that a family knows, for the list to fill in."""

    id: str
    title: str
    unit: str
    kind: str
    choices: list[Scalar]
    value: Scalar | None
    source: str


class MachineShown(Schema):
    """What is known of the machine."""

    facts: list[FactWanted]
    plates: dict[str, PlateShown]
    findings: list[str]


class ReasonShown(Schema):
    """A reason in words."""

    verdict: str
    words: str


class QuestionAsked(Schema):
    """A fact to find out on the machine, and what it would have to be."""

    fact: str
    words: str
    wanted: Any
    unit: str


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
    desk: str


class HoleShown(Schema):
    """A hole to drill, measured from two edges of the original's seat."""

    from_left_mm: float
    from_bottom_mm: float
    diameter_mm: float


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


class CostLine(Schema):
    """One amount of a sum."""

    id: str
    amount: float
    words: str


class CostsShown(Schema):
    """Own repair against calling a service."""

    own: list[CostLine]
    service: list[CostLine]
    own_total: float
    service_total: float
    saved: float
    assumptions: dict[str, float]
    changed: list[str]
    price_from: str
