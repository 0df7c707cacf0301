"""Where a slip led: from what is seen instead of what was expected, back to the press that went wrong."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from twincore.programming.panel import Panel, Shown
from twincore.programming.presses import Press, shortest, told

KINDS = ("none", "missed", "once too often", "other key")


@dataclass(frozen=True, slots=True)
class Slip:
    """One explanation of what is seen: the press that went wrong (from 1), how, where it led, and the way on.

    `actions` are those that were then made in truth. `back` is None where no key leads back: the panel is left and opened anew.
    """

    kind: str
    press: int
    key: str
    actions: tuple[str, ...]
    now: Shown
    back: tuple[Press, ...] | None


def find_slips(
    panel: Panel, start: Shown, actions: Sequence[str], seen: str, goals: Mapping[int, tuple[int, ...]]
) -> list[Slip]:
    """Every single slip in the presses so far that explains what is seen, the latest first.

    A slip is a press that was missed, made once too often, or made on another key. An empty list says that one slip
    does not explain it; then the panel is left and opened anew.
    """
    found: dict[Shown, Slip] = {}
    for kind, number, key, tried in _slips(panel, actions):
        shown = start
        for action in tried:
            shown = panel.press(shown, action)
        if _alike(panel.text(shown), seen) and shown not in found:
            found[shown] = Slip(kind, number, key, tuple(tried), shown, _way_on(panel, shown, start, goals))
    return list(found.values())


def _alike(shown: str, seen: str) -> bool:
    """Whether somebody who writes down a display writes this: the cursor's brackets, spaces and case do not count."""
    written = [text.replace("[", "").replace("]", "").replace(" ", "").casefold() for text in (shown, seen)]
    return written[0] == written[1]


def _way_on(panel: Panel, shown: Shown, start: Shown, goals: Mapping[int, tuple[int, ...]]) -> tuple[Press, ...] | None:
    """The presses that still lead to the goals, with what the slip changed put back; None where no key leads there."""
    wanted = {item: goals.get(item, start.values[item]) for item in range(len(panel.items))}
    try:
        return tuple(told(panel, shown, shortest(panel, shown, wanted)))
    except ValueError:
        return None


def _slips(panel: Panel, actions: Sequence[str]) -> list[tuple[str, int, str, list[str]]]:
    slips: list[tuple[str, int, str, list[str]]] = [("none", 0, "", list(actions))]
    for number in range(len(actions), 0, -1):
        before, action, after = list(actions[: number - 1]), actions[number - 1], list(actions[number:])
        slips.append(("missed", number, panel.keys[action], before + after))
        slips.append(("once too often", number, panel.keys[action], [*before, action, action, *after]))
        slips += [
            ("other key", number, key, [*before, other, *after]) for other, key in panel.keys.items() if other != action
        ]
    return slips
