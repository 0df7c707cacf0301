"""Fit: what the API shows and takes."""

from uuid import UUID

from pydantic import Field

from twincore.job.targets.record import PartState
from twinshown.comparison.schemas import Positions
from twinshown.shapes import Schema
from twinshown.words.schemas import HoleShown, PressLine, RememberedShown


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
    look: str
    """The last look that stands before it: one for all wires of a plug."""
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


class MovingPart(Schema):
    """A part of the old board that goes across, with its caution and its place."""

    id: str
    what: str
    caution: str
    place: str
    value: PartState | None


class LearningShown(Schema):
    """A learning run: what it is told by, whether it can be stopped, how many cycles, what is shown at the end."""

    told_by: str
    can_be_stopped: bool
    cycles: int | None
    shows: str


class KitStepShown(Schema):
    """A step of fitting the kit; `measure` empty where nothing is measured, `facts` what would decide whether it is needed."""

    id: str
    what: str
    measure: str
    route: str
    caution: str
    check: str
    picture: str
    facts: list[str]


class AlikeShown(Schema):
    """A board that is easily taken for the one that goes in, and what tells them apart."""

    part_number: str
    words: str


class FittingShown(Schema):
    """Everything that fitting asks for."""

    kit: list[KitShown]
    kit_steps: list[KitStepShown]
    leaflet: list[UUID]
    """The depot's pictures of the kit's leaflet."""
    alike: list[AlikeShown]
    by_hand: list[str]
    by_panel: list[str]
    learned: list[str]
    """Elements whose positions a learning run finds: nothing is planned for them."""
    planned: Positions
    differing: list[str]
    mounting: MountingShown | None
    looks: list[LookShown]
    no_plugs: list[NoPlugShown]
    release: list[ReleaseShown]
    reenter: list[RememberedShown]
    entered: dict[str, str]
    otherwise: list[str]
    """What was entered again and shows otherwise than it was."""
    moving: list[MovingPart]
    cleared: str
    """How a board looks that knows nothing yet."""
    order: list[str]
    """What it does after power comes, in order."""
    learning: LearningShown | None
    port: bool
    missing_dead: list[str]
    missing_beside: list[str]
    """What is missing before power on the machine's other boards."""
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
