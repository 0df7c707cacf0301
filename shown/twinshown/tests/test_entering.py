"""The use case of an entry over a place that is nothing but memory: what is taken, what is refused, and what is kept of it."""

from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, timedelta
from typing import Any, Self
from uuid import uuid4

from django.test import SimpleTestCase

from tests.builders import demo_board
from twincore.errors import Refusal, WrongValue
from twincore.job import TARGETS, EntryMade, State, Void, empty_state
from twincore.job.case import Case
from twincore.job.steps import CAPTURED
from twincore.profile import Board, Family
from twinshown.entering.accepting import LastSaid, NewEntry
from twinshown.entering.choosing import CHOOSING
from twinshown.entering.entry import AT_THE_DEPOT, CAPTURED_HERE, NotTheMaker, enter
from twinshown.entering.port import BoardHeld, FamilyHeld, Maker
from twinshown.refusals import Changed, Faulty, NotThere, Refused

NOW = datetime(2026, 3, 2, 3, 0, tzinfo=UTC)
WENNICK, CORM = Maker(1, "wennick", "Wennick Tarl"), Maker(2, "corm", "Corm Haddle")
BOARDS = {name: BoardHeld(name, name, 1, "deck-oven") for name in ("TVH-2210-B", "TVH-2214-A")} | {
    "UMC 40-118": BoardHeld("UMC 40-118", "UMC 40-118", 1, "retarder-prover")
}


@dataclass
class InMemoryHeld:
    family: FamilyHeld | None = None
    original: BoardHeld | None = None
    replacement: BoardHeld | None = None


@dataclass
class InMemory:
    """A job that nothing keeps but this object."""

    state: State = field(default_factory=empty_state)
    void: tuple[Void, ...] = ()
    at_depot: bool = True
    closed: bool = False
    brought_in: bool = False
    second_person: bool = False
    held: InMemoryHeld = field(default_factory=InMemoryHeld)
    kept: list[tuple[NewEntry, EntryMade, Any]] = field(default_factory=list)
    judged: str = "fits"

    @property
    def entry_count(self) -> int:
        return len(self.kept)

    def sent_before(self, new: NewEntry) -> bool:
        return any(each.id == new.id for each, _, _ in self.kept)

    def sheet(self, board: str) -> Self:
        if board != "1":
            raise NotThere("This job has no such board. Open the job again.")
        return self

    def case(self) -> Case:
        original, replacement = (
            held and demo_board(held.part_number) for held in (self.held.original, self.held.replacement)
        )
        return Case(self.state, self.entry_count, None, original, replacement)

    def last_said(self, target: str) -> LastSaid | None:
        said = [made for _, made, _ in self.kept if made.target == target]
        return LastSaid((None,), said[-1].by, {"target": target}) if said else None

    def check_others(self, new: NewEntry) -> None:
        if new.device == "unseen":
            raise Changed("Meanwhile somebody said otherwise.")

    def made_at(self, new: NewEntry, now: datetime) -> datetime:
        return now - timedelta(minutes=1)

    def family(self, code: str) -> FamilyHeld:
        return FamilyHeld(code, code)

    def board(self, part_number: str) -> BoardHeld:
        if part_number not in BOARDS:
            raise NotThere(f"There is no board {part_number}.")
        return BOARDS[part_number]

    def revision(self, board: BoardHeld, number: int) -> BoardHeld:
        return replace(board, revision=number)

    def joined_to(self, board: BoardHeld) -> str | None:
        return None

    def family_title(self, code: str) -> str:
        return code

    def profile(self, board: BoardHeld) -> Board:
        return demo_board(board.part_number)

    def family_profile(self, family: FamilyHeld) -> Family:
        raise AssertionError("no family is looked at here")

    def alternatives(self, now: datetime, chosen: str) -> list[dict[str, Any]]:
        return [{"part_number": chosen, "verdict": self.judged}]

    def rejudged(self, now: datetime) -> None:
        return None

    def closed_as(self) -> dict[str, Any]:
        return {"number": "SQ-1"}

    def documents(self) -> dict[str, Any]:
        return {"documents": {"original.board.json": "0" * 64}}

    def picture(self, name: str) -> dict[str, Any] | None:
        return None

    def keep(self, new: NewEntry, made: EntryMade, before: Any) -> None:
        self.kept.append((new, made, before))


