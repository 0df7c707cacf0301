"""The front panel: simulated to try the presses first, and asked where a slip led when something else is seen."""

from twincore.job.case import Case
from twincore.job.shared.fitting import fitting_of_job
from twincore.job.shared.presses import press_plan
from twincore.profile import Record
from twincore.profile.values import plain
from twincore.programming import PanelPlan, Slip, find_slips, indices
from twinshown.refusals import Refused
from twinshown.steps.fit.schemas import PanelKey, PanelNow, SlipShown
from twinshown.words.presses import press_lines


def panel_now(case: Case, number: int, actions: list[str]) -> PanelNow:
    """What a panel shows after these presses, from the factory's state."""
    each, target = _panel(case, number)
    panel, shown = each.panel, each.start
    for action in actions:
        shown = panel.press(shown, action)
    goals = _goals(each, case, target)
    return PanelNow(
        title=panel.title or panel.kind,
        shows=panel.text(shown),
        keys=[PanelKey(action=panel.meant(shown, key), key=key) for key in dict.fromkeys(panel.keys.values())],
        stored={
            name: "".join(str(plain(panel.domains[item][index])) for index in shown.values[item])
            for item, name in enumerate(panel.items)
            if name
        },
        reached=panel.left(shown) and all(shown.values[item] == goal for item, goal in goals.items()),
    )  # fmt: skip


def slips_of(case: Case, number: int, actions: list[str], seen: str) -> list[SlipShown]:
    """What explains that something else is seen, the latest slip first, each with the way on."""
    each, target = _panel(case, number)
    unknown = [action for action in actions if action not in each.panel.keys]
    if unknown:
        raise Refused(f"This panel has no key for {', '.join(unknown[:3])}. Load the page again.")
    found = find_slips(each.panel, each.start, actions, seen, _goals(each, case, target))
    return [
        SlipShown(
            words=_words(slip), actions=list(slip.actions),
            back=None if slip.back is None else press_lines(slip.back),
        )
        for slip in found[:6]
    ]  # fmt: skip


def _words(slip: Slip) -> str:
    match slip.kind:
        case "none":
            return "That is what it should show; nothing went wrong."
        case "missed":
            return f"Press {slip.press} ({slip.key}) did not take."
        case "once too often":
            return f"{slip.key} was pressed once too often at press {slip.press}."
    return f"At press {slip.press} the key {slip.key} was pressed instead."


def _panel(case: Case, number: int) -> tuple[PanelPlan, Record]:
    presses = press_plan(case)
    if presses is None or number >= len(presses.panels):
        raise Refused("There is no such panel to key in. Load the page again.")
    return presses.panels[number], fitting_of_job(case).plan


def _goals(each: PanelPlan, case: Case, target: Record) -> dict[int, tuple[int, ...]]:
    board = fitting_of_job(case).replacement
    return {
        item: indices(each.panel, item, board, target)
        for item, name in enumerate(each.panel.items)
        if name in each.sets
    }
