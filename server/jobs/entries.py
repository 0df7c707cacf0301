"""A stored job while an entry is made on it: what the depot's database and catalogue tell, and how the entry is kept."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import IntegrityError, transaction
from django.db.models import Q

from catalogue import queries as catalogue
from catalogue.models import BoardRevision
from catalogue.profiles import board_profile, family_profile
from jobs.background import ask_second_check
from jobs.candidates import alternatives, rejudged
from jobs.cases import case_of
from jobs.ledger.chaining import attachment_of, chain, closed_as, documents_carried, moment, picture_name
from jobs.ledger.room import take_room
from jobs.models import Entry, Job, Picture
from jobs.others import check_seen, check_supply, told
from jobs.sheets import keep, sheet
from jobs.steps.hand_over.feedback import count_outcome, exchanged
from people.models import Person
from stock.actions import hear_of_closed_job
from twincore.job import (
    EntryMade,
    State,
    Void,
    board_in_hand,
    board_of,
    step_in_hand,
    turned,
)
from twincore.job.case import Case
from twincore.profile import Board, Family
from twinshown.entering.accepting import LastSaid, NewEntry, made_before
from twinshown.entering.port import BoardHeld, FamilyHeld
from twinshown.refusals import Refused

ID_IN_USE = "This entry's id is in use. Load the page again."


class StoredHeld:
    """What the sheet at hand rests on, in the rows that the job points at."""

    def __init__(self, job: Job) -> None:
        self._job = job

    @property
    def family(self) -> FamilyHeld | None:
        """The kind of machine."""
        revision = self._job.family_revision
        return None if revision is None else FamilyHeld(revision, revision.family_id)

    @family.setter
    def family(self, family: FamilyHeld | None) -> None:
        self._job.family_revision = None if family is None else family.key

    @property
    def original(self) -> BoardHeld | None:
        """The board that comes out."""
        return _held(self._job.original_revision)

    @original.setter
    def original(self, board: BoardHeld | None) -> None:
        self._job.original_revision = None if board is None else board.key

    @property
    def replacement(self) -> BoardHeld | None:
        """The board that goes in."""
        return _held(self._job.replacement_revision)

    @replacement.setter
    def replacement(self, board: BoardHeld | None) -> None:
        self._job.replacement_revision = None if board is None else board.key


def _held(revision: BoardRevision | None) -> BoardHeld | None:
    if revision is None:
        return None
    return BoardHeld(revision, revision.board.part_number, revision.number, revision.board.family_id)


class StoredJob:
    """A job of the depot, locked, as `twinshown.entering` asks for it."""

    at_depot = True

    def __init__(self, job: Job, person: Person, now: datetime) -> None:
        self.job, self._person, self._now = job, person, now
        self.held = StoredHeld(job)

    @property
    def state(self) -> State:
        """What its entries add up to, by the sheet at hand."""
        return self.job.state

    @state.setter
    def state(self, state: State) -> None:
        self.job.state = state

    @property
    def void(self) -> tuple[Void, ...]:
        """Entries that say nothing that can stand."""
        return self.job.void

    @void.setter
    def void(self, void: tuple[Void, ...]) -> None:
        self.job.void = void

    @property
    def entry_count(self) -> int:
        """How many entries there are."""
        return self.job.entry_count

    @property
    def closed(self) -> bool:
        """Whether it is closed."""
        return self.job.closed_at is not None

    @property
    def brought_in(self) -> bool:
        """Whether it is another depot's, kept here as it stood there."""
        return self.job.origin is not None

    @property
    def second_person(self) -> bool:
        """Whether a second person signs."""
        return self.job.depot.second_person

    def sent_before(self, new: NewEntry) -> bool:
        """Whether this very entry is there already. Refuses an id that is another entry's."""
        there = Entry.objects.filter(pk=new.id).first()
        if there is None:
            return False
        if (there.job_id, there.target, there.board) != (self.job.pk, new.target, board_of(new.target, new.board)):
            raise Refused(ID_IN_USE)
        return True

    def sheet(self, board: str) -> "StoredJob":
        """The sheet of one of its boards. Raises NotThere."""
        return self if board == self.job.board else StoredJob(sheet(self.job, board), self._person, self._now)

    def case(self) -> Case:
        """The sheet as the core sees it."""
        return case_of(self.job)

    def last_said(self, target: str) -> LastSaid | None:
        """The last entry at a target."""
        last = self.job.entries.filter(target=target, board=self.job.board).first()
        return None if last is None else LastSaid((last.pk, last.known_as), last.by_name, told(last))

    def check_others(self, new: NewEntry) -> None:
        """Refuse what cannot be true beside what other jobs and other people said of the machine's supply."""
        check_supply(self.job, new)
        check_seen(self.job, self._person, new)

    def made_at(self, new: NewEntry, now: datetime) -> datetime:
        """When an entry was made: the device tells, whose clock is doubted; but not before what it followed."""
        told = made_before(new, now)
        if told is None:
            return now
        before = self.job.entries.filter(Q(number=new.seen) | Q(by=self._person)).order_by("-at")
        followed = before.values_list("at", flat=True).first()
        return min(max(told, followed or self.job.opened_at, self.job.opened_at), now)

    def family(self, code: str) -> FamilyHeld:
        """A kind of machine as it is now."""
        found = catalogue.family(code, self.job.depot_id)
        return FamilyHeld(found.current, found.code)

    def board(self, part_number: str) -> BoardHeld:
        """A board as it is now."""
        found = catalogue.board(part_number, self.job.depot_id)
        assert found.current is not None  # queries.board refuses boards without one
        return BoardHeld(found.current, found.part_number, found.current.number, found.family_id)

    def revision(self, board: BoardHeld, number: int) -> BoardHeld:
        """A board in another revision."""
        return BoardHeld(catalogue.revision(board.key.board, number), board.part_number, number, board.family)

    def joined_to(self, board: BoardHeld) -> str | None:
        """The number of the board that a sketch turned out to be."""
        return catalogue.joined_to(board.key.board)

    def family_title(self, code: str) -> str:
        """What a kind of machine is called."""
        return catalogue.family(code, self.job.depot_id).title

    def profile(self, board: BoardHeld) -> Board:
        """What is written of a board."""
        return board_profile(board.key.pk)

    def family_profile(self, family: FamilyHeld) -> Family:
        """What is written of a kind of machine."""
        return family_profile(family.key.pk)

    def alternatives(self, now: datetime, chosen: str) -> Sequence[dict[str, Any]]:
        """The candidates as they stand, best first, the one chosen among them."""
        return alternatives(self.job, now, chosen)

    def rejudged(self, now: datetime) -> dict[str, Any] | None:
        """What the complete record changes about the choice."""
        return rejudged(self.job, now)

    def closed_as(self) -> dict[str, Any]:
        """What stands at the head of a job that closes now."""
        return closed_as(self.job)

    def documents(self) -> dict[str, Any]:
        """The digests of the profiles that the sheet rests on."""
        return {"documents": documents_carried(self.job)}

    def picture(self, name: str) -> dict[str, Any] | None:
        """The size of a picture and its file's name in a package; None where nobody sent it."""
        found = Picture.objects.filter(name=UUID(name), job=self.job.pk).first()
        return None if found is None else {"file": picture_name(found), "width": found.width, "height": found.height}

    def keep(self, new: NewEntry, made: EntryMade, before: Any) -> None:
        """Chain the entry and save it with what it changed; in the transaction that holds the job."""
        job = self.job
        if made.adds.get("closed_as"):
            job.closed_at = made.at
        if made.target.partition(".")[0] == "feedback":
            count_outcome(job, self._now)
        job.entry_count = made.number
        entry = Entry(
            id=new.id, job=job, number=made.number, at=made.at, by=self._person, by_name=made.by, target=made.target,
            board=made.board, before=before, after=made.after, adds=made.adds or None, reason=made.reason,
            read_how=made.read_how, attachment=attachment_of(job, made.target, made.after),
            made=_joined(new, made.at, self._now), device=new.device,
        )  # fmt: skip
        take_room(job, entry)
        chain(job, entry)
        try:
            with transaction.atomic():
                entry.save(force_insert=True)
        except IntegrityError as error:
            # the same id was sent to another job at the same moment
            raise Refused(ID_IN_USE) from error
        job.changed_at = self._now
        job.step = step_in_hand(turned(job.state, board_in_hand(job.state)))
        self.job = keep(job)
        if made.adds.get("verdict"):
            transaction.on_commit(lambda: ask_second_check(job.pk))
        if made.adds.get("closed_as"):
            hear_of_closed_job(self._person, job.pk, job.code, exchanged(self.job), self._now)


def _joined(new: NewEntry, at: datetime, now: datetime) -> dict[str, Any] | None:
    """When an entry was made and when it joined, where these are not the same."""
    if new.made_at is None or at == now:
        return None
    return {"at": moment(new.made_at), "ahead_ms": new.clock_ahead_ms, "joined": moment(now)}
