"""A job that is along while an entry is made on it: what was taken along tells, until the depot has the entry."""

from collections.abc import Sequence
from datetime import UTC, datetime
from typing import Any, Self

from twincore.errors import TwinError
from twincore.job import FIRST, EntryMade, State, Void, names_of, turned
from twincore.job.case import Case
from twincore.profile import Board, Family
from twinshown.entering.accepting import LastSaid, NewEntry
from twinshown.entering.entry import AT_THE_DEPOT
from twinshown.entering.entry import enter as enter_it
from twinshown.entering.port import BoardHeld, FamilyHeld, Maker
from twinshown.refusals import NotThere, Refused, refused_as
from twinshown.with_you.stored import as_stored
from twinshown.with_you.taken import TakenJob, entry_id


def enter(taken: TakenJob, new: NewEntry, now: datetime) -> None:
    """Add an entry; one that is there already changes nothing, and what is refused leaves all as it was. Raises Refused."""
    held = {name: dict(each) for name, each in taken.held.items()}
    try:
        enter_it(JobAlong(taken), new, Maker(**taken.person), now)
    except TwinError as error:
        taken.held = held
        raise refused_as(error) from error
    except Refused:
        taken.held = held
        raise


class HeldAlong:
    """What a sheet rests on, by the keys of what was taken along."""

    def __init__(self, taken: TakenJob, board: str) -> None:
        self._taken, self._board = taken, board

    def _key(self, side: str) -> str | None:
        return self._taken.holds(self._board)[side]

    def _hold(self, side: str, held: FamilyHeld | BoardHeld | None) -> None:
        sides = {**self._taken.holds(self._board), side: None if held is None else held.key}
        self._taken.held = {**self._taken.held, self._board: sides}

    @property
    def family(self) -> FamilyHeld | None:
        """The kind of machine."""
        key = self._key("family")
        return None if key is None else FamilyHeld(key, self._taken.document["families"][key]["code"])

    @family.setter
    def family(self, family: FamilyHeld | None) -> None:
        self._hold("family", family)

    @property
    def original(self) -> BoardHeld | None:
        """The board that comes out."""
        return self._at("original")

    @original.setter
    def original(self, board: BoardHeld | None) -> None:
        self._hold("original", board)

    @property
    def replacement(self) -> BoardHeld | None:
        """The board that goes in."""
        return self._at("replacement")

    @replacement.setter
    def replacement(self, board: BoardHeld | None) -> None:
        self._hold("replacement", board)

    def _at(self, side: str) -> BoardHeld | None:
        key = self._key(side)
        return None if key is None else _held(self._taken, key)


def _held(taken: TakenJob, key: str) -> BoardHeld:
    row = taken.document["boards"][key]
    return BoardHeld(key, row["ref"]["part_number"], row["ref"]["revision"], row["kind"])


