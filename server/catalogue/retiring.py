"""Boards that are not to be used any more: withdrawn with a reason and a successor, or removed where nothing rests on them."""

from datetime import datetime
from typing import Any

from django.db import transaction
from django.db.models import ProtectedError

from catalogue import queries
from catalogue.board_pictures import take_out
from catalogue.models import Board, BoardPicture
from people.access import require_parts_lead
from people.models import Person
from twinshown.refusals import Faulty, Refused


@transaction.atomic
def withdraw(person: Person, part_number: str, why: str, successor: str, now: datetime) -> Board:
    """Say that a board is not to be chosen any more, and what to take instead. Jobs that have it keep it."""
    require_parts_lead(person)
    board = queries.board(part_number, person.depot_id)
    if not why.strip():
        raise Faulty("Say why it is withdrawn.")
    if successor.strip():
        successor = queries.board(successor.strip(), person.depot_id).part_number
        if successor == board.part_number:
            raise Refused("A board does not follow itself.")
    board.withdrawn = {
        "why": why.strip(), "successor": successor, "by": person.shown_name, "at": now.isoformat(timespec="seconds"),
    }  # fmt: skip
    board.save(update_fields=["withdrawn"])
    return board


@transaction.atomic
def bring_back(person: Person, part_number: str) -> Board:
    """Let a withdrawn board be chosen again."""
    require_parts_lead(person)
    board = queries.board(part_number, person.depot_id)
    board.withdrawn = None
    board.save(update_fields=["withdrawn"])
    return board


@transaction.atomic
def remove(person: Person, part_number: str) -> None:
    """Take one of the depot's own boards out of the catalogue. Raises Refused where a job or a draft rests on it."""
    require_parts_lead(person)
    board = queries.board(part_number, person.depot_id)
    if board.depot_id is None:
        raise Refused(f"{board.part_number} is everybody's. Withdraw it instead.")
    Board.objects.filter(pk=board.pk).update(current=None)
    try:
        board.revisions.all().delete()
        board.delete()
        for picture in BoardPicture.objects.filter(depot=person.depot_id, part_number=board.part_number):
            take_out(picture)
    except ProtectedError as error:
        raise Refused(f"Jobs or drafts rest on {board.part_number}. Withdraw it instead.") from error


@transaction.atomic
def join(person: Person, sketched: str, number: str, why: str, now: datetime) -> Board:
    """Say that one of the depot's own boards, put down as a sketch, is a board that was there already.

    From then on its markings lead to that one, and its pictures are that one's. Jobs follow when somebody agrees.
    """
    require_parts_lead(person)
    sketch, board = (queries.board(each, person.depot_id) for each in (sketched, number))
    if sketch.depot_id is None:
        raise Refused(f"{sketch.part_number} is everybody's. Withdraw it instead.")
    if sketch.pk == board.pk or queries.joined_to(board):
        raise Refused(f"Take the board that {board.part_number} stands for, not itself.")
    if not why.strip():
        raise Faulty("Say how it is known that they are one board.")
    for earlier in Board.objects.filter(depot=sketch.depot_id, withdrawn__successor=sketch.part_number):
        earlier.withdrawn = {**(earlier.withdrawn or {}), "successor": board.part_number}
        earlier.save(update_fields=["withdrawn"])
    mine = BoardPicture.objects.filter(depot=sketch.depot_id, part_number=sketch.part_number)
    mine.update(part_number=board.part_number, under=False)
    sketch.withdrawn = {
        "why": why.strip(), "successor": board.part_number, "same": True, "by": person.shown_name,
        "at": now.isoformat(timespec="seconds"),
    }  # fmt: skip
    sketch.save(update_fields=["withdrawn"])
    return board


def withdrawn_words(withdrawn: dict[str, Any] | None) -> str:
    """Why a board is not to be used any more, and what to take instead; empty where it is."""
    if withdrawn is None:
        return ""
    if withdrawn.get("same"):
        day = withdrawn["at"][:10]
        return f"The same board as {withdrawn['successor']}, says {withdrawn['by']} on {day}: {withdrawn['why']}."
    instead = f" Take {withdrawn['successor']} instead." if withdrawn["successor"] else ""
    return f"Withdrawn by {withdrawn['by']} on {withdrawn['at'][:10]}: {withdrawn['why']}.{instead}"
