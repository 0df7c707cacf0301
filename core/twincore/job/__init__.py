"""A job: its targets, each declared once; what entries do to it; the order of the work; and the job played again."""

from twincore.job.record.document import record_faults, record_of, uncovered, verify_package
from twincore.job.record.mending import Mended, Void, mended
from twincore.job.record.reading import current
from twincore.job.record.replay import Replayed, partings, replay
from twincore.job.record.sheet import Profiles, sheet_of
from twincore.job.rules.boards import BOARD_NAMES, board_of, names_of, several, sheets, title_of, turned, why_of
from twincore.job.rules.changing import KEPT_BESIDE, as_said, changed, value_at
from twincore.job.rules.order import (
    OVER_PORT,
    STEPS,
    Standing,
    board_in_hand,
    cleared,
    done,
    proved,
    settled,
    standing,
    step_in_hand,
    step_of,
    target_waits_for,
    uncleared_causes,
    unread_powered,
    waiting_for,
)
from twincore.job.rules.state import VERSION, ConfirmedSaid, State, empty_state
from twincore.job.rules.together import Supply, about_supply, contradicts, supply_needed, supply_said
from twincore.job.target import FIRST, EntryMade, Need, Step, Target, checked
from twincore.job.targets import TARGETS

__all__ = [
    "BOARD_NAMES",
    "FIRST",
    "KEPT_BESIDE",
    "OVER_PORT",
    "STEPS",
    "TARGETS",
    "VERSION",
    "ConfirmedSaid",
    "EntryMade",
    "Mended",
    "Need",
    "Profiles",
    "Replayed",
    "Standing",
    "State",
    "Step",
    "Supply",
    "Target",
    "Void",
    "about_supply",
    "as_said",
    "board_in_hand",
    "board_of",
    "changed",
    "checked",
    "cleared",
    "contradicts",
    "current",
    "done",
    "empty_state",
    "mended",
    "names_of",
    "partings",
    "proved",
    "record_faults",
    "record_of",
    "replay",
    "settled",
    "several",
    "sheet_of",
    "sheets",
    "standing",
    "step_in_hand",
    "step_of",
    "supply_needed",
    "supply_said",
    "target_waits_for",
    "title_of",
    "turned",
    "uncleared_causes",
    "uncovered",
    "unread_powered",
    "value_at",
    "verify_package",
    "waiting_for",
    "why_of",
]
