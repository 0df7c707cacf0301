"""What the API shows and takes of the end of a job."""

from datetime import datetime
from typing import Any
from uuid import UUID

from ninja import Field, Schema

from bench.schemas import Positions, ShownAt
from config.paging import Paging
from jobs.front.schemas import CostLine, HoleShown
from jobs.work.schemas import PressLine, RememberedShown


class KitShown(Schema):
    """A part that must be there before work begins; `there` is what somebody counted."""

    item: str
    count: int
    needed: str
    facts: list[str]
    there: int | None


class LookShown(Schema):
    """One thing to look at or do, and tick."""

    key: str
    group: str
    words: str
    detail: str
    done: bool


class NoPlugShown(Schema):
    """Before a step that cannot be taken back: why no plug simply goes on."""

    step: str
    words: list[str]


class ReleaseShown(Schema):
    """A hold point to release, in the order in which they are released."""

    id: str
    title: str


class MountingShown(Schema):
    """How the new board sits where the old one was."""

    turn: int
    right_mm: float
    up_mm: float
    serving: int
    new_holes: list[HoleShown]
    beyond: list[str]


class LearningShown(Schema):
    """A learning run: what it is told by, whether it can be stopped, how many cycles, what is shown at the end."""

    told_by: str
    can_be_stopped: bool
    cycles: int | None
    shows: str


class FittingShown(Schema):
    """Everything that fitting asks for."""

    kit: list[KitShown]
    by_hand: list[str]
    by_panel: list[str]
    planned: Positions
    differing: list[str]
    mounting: MountingShown | None
    looks: list[LookShown]
    no_plugs: list[NoPlugShown]
    release: list[ReleaseShown]
    reenter: list[RememberedShown]
    entered: dict[str, str]
    learning: LearningShown | None
    port: bool
    missing_dead: list[str]
    missing_powered: list[str]


class ActionsGiven(Schema):
    """Keys pressed on a panel, as what each of them does there."""

    panel: int = Field(ge=0, le=20)
    actions: list[str] = Field(max_length=2000)


class PanelKey(Schema):
    """A key of a panel, and what it does."""

    action: str
    key: str


class PanelNow(Schema):
    """What a simulated panel shows after these presses, what it holds, and whether that is the plan."""

    title: str
    shows: str
    keys: list[PanelKey]
    stored: Positions
    reached: bool


class SlipGiven(ActionsGiven):
    """Something else is seen than what should be."""

    seen: str = Field(min_length=1, max_length=80)


class SlipShown(Schema):
    """One explanation of what is seen, and the way on from there; none where the panel must be left and opened anew."""

    words: str
    actions: list[str]
    back: list[PressLine] | None


class PortWrittenShown(Schema):
    """What writing over the port came to."""

    values: Positions
    differ: list[str]
    fault: str
    undone: bool | None


class MadeShown(Schema):
    """One input change of a run, and how it is made here."""

    at: float
    input: str
    title: str
    value: bool
    way: str
    how: str
    undo: str
    risk: str


class DueShown(Schema):
    """An event that is due, with the band that tolerances allow (seconds)."""

    output: str
    title: str
    on: bool
    at: float
    low: float
    high: float


class PlannedShown(Schema):
    """A run to make on the machine."""

    id: str
    title: str
    why: str
    kind: str
    until: float
    steps: list[MadeShown]
    watch: list[str]
    hands_off: list[str]
    cannot: list[str]
    due: list[DueShown]
    basis: str
    original: list[ShownAt]
    replacement: list[ShownAt]
    last: str | None
    made: int


class OverrideShown(Schema):
    """Something that may be switched on for a test."""

    id: str
    what: str
    how: str
    time_out_s: float
    undo: str


class ReadingTaken(Schema):
    """A reading to take, and what it says."""

    id: str
    title: str
    unit: str
    low: float | None
    high: float | None
    uncertainty: float
    how: list[str]
    risk: str
    source: str
    value: float | None
    verdict: str | None
    margin: float | None


class UnprovedShown(Schema):
    """A part that stays unproved on the machine, and why."""

    what: str
    why: str


class ProvingShown(Schema):
    """The proving plan, and where it stands."""

    runs: list[PlannedShown]
    unproved: list[UnprovedShown]
    readings: list[ReadingTaken]
    overrides: list[OverrideShown]
    forced: list[str]
    doubts: list[str]
    port: bool


class EventJudged(Schema):
    """One event of a measured run."""

    output: str
    title: str
    on: bool
    seen_at: float | None
    due_at: float | None
    low: float | None
    high: float | None
    uncertainty: float
    verdict: str
    margin: float | None
    reasons: list[str]


class MeasuredShown(Schema):
    """A run that was measured, with every event judged."""

    id: str
    title: str
    plan: str
    board: str
    by: str
    at: datetime
    timed: str
    note: str
    verdict: str
    basis: str
    until: float
    steps: list[dict[str, Any]]
    events: list[EventJudged]
    original: list[ShownAt]
    replacement: list[ShownAt]
    measured: list[ShownAt]


class CodeLine(Schema):
    """A code of the new board, and how it clears."""

    shown: str
    meaning: str
    look_at: str
    clears: str


class SpentShown(Schema):
    """What the job took against what the alternative would have: sums, and what they assume."""

    own: list[CostLine]
    service: list[CostLine]
    own_total: float
    service_total: float
    saved: float
    assumptions: dict[str, float]
    entered: list[str]


class RefusedShown(Schema):
    """A signature that was refused."""

    note: str
    by: str
    at: datetime


class HandOverShown(Schema):
    """The end of the job: what is known, what is missing, who signs."""

    decisions: list[str]
    findings: list[str]
    codes: list[CodeLine]
    changed: list[str]
    unproved: list[UnprovedShown]
    temporary: list[str]
    spent: SpentShown
    second_person: bool
    handed_by: str
    may_sign: bool
    refused: list[RefusedShown]
    seal: str
    notes: list[str]


class CallShown(Schema):
    """A closed job about which somebody should ask how the new board does."""

    id: UUID
    code: str
    machine: str
    original: str
    replacement: str
    closed_at: datetime
    said: str


class MachineLine(Schema):
    """A machine of the depot, by its last job."""

    machine: str
    jobs: int
    last_at: datetime
    board: str | None
    serial: str | None


class MachineJob(Schema):
    """One job on a machine."""

    id: UUID
    code: str
    complaint: str
    opened_at: datetime
    closed_at: datetime | None
    original: str | None
    replacement: str | None
    verdict: str | None


class MachineNow(Schema):
    """A machine: which board is in it now, how it was left, by which job; and what is open about it."""

    machine: str
    board: str | None
    left: Positions | None
    since: datetime | None
    by_job: str
    by_job_id: UUID | None
    serial: str | None
    defects: list[str]
    corrections: list[str]


class ImportedShown(Schema):
    """A job that was brought in."""

    id: UUID
    code: str
    machine: str
    new: bool
    entries: int
    pictures: int
    profiles: list[str]


class MachineSearch(Paging):
    """Which machines to list."""

    search: str = Field("", max_length=80)
