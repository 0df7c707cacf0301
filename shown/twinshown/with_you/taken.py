"""A job as it was taken along: its entries, its boards, and what it looks up, as they were then."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from functools import cached_property
from typing import Any, TypeVar
from uuid import UUID

from twincore.job import FIRST, Void, current, names_of, turned
from twincore.job.case import Case
from twincore.job.shared.meanings import with_meanings
from twincore.make_safe import USUAL_V
from twincore.profile import Board, Family, parse_board, parse_family
from twincore.recognise import Scheme, parse_nameplates
from twincore.rule_out import RuleOut, parse_rule_out
from twincore.wiring import Adapter, parse_adapters
from twinshown.refusals import NotThere
from twinshown.sheet.head import Head, Rules
from twinshown.sheet.schemas import BoardRef

Answer = TypeVar("Answer")
SIDES = ("family", "original", "replacement")
Held = dict[str, str | None]
"""The family, the original and the replacement of a sheet, by the keys of their revisions."""
MOST_ANSWERS = 200


@dataclass
class Shelf:
    """What the job looks up, as far as it was taken along."""

    looked_up: Mapping[str, Any]
    kind: str | None

    @cached_property
    def schemes(self) -> Sequence[Scheme]:
        """The nameplate schemes."""
        return [each for text in self.looked_up["nameplates"] for each in parse_nameplates(text.encode())]

    @cached_property
    def adapters(self) -> Sequence[Adapter]:
        """The adapter leads."""
        return [each for text in self.looked_up["adapters"] for each in parse_adapters(text.encode())]

    @cached_property
    def rule_out(self) -> RuleOut | None:
        """The rule-out data of the family."""
        text = self.looked_up["rule_out"].get(self.kind)
        return parse_rule_out(text.encode()) if text else None

    def code_meanings(self, shown: str) -> Sequence[dict[str, Any]]:
        """What a shown code means on the boards of the family."""
        found: Sequence[dict[str, Any]] = self.looked_up["codes"].get(self.kind, {}).get(shown, ())
        return found

    def failures(self) -> tuple[int, int]:
        """How often boards of this kind were condemned, and cleared, in the depot's other jobs."""
        condemned, cleared = self.looked_up["failures"].get(self.kind, (0, 0))
        return condemned, cleared


@dataclass
class TakenJob:
    """A job at hand, as `document` had it when it was taken along, with what was entered since."""

    document: Mapping[str, Any]
    state: dict[str, Any] = field(init=False)
    entries: list[dict[str, Any]] = field(init=False)
    held: dict[str, Held] = field(init=False)
    closed_at: datetime | None = field(init=False)
    changed_at: datetime = field(init=False)
    void: tuple[Void, ...] = field(init=False)
    _answers: dict[str, Any] = field(init=False, default_factory=dict)
    _cases: tuple[Any, dict[str, Case]] = field(init=False, default=(None, {}))

    def __post_init__(self) -> None:
        job = self.document["job"]
        self.state = self.document["state"]
        self.entries = list(self.document["entries"])
        self.held = {name: dict(each) for name, each in self.document["sheets"].items()}
        self.closed_at = moment(job["closed_at"])
        self.changed_at = datetime.fromisoformat(job["changed_at"])
        self.void = tuple(Void(**each) for each in job["void"])

    @property
    def id(self) -> str:
        """Of the job."""
        return str(self.document["job"]["id"])

    @property
    def person(self) -> Mapping[str, Any]:
        """Who has it along."""
        found: Mapping[str, Any] = self.document["person"]
        return found

    def holds(self, board: str) -> Held:
        """The revisions of a board's sheet."""
        return self.held.get(board) or dict.fromkeys(SIDES)

    def case(self, board: str = FIRST) -> Case:
        """A sheet as the core sees it, the others beside it."""
        about = (id(self.state), len(self.entries), str(self.held))
        if self._cases[0] != about:
            self._cases = (about, self._made())
        found = self._cases[1].get(board)
        if found is None:
            raise NotThere("This job has no such board. Open the job again.")
        return found

    def _made(self) -> dict[str, Case]:
        cases = {name: self._case(name) for name in names_of(current(self.state))}
        for name, each in cases.items():
            each.beside = tuple(other for key, other in cases.items() if key != name)
        return cases

    def _case(self, board: str) -> Case:
        held = self.holds(board)
        family, original, replacement = (held[side] for side in SIDES)
        kind = self.document["families"][family]["code"] if family else None
        case = Case(
            state=current(turned(current(self.state), board)),
            entry_count=len(self.entries),
            family=self.family(family) if family else None,
            original=self.board(original) if original else None,
            replacement=self.board(replacement) if replacement else None,
            shelf=Shelf(self.document["looked_up"], kind),
            school=self.document["depot"]["rule_out_school"],
            dead_v=self.document["depot"].get("dead_v", USUAL_V),
            names=(family, original, replacement),
            keep=self._keep,
        )
        return with_meanings(case)

    def _keep(self, key: str, work: Callable[[], Answer]) -> Answer:
        if key not in self._answers:
            if len(self._answers) >= MOST_ANSWERS:
                del self._answers[next(iter(self._answers))]
            self._answers[key] = work()
        found: Answer = self._answers[key]
        return found

    def family(self, key: str) -> Family:
        """A kind of machine in a revision."""
        text = self.document["families"][key]["document"]
        return self._keep(f"family {key}", lambda: parse_family(text.encode()))

    def board(self, key: str) -> Board:
        """A board in a revision."""
        text = self.document["boards"][key]["document"]
        return self._keep(f"board {key}", lambda: parse_board(text.encode()))

    def head(self, board: str = FIRST) -> Head:
        """The head of a sheet."""
        job, depot, held = self.document["job"], self.document["depot"], self.holds(board)
        return Head(
            id=self.id,
            code=job["code"],
            machine=job["machine"],
            complaint=job["complaint"],
            opened_at=datetime.fromisoformat(job["opened_at"]),
            opened_by=job["opened_by"],
            changed_at=self.changed_at,
            closed_at=self.closed_at,
            rules=Rules(
                school_when_agreed=depot["school_when_agreed"],
                school_when_not=depot["school_when_not"],
                second_person=depot["second_person"],
                assumptions=depot["assumptions"],
                currency=depot.get("currency", ""),
            ),
            original=self._ref(held["original"]),
            replacement=self._ref(held["replacement"]),
            origin=job["origin"],
            void=self.void,
        )

    def _ref(self, key: str | None) -> BoardRef | None:
        return None if key is None else BoardRef(**self.document["boards"][key]["ref"])

    def reasons(self) -> dict[tuple[str, str], str]:
        """Why somebody said last what stands at a target, by board and target."""
        return {(each.get("board", FIRST), each["target"]): each["reason"] for each in self.entries}


def moment(text: str | None) -> datetime | None:
    """A time that may not be known."""
    return datetime.fromisoformat(text) if text else None


def entry_id(node: Mapping[str, Any]) -> UUID:
    """The id of an entry, as it is here."""
    return UUID(node["here"] if "here" in node else node["id"])
