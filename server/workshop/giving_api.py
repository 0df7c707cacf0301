"""Boards from depot to depot, over HTTP."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Field, Query, Router

from catalogue.wording import standing_words
from config.downloads import JSON, download
from people.access import person_of
from twinshown.shapes import Schema
from workshop import giving

router = Router(tags=["workshop"])


class BoxAsked(Schema):
    """The boards to give."""

    part_numbers: list[str] = Field(min_length=1, max_length=giving.MOST_GIVEN)


class BoxLine(Schema):
    """A document of a box beside what is here."""

    kind: str
    name: str
    title: str
    standing: str
    stands: giving.Stands
    words: str
    can_be_taken: bool


class BoxShown(Schema):
    """What a box holds."""

    sender: str
    lines: list[BoxLine]


class BoxChosen(Schema):
    """What of a file is taken in, by name."""

    names: list[str] = Field(min_length=1, max_length=600)


class BoxTaken(Schema):
    """What was taken in."""

    names: list[str]


@router.post("/board-boxes", response={200: Any})
def give_boards(request: HttpRequest, given: BoxAsked) -> HttpResponse:
    """Boards with their kinds of machine as one file for another depot."""
    return download(giving.give(person_of(request), given.part_numbers), JSON, "boards.json")


@router.post("/board-boxes/look", response=BoxShown)
def look_into_box(request: HttpRequest) -> BoxShown:
    """What a file from another depot holds (it is the body); nothing is kept."""
    sender, lines = giving.look_into(person_of(request), request.body)
    return BoxShown(
        sender=sender,
        lines=[
            BoxLine(
                kind=each.kind, name=each.packed.name, stands=each.stands, words=each.words, can_be_taken=each.can_be_taken,
                title=each.packed.profile.title if each.packed.profile else "",
                standing=standing_words(each.packed.profile.document) if each.packed.profile else "",
            )
            for each in lines
        ],
    )  # fmt: skip


@router.post("/board-boxes/take", response=BoxTaken)
def take_boards_in(request: HttpRequest, chosen: Query[BoxChosen]) -> BoxTaken:
    """Take chosen documents of a file in (it is the body) as the depot's own."""
    return BoxTaken(names=giving.take_in(person_of(request), request.body, chosen.names, timezone.now()))
