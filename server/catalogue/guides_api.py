"""Rule-out data, nameplate schemes and what they decode, over HTTP."""

from datetime import datetime
from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router

from catalogue import queries
from catalogue.models import Guide
from config.downloads import JSON, download
from config.paging import paged
from twincore.recognise import read_plates, read_serial
from twinshown.paging import Page, Paging
from twinshown.plates import PlateShown, plate_shown
from twinshown.refusals import NotThere
from twinshown.shapes import Schema

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


@router.get("/serial", response=SerialShown)
def read_back_serial(
    request: HttpRequest, text: str = Query(..., max_length=80), scheme: str = Query("", max_length=80)
) -> SerialShown:
    """A serial number in groups, checked by its maker's rule."""
    found = read_serial(text, next((each for each in queries.schemes_of() if each.id == scheme), None))
    return SerialShown(groups=list(found.groups), ok=found.ok, expected=found.expected)
