"""Rule-out data, nameplate schemes and what they decode, over HTTP."""

from dataclasses import asdict
from datetime import datetime
from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router

from catalogue import queries
from catalogue.models import Guide
from config.downloads import JSON, download
from config.errors import NotThere
from config.paging import Page, Paging, paged
from config.shapes import Schema
from twincore.profile.values import plain
from twincore.recognise import PlateRead, Scheme, read_plates, read_serial

router = Router(tags=["catalogue"])


class GuideLine(Schema):
    """Rule-out data or nameplate schemes in a list."""

    kind: str
    name: str
    revision: int
    loaded_at: datetime


@router.get("/guides", response=Page[GuideLine])
def list_guides(request: HttpRequest, paging: Query[Paging]) -> dict[str, Any]:
    """Rule-out data of families and nameplate schemes of makers."""
    return paged(queries.guides(), paging, _guide_line)


def _guide_line(guide: Guide) -> GuideLine:
    assert guide.current is not None  # a guide is made with its first revision
    return GuideLine(kind=guide.kind, name=guide.name, revision=guide.current.number, loaded_at=guide.current.loaded_at)


@router.get("/guide-file/{kind}/{path:name}", response={200: Any})
def guide_file(request: HttpRequest, kind: str, name: str) -> HttpResponse:
    """A guide's file as it was loaded."""
    guide = queries.guide(kind, name)
    if guide is None or guide.current is None:
        raise NotThere(f"There is no {kind} called {name}.")
    return download(bytes(guide.current.document), JSON, f"{name}.{kind}.json")


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


class SerialShown(Schema):
    """A serial number in groups, to be read back; `expected` says what is wrong with it."""

    groups: list[str]
    ok: bool
    expected: str


@router.get("/plates", response=list[PlateShown])
def decode_plate(
    request: HttpRequest, text: str = Query(..., max_length=80), family: str = Query("", max_length=80)
) -> list[PlateShown]:
    """A machine's number decoded by the makers' schemes, the best first, at most three."""
    schemes = queries.schemes_of(family or None)
    return [plate_shown(scheme, plate) for scheme, plate in read_plates(text, schemes)[:3]]


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


@router.get("/serial", response=SerialShown)
def read_back_serial(
    request: HttpRequest, text: str = Query(..., max_length=80), scheme: str = Query("", max_length=80)
) -> SerialShown:
    """A serial number in groups, checked by its maker's rule."""
    found = read_serial(text, next((each for each in queries.schemes_of() if each.id == scheme), None))
    return SerialShown(groups=list(found.groups), ok=found.ok, expected=found.expected)
