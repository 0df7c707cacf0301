"""Use cases of the workshop: a board sketched at the machine, and a kind of machine for it."""

from dataclasses import dataclass
from datetime import datetime

from django.db import transaction
from django.db.models import Q, QuerySet
from django.utils.text import slugify
from django.utils.timezone import localtime

from catalogue import queries as catalogue
from catalogue.actions import load_own_board, load_own_family
from catalogue.models import Board, Family
from catalogue.profiles import board_profile
from catalogue.queries import family as family_of
from catalogue.retiring import join
from people.models import Person
from twincore.errors import Fault
from twincore.profile import dump
from twincore.profile.document import jsonable
from twincore.sketch import Sketch, board_document, kind_document, read_lines
from twincore.workshop import Apart, apart
from twinshown.refusals import Faulty, Refused
from workshop.models import LIVE, Draft

MOST_KINDS = 1000


@dataclass(frozen=True, slots=True)
class Sketched:
    """What somebody put down: its marking (none where it bears none), its kind of machine by code or by a title of one's own."""

    part_number: str
    maker: str
    title: str
    family: str | None
    kind: str
    lines: str


ONLY_SKETCHED = Q(traits__standing__settings__worth="sketched", traits__standing__functions__isnull=True)
"""A board of which nobody said yet what its positions do."""


def sketches(person: Person) -> QuerySet[Board]:
    """The depot's boards of which only a sketch is known, without those that somebody completes."""
    worked_on = Draft.objects.filter(LIVE, depot=person.depot_id).values("part_number")
    return (
        Board.objects.filter(depot=person.depot_id, current__isnull=False, withdrawn__isnull=True)
        .filter(ONLY_SKETCHED)
        .exclude(part_number__in=worked_on)
        .select_related("family", "current")
        .defer("current__document")
    )


def sketch_board(person: Person, given: Sketched, now: datetime) -> Board:
    """Keep a sketch as the depot's own board; again under the same number is the next revision of a board that is only a sketch.

    Raises Faulty with the lines that cannot be read, or for a sketch without anything on it, and Refused for the number of a board
    of which more is known: no sketch takes its place.
    """
    if person.depot is None:
        raise Refused("A sketch belongs to a depot. Whoever has none cannot make one.")
    sketch = _read(given.lines)
    with transaction.atomic():
        family = family_of(given.family, person.depot_id).code if given.family else _kind(person, given.kind, now)
        number = _number_of(person, given.part_number.strip())
        who, day = person.shown_name, localtime(now).date().isoformat()
        document = board_document(sketch, number, given.maker.strip(), given.title.strip(), family, who, day)
        load_own_board(person, dump(jsonable(document)).encode(), now)
        return Board.objects.select_related("family", "current").get(depot=person.depot, part_number=number)


def join_sketch(person: Person, sketched: str, number: str, why: str, now: datetime) -> Board:
    """Say that a sketch is a board that was there, as `join`. Raises Refused as long as somebody completes it."""
    if Draft.objects.filter(LIVE, depot=person.depot_id, part_number=sketched).exists():
        raise Refused(f"Somebody completes {sketched} in the workshop. Put that draft away first.")
    return join(person, sketched, number, why, now)


def held_against(person: Person, sketched: str, number: str) -> list[Apart]:
    """What speaks against a sketch being a board that was there."""
    sketch, board = (catalogue.board(each, person.depot_id) for each in (sketched, number))
    assert sketch.current_id and board.current_id  # queries.board sees to it
    return apart(board_profile(sketch.current_id), board_profile(board.current_id))


def _read(lines: str) -> Sketch:
    sketch, wrong = read_lines(lines)
    if wrong:
        faults = [Fault(f"line {each.line}", f"expected {each.expected}") for each in wrong]
        raise Faulty("Not every line of the sketch can be read.", faults)
    if not sketch.elements and not sketch.plugs:
        raise Faulty("Nothing is on this sketch yet. Put down at least one thing that can be set, or one plug.")
    return sketch


def _kind(person: Person, title: str, now: datetime) -> str:
    """The depot's own kind of machine of a title, made where it is not there."""
    assert person.depot is not None  # looked at before
    title = " ".join(title.split())
    if not title:
        raise Faulty("Say what kind of machine it is.")
    there = Family.objects.filter(depot=person.depot, title__iexact=title).first()
    if there is not None:
        return there.code
    base = f"{person.depot.code.lower()}-{slugify(title)[:60] or 'kind'}"
    codes = (base if number == 1 else f"{base}-{number}" for number in range(1, MOST_KINDS))
    code = next(each for each in codes if not Family.objects.filter(code=each).exists())
    load_own_family(person, dump(kind_document(code, title)).encode(), now)
    return code


def _number_of(person: Person, marked: str) -> str:
    """The number that a sketch is kept under: as it is marked, in the letters of the sketch that is there."""
    if not marked:
        return _unmarked(person)
    there = Board.objects.seen_by(person.depot_id).filter(part_number__iexact=marked)
    sketched = there.filter(ONLY_SKETCHED, depot=person.depot).first()
    known = there.first()
    if sketched is None and known is not None:
        raise Refused(
            f"{known.part_number} is in the catalogue already. Choose it there, or give the sketch another number."
        )
    return sketched.part_number if sketched is not None else marked


def _unmarked(person: Person) -> str:
    """A number for a board that bears none."""
    assert person.depot is not None  # looked at before
    taken = set(Board.objects.filter(depot=person.depot).values_list("part_number", flat=True))
    names = (f"{person.depot.code}-unmarked-{number}" for number in range(1, len(taken) + 2))
    return next(each for each in names if each not in taken)
