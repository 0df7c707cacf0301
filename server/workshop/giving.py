"""Boards given to another depot and taken in from one: what is there already is shown, and settled line by line."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from django.db import transaction

from catalogue import queries as catalogue
from catalogue.actions import load_own_board, load_own_family
from catalogue.models import Board, Family
from catalogue.profiles import board_profile, family_profile
from people.access import depot_of, require_parts_lead
from people.models import Person
from twincore.errors import Fault
from twincore.profile import Board as BoardProfile
from twincore.profile import Family as FamilyProfile
from twincore.profile.document import jsonable
from twincore.workshop import Packed, box_document, open_box, same_json
from twinshown.refusals import Faulty, NotThere, Refused

Stands = Literal["new", "the same", "otherwise here", "shared here", "wrong"]
MOST_GIVEN = 500


@dataclass(frozen=True, slots=True)
class Line:
    """A document of a box beside what is here: whether it can be taken, and what then happens."""

    kind: Literal["family", "board"]
    packed: Packed
    stands: Stands
    words: str

    @property
    def can_be_taken(self) -> bool:
        """Whether taking it does anything."""
        return self.stands in ("new", "otherwise here")


def give(person: Person, part_numbers: Sequence[str]) -> bytes:
    """A box of boards with their kinds of machine. Raises NotThere for a board that the person does not see."""
    if not part_numbers or len(part_numbers) > MOST_GIVEN:
        raise Faulty(f"Choose from one to {MOST_GIVEN} boards.")
    boards = [catalogue.board(each, person.depot_id) for each in dict.fromkeys(part_numbers)]
    families = {each.family_id: each.family for each in boards}
    return box_document(
        depot_of(person).name,
        [family_profile(each.current_id).document for each in families.values() if each.current_id],
        [board_profile(each.current_id).document for each in boards if each.current_id],
    )


def look_into(person: Person, data: bytes) -> tuple[str, list[Line]]:
    """What a box holds, each beside what is here. Raises DocumentError where it is none."""
    box = open_box(data)
    lines = [_family_line(person, each) for each in box.families]
    return box.sender, lines + [_board_line(person, each) for each in box.boards]


@transaction.atomic
def take_in(person: Person, data: bytes, names: Collection[str], now: datetime) -> list[str]:
    """Take chosen documents of a box in as the depot's own, kinds first. All of them or none."""
    require_parts_lead(person)
    depot_of(person)
    _, lines = look_into(person, data)
    chosen = [each for each in lines if each.packed.name in names]
    if missing := set(names) - {each.packed.name for each in chosen}:
        raise Faulty(
            "Not everything that was chosen is in this box.", [Fault(name, "not there") for name in sorted(missing)]
        )
    if refused := [each for each in chosen if not each.can_be_taken]:
        raise Refused(f"{refused[0].packed.name} cannot be taken in: {refused[0].words}")
    for each in chosen:
        if each.kind == "family":
            load_own_family(person, each.packed.data, now)
        else:
            load_own_board(person, each.packed.data, now, _kind(lines, each.packed))
    return [each.packed.name for each in chosen]


def _kind(lines: Sequence[Line], board: Packed) -> Family | None:
    """The kind of machine of a board where it is here in the very same words, whoever's it is; else whatever the depot sees."""
    assert isinstance(board.profile, BoardProfile)  # a board that can be taken was read
    code = board.profile.family
    same = any(each.packed.name == code and each.stands == "the same" for each in lines)
    return Family.objects.select_related("current").filter(code=code).first() if same else None


def _family_line(person: Person, packed: Packed) -> Line:
    if not isinstance(packed.profile, FamilyProfile):
        return Line("family", packed, "wrong", _wrong(packed))
    there = Family.objects.filter(code=packed.profile.id).select_related("current").first()
    if there is None or there.current_id is None:
        return Line("family", packed, "new", f"{packed.profile.title}: comes along")
    mine = family_profile(there.current_id)
    if same_json(jsonable(mine.document), jsonable(packed.profile.document)):
        return Line("family", packed, "the same", "is here as it is")
    if there.depot_id is None:
        return Line("family", packed, "shared here", "is here otherwise, for everybody; boards are fitted into that")
    if there.depot_id != person.depot_id:
        return Line("family", packed, "wrong", "its id is taken here; ask the sender to give it another one")
    return Line("family", packed, "otherwise here", "replaces yours as its next revision")


def _board_line(person: Person, packed: Packed) -> Line:
    if not isinstance(packed.profile, BoardProfile):
        return Line("board", packed, "wrong", _wrong(packed))
    try:
        there = catalogue.board(packed.profile.part_number, person.depot_id)
    except NotThere:
        return Line("board", packed, "new", "becomes a board of your depot")
    assert there.current_id is not None  # queries.board sees to it
    if same_json(jsonable(board_profile(there.current_id).document), jsonable(packed.profile.document)):
        return Line("board", packed, "the same", "is here as it is")
    if there.depot_id is None:
        return Line(
            "board", packed, "shared here", "is here otherwise, for everybody; take it into the workshop to change it"
        )
    return Line("board", packed, "otherwise here", f"becomes revision {_next(there)} of yours")


def _next(board: Board) -> int:
    assert board.current is not None  # it has one
    return board.current.number + 1


def _wrong(packed: Packed) -> str:
    return "; ".join(str(each) for each in packed.faults[:3])
