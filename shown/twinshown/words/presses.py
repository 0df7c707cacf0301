"""Key presses as they are shown."""

from collections.abc import Sequence

from twincore.programming import Press
from twinshown.words.schemas import PressLine


def press_lines(presses: Sequence[Press]) -> list[PressLine]:
    """Presses for the screen."""
    return [
        PressLine(key=p.key, action=p.action, times=p.times, hold_s=p.hold_s, shows=p.shows, asks=p.asks, do=p.do)
        for p in presses
    ]
