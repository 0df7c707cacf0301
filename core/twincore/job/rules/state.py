"""The state of a job: what its entries add up to, as plain JSON data. It is typed here and stored as it is."""

from typing import Annotated, Any, Literal, NotRequired, cast

from pydantic import StringConstraints, TypeAdapter
from typing_extensions import TypedDict

from twincore.job.target import FIRST, Signed
from twincore.job.targets import TARGETS
from twincore.job.targets.carry_over import MeaningKept, PlacedKept, PlugPutKept
from twincore.job.targets.choose import ChoiceKept, RejudgedKept, SameBoard
from twincore.job.targets.fit import EnergisedKept, InHandKept, KitStepKept, LearnedKept, ReadbackKept
from twincore.job.targets.hand_over import (
    CorrectionKept,
    DefectKept,
    FeedbackKept,
    NumberedKept,
    OldBoardKept,
    SignedKept,
)
from twincore.job.targets.make_safe import HoldKept
from twincore.job.targets.prove import CheckKept, ForcedKept, ReadingKept, RunKept
from twincore.job.targets.recognise import AskedKept, BoardSaid, FactSaid, PlateSaid
from twincore.job.targets.record import (
    AngleKept,
    AssumedKept,
    BetweenKept,
    BlindKept,
    PartState,
    PictureKept,
    QuickWay,
    RemovedKept,
    SettledKept,
    TemporaryKept,
    TraceKept,
    UnreadKept,
    WireKept,
)
from twincore.job.targets.rule_out import CauseKept, RepairKept, TestKept
from twincore.job.values import Position, Scalar, Text, YesNo, closed
from twincore.settings.schools import School
from twincore.wiring.planned import Order

VERSION = 2
"""Of the state as it is stored; 1 had no number, and nothing of what came later."""
End = Literal["condemned", "cleared", "undecided"]
Positions = dict[str, Position]


@closed
class ConfirmedSaid(TypedDict):
    """That a step is done, in a person's words; how ruling out ended."""

    note: Text
    end: NotRequired[Annotated[str, StringConstraints(strict=True, max_length=40)]]


class ConfirmedKept(ConfirmedSaid, Signed):
    """A step's confirmation as it is kept."""

    by_id: NotRequired[int]


class Opened(TypedDict):
    """When and by whom a job was opened."""

    at: str
    by: str


class ClosedAs(TypedDict):
    """What stood at the head of the record as it was closed."""

    number: str
    depot: str
    opened: Opened


class State(TypedDict):
    """All that a job's entries add up to."""

    version: int
    board: str
    """The board whose sheet this is; as a job is stored, the first one."""
    boards: dict[str, dict[str, Any]]
    """What each of the job's other boards has of its own."""
    board_names: dict[str, BoardSaid]
    """What the boards are called where there are several, and why each is changed."""
    boards_order: list[str] | None
    """In which order somebody takes them."""
    family: str | None
    symptoms: dict[str, YesNo]
    report: dict[str, str]
    tests: dict[str, TestKept]
    causes: dict[str, CauseKept]
    repairs: dict[str, RepairKept]
    """What was put right where it was not the board."""
    plates: dict[str, PlateSaid]
    serial: str | None
    original: str | None
    original_profile: int | None
    """The revision of its profile that somebody took after it was recognised; None for the one it began with."""
    original_joined: str | None
    """The board that the sketch it was recognised as turned out to be; `original` says it too from then on."""
    asked: AskedKept | None
    """What the job asks of the depot."""
    answered: AskedKept | None
    facts: dict[str, FactSaid]
    revisions: dict[str, str]
    features: dict[str, str]
    replacement: str | None
    replacement_profile: int | None
    replacement_joined: str | None
    same_board: SameBoard | None
    """Which one it is where the replacement bears the original's number."""
    choice: ChoiceKept | None
    wishes: dict[str, Scalar]
    costs: dict[str, float]
    power: Literal["on", "off"]
    holds: dict[str, HoldKept]
    answers: YesNo | None
    powered: list[str]
    """Elements that only a board with power shows."""
    remembered: list[str]
    """What the original knows and a new board will not."""
    found: Positions
    how: dict[str, str]
    unread: UnreadKept | None
    """That nothing of the original can be read, and why."""
    assumed: dict[str, AssumedKept]
    """How elements that cannot be read are taken to stand."""
    angles: dict[str, AngleKept]
    blind: dict[str, BlindKept]
    kept: dict[str, str]
    traces: dict[str, TraceKept]
    pictures: dict[str, PictureKept]
    wires: dict[str, WireKept]
    plugs: dict[str, QuickWay]
    settled: dict[str, SettledKept]
    removed: dict[str, RemovedKept]
    moving: dict[str, PartState]
    temporary: dict[str, TemporaryKept]
    between: dict[str, BetweenKept]
    """Wires from one board of the machine to another."""
    rejudged: RejudgedKept | None
    school: School | None
    order: Order | None
    placed: dict[str, PlacedKept]
    """Wires put by hand: by their ids, or by the place of the only wire there."""
    plugs_put: dict[str, PlugPutKept]
    meanings: dict[str, MeaningKept]
    """What somebody says that positions mean, by board and function."""
    overrides: Positions
    decisions: dict[str, School]
    reasons: dict[str, str]
    kit: dict[str, int]
    in_hand: InHandKept | None
    """What stands on the board that goes in."""
    kit_steps: dict[str, KitStepKept]
    """How the kit was fitted, step by step."""
    readbacks: dict[str, ReadbackKept]
    looks: dict[str, bool]
    ticked: dict[str, bool]
    energised: EnergisedKept | None
    learned: LearnedKept | None
    reentered: dict[str, str]
    left: Positions | None
    runs: dict[str, RunKept]
    checks: dict[str, CheckKept]
    """The check list, line by line."""
    readings: dict[str, ReadingKept]
    forced: dict[str, ForcedKept]
    verdict: str | None
    defects: dict[str, DefectKept]
    numbered: dict[str, NumberedKept]
    spent: dict[str, float]
    old_board: OldBoardKept | None
    signed: SignedKept | None
    refused: list[SignedKept]
    corrections: dict[str, CorrectionKept]
    feedback: dict[str, FeedbackKept]
    confirmed: dict[str, ConfirmedKept]
    closed_as: NotRequired[ClosedAs]


LISTS = ("powered", "remembered", "refused")
NOTHING_YET: dict[str, Any] = {
    **dict.fromkeys(State.__annotations__),
    **{target.key: {} for target in TARGETS.values() if target.named},
    **{name: [] for name in LISTS},
    "how": {}, "confirmed": {}, "power": "on", "version": VERSION, "board": FIRST, "boards": {},
}  # fmt: skip
del NOTHING_YET["closed_as"]


def empty_state() -> State:
    """A job about which nothing is known yet."""
    fresh = {name: type(value)() if isinstance(value, dict | list) else value for name, value in NOTHING_YET.items()}
    return cast(State, fresh)


def state_schema() -> dict[str, Any]:
    """The JSON Schema of a state."""
    return TypeAdapter(State).json_schema()
