"""Nameplates, decoded place by place."""

from dataclasses import asdict

from twincore.profile.values import plain
from twincore.recognise import PlateRead, Scheme
from twinshown.shapes import Schema


class PlaceShown(Schema):
    """One place of a nameplate's number."""

    id: str
    title: str
    text: str
    ok: bool
    meaning: str
    expected: str
    perhaps: str


class RuleSaid(Schema):
    """A rule of the maker that holds for this plate."""

    words: str
    boards: list[str]


class PlateShown(Schema):
    """A number decoded by one scheme; `facts` are what it says about the machine."""

    scheme: str
    title: str
    maker: str
    family: str
    example: str
    source: str
    ok: bool
    places: list[PlaceShown]
    facts: dict[str, str | bool | int | float]
    says: list[RuleSaid]
    left_over: str


def plate_shown(scheme: Scheme, plate: PlateRead) -> PlateShown:
    """A decoded plate for the screen."""
    return PlateShown(
        scheme=scheme.id,
        title=scheme.title,
        maker=scheme.maker,
        family=scheme.family,
        example=scheme.example,
        source=scheme.source,
        ok=plate.ok,
        places=[PlaceShown(**asdict(place)) for place in plate.places],
        facts=plain(plate.facts),
        says=[RuleSaid(words=rule["words"], boards=rule.get("boards", [])) for rule in plate.says],
        left_over=plate.left_over,
    )
