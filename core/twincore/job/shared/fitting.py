"""What is to be fitted on a job: the kit, the wires, how the board sits, and everything that is looked at and ticked."""

from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Any

from twincore.choose import KitLine, Mounting
from twincore.job.case import Case, new_board, original_of
from twincore.job.shared.in_hand import conditions
from twincore.job.shared.left import plan_of
from twincore.job.shared.presses import press_plan
from twincore.job.shared.taking import kit_of, leads_of, mounting_of
from twincore.job.shared.telling import found_by_learning, learns
from twincore.job.shared.wires import WiringOf, step_key, wiring_of, wiring_plan
from twincore.job.targets.fit import WITH_POWER
from twincore.profile import Board, Record
from twincore.profile.extras import panel_elements
from twincore.wiring import IRREVERSIBLE, NoPlug, no_plug_for, second_looks

MOUNTED = "mounted"
PINCHED = "no lead pinched"


@dataclass(frozen=True, slots=True)
class Look:
    """One thing to look at or do, and tick: its key in the job, its group, and what it is about."""

    key: str
    group: str
    about: dict[str, Any] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Fitting:
    """All that fitting asks for on this job, from the data of both boards and the record."""

    replacement: Board
    plan: Record
    kit: tuple[KitLine, ...]
    wiring: WiringOf | None
    mounting: Mounting | None
    looks: tuple[Look, ...]
    no_plugs: dict[str, NoPlug]
    """By the key of a step that cannot be taken back: why there is no plug that fits."""
    learned: tuple[str, ...] = ()
    """The elements whose positions a learning run finds."""


def fitting_of_job(case: Case) -> Fitting:
    """What is to be fitted, and how it is looked at. The plan is confirmed."""
    plan, replacement = plan_of(case), new_board(case)
    wiring = wiring_plan(case)
    mounting = mounting_of(case)
    no_plugs = _no_plugs(case, wiring)
    looks = (
        *_hand_looks(replacement),
        *_mounting_looks(mounting),
        *_last_looks(no_plugs),
        *_second(wiring),
        *_places(case),
        *_powered(case),
    )
    kit = (*kit_of(case), *leads_of(wiring.plan if wiring else None))
    return Fitting(replacement, plan, kit, wiring, mounting, looks, no_plugs, tuple(found_by_learning(case)))


def _no_plugs(case: Case, wiring: WiringOf | None) -> dict[str, NoPlug]:
    if wiring is None:
        return {}
    family, original = original_of(case)
    by_id = {each.wire.id: each for each in wiring.plan.wires}
    plugs = {
        step_key(step): by_id[step.wires[0]].wire.connector
        for step in wiring.plan.steps
        if step.wires and by_id[step.wires[0]].treatment in IRREVERSIBLE
    }
    if not plugs:
        return {}
    record, replacement, adapters = wiring_of(case), new_board(case), case.shelf.adapters
    by_plug = {
        plug: no_plug_for(wiring.plan, plug, original, record, replacement, family, adapters)
        for plug in set(plugs.values())
    }
    return {key: by_plug[plug] for key, plug in plugs.items()}


def _hand_looks(board: Board) -> Iterable[Look]:
    for index, what in enumerate(conditions(board)):
        yield Look(f"hand {index}", "hand", {"what": what})


def _mounting_looks(mounting: Mounting | None) -> Iterable[Look]:
    for hole in mounting.new_holes if mounting else ():
        about = {
            "from_left_mm": hole.from_left_mm,
            "from_bottom_mm": hole.from_bottom_mm,
            "diameter_mm": hole.diameter_mm,
        }
        yield Look(f"hole {hole.hole + 1}", "drill", about)
    yield Look(MOUNTED, "mount")


def _last_looks(no_plugs: dict[str, NoPlug]) -> Iterable[Look]:
    steps: dict[str, str] = {}
    for key, each in no_plugs.items():
        steps.setdefault(each.plug, key)
    for plug, key in steps.items():
        yield Look(last_look_key(plug), "last look", {"step": key})


def last_look_key(plug: str) -> str:
    """The name of the last look before the wires of a plug are cut, stripped or crimped: one for all of them."""
    return f"last {plug}"


def _second(wiring: WiringOf | None) -> Iterable[Look]:
    for each in second_looks(wiring.plan) if wiring else ():
        yield Look(f"second {each.key}", "second look", {"why": each.why, "wire": each.wire, "place": each.place})


def _places(case: Case) -> Iterable[Look]:
    """Loose parts and leads whose place was logged as they came off; and no lead pinched."""
    rows = sorted(case.state["removed"].items(), key=lambda each: each[1]["n"])
    for name, each in rows:
        if each["kind"] in ("part", "routing"):
            yield Look(f"place {name}", "place", {"what": each["what"], "place": each["place"], "kind": each["kind"]})
    yield Look(PINCHED, "place", {"what": "No lead pinched, none near a moving or hot part", "kind": "routing"})


def _powered(case: Case) -> Iterable[Look]:
    """What is ticked with the supply on: the panels keyed in, and what a learning run needs beforehand."""
    for index, need in enumerate(new_board(case).document.get("entering", {}).get("before", ())):
        yield Look(f"{WITH_POWER}entering {index}", "entering", {"need": need})
    presses = press_plan(case)
    for index, _ in enumerate(presses.panels if presses else ()):
        yield Look(f"{WITH_POWER}panel {index}", "panel", {"panel": index})
    if learns(case):
        needs = new_board(case).document["learning"].get("needs", ())
        for index, need in enumerate(needs):
            yield Look(f"{WITH_POWER}learning {index}", "learning", {"need": need})


def by_hand(fitting: Fitting) -> list[str]:
    """The elements that are set with the board in the hand; panels set the others once there is power."""
    panels = {name for panel in fitting.replacement.document.get("panels", ()) for name in panel_elements(panel)}
    panels |= set(fitting.learned)
    return [each.id for each in fitting.replacement.elements if each.id not in panels]
