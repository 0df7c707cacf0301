"""What an entry needs of the place where its job is kept: the depot's database, or a device that has the job along."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Protocol, Self

from twincore.job import EntryMade, State, Void
from twincore.job.case import Case
from twincore.profile import Board, Family
from twinshown.entering.accepting import LastSaid, NewEntry


@dataclass(frozen=True, slots=True)
class Maker:
    """Who makes an entry."""

    id: int
    username: str
    shown_name: str


@dataclass(frozen=True, slots=True)
class FamilyHeld:
    """A kind of machine in a revision; `key` is what the place calls that."""

    key: Any
    code: str


@dataclass(frozen=True, slots=True)
class BoardHeld:
    """A board in a revision; `key` is what the place calls that."""

    key: Any
    part_number: str
    revision: int
    family: str


class Held(Protocol):
    """What the sheet of a board rests on. An entry that chooses changes it, and the case that is made of the sheet with it."""

    family: FamilyHeld | None
    original: BoardHeld | None
    replacement: BoardHeld | None


class JobAtHand(Protocol):
    """A job, with the sheet of one of its boards at hand, while an entry is made."""

    state: State
    void: tuple[Void, ...]
    at_depot: bool
    """Whether all of the depot can be looked up."""

    @property
    def entry_count(self) -> int:
        """How many entries there are."""

    @property
    def closed(self) -> bool:
        """Whether it is closed."""

    @property
    def brought_in(self) -> bool:
        """Whether it is another depot's, kept here as it stood there."""

    @property
    def second_person(self) -> bool:
        """Whether a second person signs."""

    @property
    def held(self) -> Held:
        """What the sheet rests on."""

    def sent_before(self, new: NewEntry) -> bool:
        """Whether this very entry is there already. Refuses an id that is another entry's."""

    def sheet(self, board: str) -> Self:
        """The sheet of one of its boards. Raises NotThere."""

    def case(self) -> Case:
        """The sheet as the core sees it, with what it rests on."""

    def last_said(self, target: str) -> LastSaid | None:
        """The last entry at a target."""

    def check_others(self, new: NewEntry) -> None:
        """Refuse what cannot be true beside what others said, as far as this place hears of them."""

    def made_at(self, new: NewEntry, now: datetime) -> datetime:
        """When an entry was made."""

    def family(self, code: str) -> FamilyHeld:
        """A kind of machine as it is now. Raises NotThere."""

    def board(self, part_number: str) -> BoardHeld:
        """A board as it is now. Raises NotThere."""

    def revision(self, board: BoardHeld, number: int) -> BoardHeld:
        """A board in another revision. Raises NotThere."""

    def joined_to(self, board: BoardHeld) -> str | None:
        """The number of the board that a sketch turned out to be."""

    def family_title(self, code: str) -> str:
        """What a kind of machine is called."""

    def profile(self, board: BoardHeld) -> Board:
        """What is written of a board."""

    def family_profile(self, family: FamilyHeld) -> Family:
        """What is written of a kind of machine."""

    def alternatives(self, now: datetime, chosen: str) -> Sequence[dict[str, Any]]:
        """The candidates as they stand, best first, the one chosen among them."""

    def rejudged(self, now: datetime) -> dict[str, Any] | None:
        """What the complete record changes about the choice."""

    def closed_as(self) -> dict[str, Any]:
        """What stands at the head of a job that closes now."""

    def documents(self) -> dict[str, Any]:
        """The digests of the profiles that the sheet rests on, to be brought along by the entry that chooses them."""

    def picture(self, name: str) -> dict[str, Any] | None:
        """What an entry brings along of its picture; None where the picture itself is not there."""

    def keep(self, new: NewEntry, made: EntryMade, before: Any) -> None:
        """Keep the job as the entry leaves it, whole or not at all."""