class Declared(SimpleTestCase):
    def test_what_chooses_or_captures_at_the_place_is_declared_so(self) -> None:
        self.assertEqual(set(CHOOSING), {kind for kind, target in TARGETS.items() if target.chooses})
        captures = {kind for kind, target in TARGETS.items() if target.captures}
        self.assertEqual(captures, {*CAPTURED, *CAPTURED_HERE, *CHOOSING})


class Entering(SimpleTestCase):
    def setUp(self) -> None:
        self.job = InMemory()

    def say(self, target: str, after: Any, before: Any = None, by: Maker = WENNICK, **more: Any) -> EntryMade:
        enter(self.job, NewEntry(uuid4(), target, before, after, **more), by, NOW)
        return self.job.kept[-1][1]

    def refused(self, kind: type[Exception], target: str, after: Any, **more: Any) -> str:
        before = (self.job.state, self.job.entry_count)
        with self.assertRaises(kind) as caught:
            self.say(target, after, **more)
        self.assertEqual((self.job.state, self.job.entry_count), before)
        return str(getattr(caught.exception, "detail", caught.exception))

    def test_what_is_taken_is_kept_with_who_and_when_it_was_made(self) -> None:
        made = self.say("serial", "771", reason="  off the plate ")
        self.assertEqual(
            (made.number, made.by, made.at, made.reason),
            (1, "Wennick Tarl", NOW - timedelta(minutes=1), "off the plate"),
        )
        self.assertEqual(self.job.state["serial"], "771")
        self.say("serial", None, before="771")
        self.assertEqual((self.job.kept[-1][2], self.job.state["serial"]), ("771", None))

    def test_the_same_entry_again_changes_nothing(self) -> None:
        new = NewEntry(uuid4(), "serial", None, "771")
        for _ in range(2):
            enter(self.job, new, WENNICK, NOW)
        self.assertEqual(self.job.entry_count, 1)

    def test_who_did_not_make_it_does_not_send_it(self) -> None:
        self.refused(NotTheMaker, "serial", "771", by=CORM, maker="wennick")

    def test_what_somebody_else_changed_is_told_before_what_others_said(self) -> None:
        self.say("serial", "771", by=CORM)
        self.assertIn("Corm Haddle set it to 771", self.refused(Changed, "serial", "772", device="unseen"))
        self.refused(Changed, "serial", "772", before="771", device="unseen")

    def test_a_board_is_chosen_with_its_documents_and_judged_no_only_with_a_reason(self) -> None:
        self.refused(NotThere, "original", "XYZ-1")
        self.refused(Refused, "replacement", "TVH-2214-A")
        self.job.held.family, self.job.held.original = FamilyHeld("deck-oven", "deck-oven"), BOARDS["TVH-2210-B"]
        self.job.state = {**self.job.state, "original": "TVH-2210-B"}
        self.assertIn("another family", self.refused(Refused, "replacement", "UMC 40-118"))
        self.job.judged = "no"
        self.assertIn("Say why", self.refused(WrongValue, "replacement", "TVH-2214-A"))
        self.job.held.replacement = None
        entry = self.say("replacement", "TVH-2214-A", reason="the only one on the van")
        self.assertEqual((entry.adds["choice"]["verdict"], set(entry.adds)), ("no", {"choice", "documents"}))
        self.assertEqual(self.job.held.replacement, BOARDS["TVH-2214-A"])

    def test_what_only_the_depot_knows_is_not_said_elsewhere(self) -> None:
        self.job.at_depot = False
        self.assertEqual(self.refused(Refused, "original_profile", 2), AT_THE_DEPOT)

    def test_what_waits_is_closed_or_is_none_is_refused(self) -> None:
        self.assertIn("waits for", self.refused(Refused, "found.S1", "010101"))
        self.refused(WrongValue, "nothing.at.all", 1)
        self.refused(Refusal, "confirmed.recognise", {"note": ""})
        self.refused(NotThere, "symptom.dark", "yes", board="4")
        self.job.held.original = BOARDS["TVH-2210-B"]
        self.job.state = {**self.job.state, "original": "TVH-2210-B"}
        self.assertIn("picture itself", self.refused(Faulty, f"picture.{uuid4()}", {"caption": "x"}))
        self.job.closed = True
        self.assertIn("closed", self.refused(Refused, "serial", "1"))
        self.job.closed, self.job.brought_in = False, True
        self.assertIn("another depot", self.refused(Refused, "serial", "1"))
