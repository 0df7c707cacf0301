"""Recognise: what the API shows and takes."""

from typing import Any
from uuid import UUID

from twinshown.comparison.schemas import Scalar
from twinshown.plates import PlateShown
from twinshown.shapes import Schema


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
    standing: str
    """What its profile is worth, in words; empty where nobody said."""
    features: dict[str, str]
    sketch: dict[str, Any]
    picture: UUID | None
    """A photograph of it that the depot has."""


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