class JobAlong:
    """A job that is along, as `twinshown.entering` asks for it."""

    at_depot = False

    def __init__(self, taken: TakenJob, board: str = FIRST) -> None:
        self._taken, self._board = taken, board
        self.held = HeldAlong(taken, board)
        self.state: State = taken.case(board).state

    @property
    def void(self) -> tuple[Void, ...]:
        """Entries that say nothing that can stand."""
        return self._taken.void

    @void.setter
    def void(self, void: tuple[Void, ...]) -> None:
        self._taken.void = void

    @property
    def entry_count(self) -> int:
        """How many entries there are, those that wait among them."""
        return len(self._taken.entries)

    @property
    def closed(self) -> bool:
        """Whether it is closed."""
        return self._taken.closed_at is not None

    @property
    def brought_in(self) -> bool:
        """Whether it is another depot's."""
        return self._taken.head().origin is not None

    @property
    def second_person(self) -> bool:
        """Whether a second person signs."""
        return self._taken.head().rules.second_person

    def sent_before(self, new: NewEntry) -> bool:
        """Whether this very entry is there already."""
        return any(entry_id(each) == new.id for each in self._taken.entries)

    def sheet(self, board: str) -> Self:
        """The sheet of one of its boards. Raises NotThere."""
        return self if board == self._board else type(self)(self._taken, board)

    def case(self) -> Case:
        """The sheet as the core sees it."""
        return self._taken.case(self._board)

    def last_said(self, target: str) -> LastSaid | None:
        """The last entry at a target."""
        for each in reversed(self._taken.entries):
            if (each["target"], each.get("board", FIRST)) == (target, self._board):
                told = {name: each[name] for name in ("target", "before", "after", "by", "at")}
                return LastSaid((entry_id(each),), each["by"], told)
        return None

    def check_others(self, new: NewEntry) -> None:
        """Nothing is heard here of what others say; the depot looks at it when the entry joins."""

    def made_at(self, new: NewEntry, now: datetime) -> datetime:
        """Now."""
        return now

    def family(self, code: str) -> FamilyHeld:
        """A kind of machine as it was when the job was taken along."""
        return FamilyHeld(self._now("families", code), code)

    def board(self, part_number: str) -> BoardHeld:
        """A board as it was when the job was taken along."""
        return _held(self._taken, self._now("boards", part_number))

    def _now(self, what: str, name: str) -> str:
        found: str | None = self._taken.document["now"][what].get(name)
        if found is None:
            raise NotThere(f"{name} was not taken along. It can be chosen once there is a connection.")
        return found

    def revision(self, board: BoardHeld, number: int) -> BoardHeld:
        """Other revisions are looked up at the depot."""
        raise Refused(AT_THE_DEPOT)

    def joined_to(self, board: BoardHeld) -> str | None:
        """What the parts lead joined is looked up at the depot."""
        raise Refused(AT_THE_DEPOT)

    def family_title(self, code: str) -> str:
        """What a kind of machine is called."""
        return self._taken.family(self._now("families", code)).title

    def profile(self, board: BoardHeld) -> Board:
        """What is written of a board."""
        return self._taken.board(board.key)

    def family_profile(self, family: FamilyHeld) -> Family:
        """What is written of a kind of machine."""
        return self._taken.family(family.key)

    def alternatives(self, now: datetime, chosen: str) -> Sequence[dict[str, Any]]:
        """The candidates as they stood when the job was taken along."""
        found: Sequence[dict[str, Any]] = self._taken.document["looked_up"]["alternatives"]
        return found

    def rejudged(self, now: datetime) -> dict[str, Any] | None:
        """Whether another board would be better now is judged by the depot, against its whole catalogue."""
        return None

    def closed_as(self) -> dict[str, Any]:
        """What stands at the head of a job that closes now."""
        found: dict[str, Any] = self._taken.document["head"]
        return found

    def documents(self) -> dict[str, Any]:
        """The depot ties them in."""
        return {}

    def picture(self, name: str) -> dict[str, Any] | None:
        """The picture itself waits beside the entry; the depot looks whether it came."""
        return {}

    def keep(self, new: NewEntry, made: EntryMade, before: Any) -> None:
        """Have the entry wait, and the job as it leaves it."""
        taken = self._taken
        if made.adds.get("closed_as"):
            taken.closed_at = made.at
        taken.state, taken.changed_at = as_stored(turned(self.state, FIRST)), made.at
        at = made.at.astimezone(UTC).isoformat(timespec="milliseconds")
        taken.entries.append(
            {
                "id": str(new.id), "number": made.number, "at": at, "by": made.by,
                **({} if self._board == FIRST else {"board": self._board}), "target": new.target, "before": as_stored(before),
                "after": as_stored(made.after), "reason": made.reason, "read_how": made.read_how,
            }
        )  # fmt: skip
        boards = names_of(taken.case(FIRST).state)
        taken.held = {name: each for name, each in taken.held.items() if name in boards}
