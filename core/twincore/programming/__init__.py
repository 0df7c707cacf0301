"""Programming: key presses that set a board, what must be seen after each, and where a slip led."""

from twincore.programming.document import press_document
from twincore.programming.guided import GuidedPanel
from twincore.programming.panel import Panel, Shown
from twincore.programming.presses import (
    PanelPlan,
    Press,
    PressPlan,
    indices,
    panels_of,
    plan_presses,
    shortest,
    told,
)
from twincore.programming.slips import Slip, find_slips

__all__ = [
    "GuidedPanel",
    "Panel",
    "PanelPlan",
    "Press",
    "PressPlan",
    "Shown",
    "Slip",
    "find_slips",
    "indices",
    "panels_of",
    "plan_presses",
    "press_document",
    "shortest",
    "told",
]
