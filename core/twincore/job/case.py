"""A job at hand: what its entries add up to, the boards that it is about, and the shelf of data that it rests on."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Protocol

from twincore.carry_over import Keep, record_of, work_out
from twincore.errors import Refusal
from twincore.job.rules.state import State
from twincore.make_safe import USUAL_V
from twincore.profile import Board, Family, written_positions
from twincore.profile.values import plain
from twincore.recognise import Scheme
from twincore.rule_out import RuleOut
from twincore.wiring import Adapter


class Shelf(Protocol):
    """What a job looks up besides its boards."""

    @property
    def schemes(self) -> Sequence[Scheme]:
        """The nameplate schemes."""

    @property
    def adapters(self) -> Sequence[Adapter]:
        """The adapter leads at hand."""

    @property
    def rule_out(self) -> RuleOut | None:
        """The rule-out data of the family; None where it has none."""

    def code_meanings(self, shown: str) -> Sequence[dict[str, Any]]:
        """What a shown code means on the boards of the family, each meaning once."""

    def failures(self) -> tuple[int, int]:
        """How often boards of this kind were condemned, and cleared, in other jobs."""


@dataclass(frozen=True, slots=True)
class EmptyShelf:
    """Nothing to look up: a job on files alone."""

    schemes: Sequence[Scheme] = ()
    adapters: Sequence[Adapter] = ()
    rule_out: RuleOut | None = None

    def code_meanings(self, shown: str) -> Sequence[dict[str, Any]]:
        """None are known."""
        return ()

    def failures(self) -> tuple[int, int]:
        """None are counted."""
        return 0, 0


@dataclass(slots=True)
class Case:
    """A job at hand. What is None is not known yet."""

    state: State
    entry_count: int = 0
    family: Family | None = None
    original: Board | None = None
    replacement: Board | None = None
    shelf: Shelf = field(default_factory=EmptyShelf)
    school: str = ""
    """The depot's school of ruling out."""
    dead_v: float = USUAL_V
    """What the depot lets an instrument still show of a machine that is dead, volts."""
    names: tuple[object, object, object] = ("", "", "")
    """Of the revisions of family, original and replacement, for answers that are kept."""
    keep: Keep = work_out
    beside: tuple["Case", ...] = ()
    """The job's other boards, each a case of its own."""

    @property
    def boards(self) -> list["Case"]:
        """All boards of the job, in the order in which they came to it."""
        return sorted([self, *self.beside], key=lambda each: each.state["board"])


def original_of(case: Case) -> tuple[Family, Board]:
    """The family and the board coming out."""
    if case.family is None or case.original is None:
        raise Refusal("Nobody has said yet which board comes out. Do that first, in Recognise.")
    return case.family, case.original


def new_board(case: Case) -> Board:
    """The board going in."""
    if case.replacement is None:
        raise Refusal("Nobody has chosen yet which board goes in. Do that first, in Choose.")
    return case.replacement


def remembered(board: Board) -> Sequence[Mapping[str, Any]]:
    """What a board knows and a new one will not."""
    return board.document.get("remembers", ())


def position(board: Board, element: str, written: Any) -> Any:
    """A position as this board writes it, checked."""
    record = record_of(board, {element: written})
    return plain(written_positions(board, record.points))[element]
