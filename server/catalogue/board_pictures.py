"""Pictures of a board, its plate and its leaflet: kept with the board, for the depot that took them."""

from datetime import datetime
from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet

from catalogue import queries
from catalogue.models import BoardPicture
from people.access import depot_of
from people.models import Person
from twinshown.refusals import NotThere, Refused

MOST_PICTURES = 40


def pictures_of(person: Person, part_number: str) -> QuerySet[BoardPicture]:
    """The depot's own pictures of a board, the first taken first."""
    board = queries.board(part_number, person.depot_id)
    return BoardPicture.objects.filter(depot=person.depot_id, part_number=board.part_number)


def picture_of(person: Person, picture: UUID) -> BoardPicture:
    """One picture of the depot's."""
    found = BoardPicture.objects.filter(depot=person.depot_id, pk=picture).first()
    if found is None:
        raise NotThere("There is no such picture in your depot.")
    return found


def photographs(part_numbers: list[str], depot: int | None) -> dict[str, UUID]:
    """The first photograph that a depot has of each of these boards."""
    rows = BoardPicture.objects.filter(depot=depot, part_number__in=part_numbers, of=BoardPicture.Of.BOARD)
    return dict(rows.order_by("-added_at", "-pk").values_list("part_number", "pk"))


@transaction.atomic
def add_picture(
    person: Person, part_number: str, picture: UUID, of: str, data: bytes, now: datetime, under: bool = False
) -> BoardPicture:  # fmt: skip
    """Keep a picture with a board, under its drawing where that is asked for; sending it twice keeps one."""
    depot = depot_of(person)
    board = queries.board(part_number, depot.pk)
    if there := BoardPicture.objects.filter(pk=picture, depot=depot).first():
        return there
    if pictures_of(person, part_number).count() >= MOST_PICTURES:
        raise Refused(f"A board keeps at most {MOST_PICTURES} pictures. Take one out first.")
    new = BoardPicture(
        pk=picture, depot=depot, part_number=board.part_number, of=of, added_at=now, added_by=person
    )  # fmt: skip
    new.keep(data, f"boards/{depot.pk}/{picture}")
    return lay_under(new, True) if under else new


@transaction.atomic
def lay_under(picture: BoardPicture, under: bool) -> BoardPicture:
    """Lay a picture under the board's drawing, instead of another one; or take it away from there."""
    BoardPicture.objects.filter(depot=picture.depot_id, part_number=picture.part_number).update(under=False)
    picture.under = under
    picture.save(update_fields=["under"])
    return picture


def under_drawing(part_number: str, depot: int | None) -> UUID | None:
    """The picture that a depot laid under a board's drawing."""
    rows = BoardPicture.objects.filter(depot=depot, part_number=part_number, under=True)
    return rows.values_list("pk", flat=True).first()


def take_out(picture: BoardPicture) -> None:
    """Take a picture out; its file goes once that is certain."""
    file = picture.file
    picture.delete()
    transaction.on_commit(lambda: file.delete(save=False))
