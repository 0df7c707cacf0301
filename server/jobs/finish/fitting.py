"""Fit: the list of what is done on the dead machine, what needs power, and what of either is still missing."""

from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Any

from bench.comparing import record_of
from catalogue.profiles import board_profile, family_profile
from config.errors import Refused
from jobs.comparison import comparison_of
from jobs.front.facts import fact_values
from jobs.models import Job
from jobs.work.carrying import WiringOf, adapters_at_hand, press_plan, step_key, wiring_plan
from jobs.work.recording import original_of, remembered, wiring_of
from twincore.job.targets.fit import WITH_POWER
from twincore.match import KitLine, Mounting, best_mounting, fitting_of, kit_lines
from twincore.profile import Board, Family, Record, written_positions
from twincore.profile.values import plain
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


def fitting_of_job(job: Job) -> Fitting:
    """What is to be fitted, and how it is looked at. The plan is confirmed."""
    comparison = comparison_of(job)
    plan = comparison.plan_record()
    if plan is None:
        raise Refused("There is no plan to fit by. Carry over first.")
    wiring = wiring_plan(job)
    mounting = _mounting(job)
    no_plugs = _no_plugs(job, wiring)
    looks = (*_mounting_looks(mounting), *_last_looks(no_plugs), *_second(wiring), *_places(job), *_powered(job))
    kit = tuple(kit_lines(comparison.replacement.document.get("kit", ()), fact_values(job)))
    return Fitting(comparison.replacement, plan, kit + _leads(wiring), wiring, mounting, looks, no_plugs)


def _mounting(job: Job) -> Mounting | None:
    assert job.original_revision_id and job.replacement_revision_id  # fitting waits for the plan
    mine = fitting_of(board_profile(job.original_revision_id).document)
    its = fitting_of(board_profile(job.replacement_revision_id).document)
    return best_mounting(mine.plate, its.plate) if mine.plate and its.plate else None


def _leads(wiring: WiringOf | None) -> tuple[KitLine, ...]:
    """What the wiring plan takes besides the kit: adapter leads, new ends, caps for what is tied back, links."""
    if wiring is None:
        return ()
    plan = wiring.plan
    titles = [seat.adapter.title for seat in plan.seats if seat.adapter]
    counts = plan.counts()
    links = sum(each.treatment == "link" for each in plan.free)
    lines = [KitLine(title, titles.count(title), "needed") for title in dict.fromkeys(titles)]
    for item, count in (("new ends to crimp", counts["new end"]), ("caps for wires tied back", counts["tied back"]),
                        ("links", links)):  # fmt: skip
        if count:
            lines.append(KitLine(item, count, "needed"))
    return tuple(lines)


def _no_plugs(job: Job, wiring: WiringOf | None) -> dict[str, NoPlug]:
    if wiring is None:
        return {}
    family, original = original_of(job)
    by_id = {each.wire.id: each for each in wiring.plan.wires}
    plugs = {
        step_key(step): by_id[step.wires[0]].wire.connector
        for step in wiring.plan.steps
        if step.wires and by_id[step.wires[0]].treatment in IRREVERSIBLE
    }
    if not plugs:
        return {}
    record, replacement, adapters = wiring_of(job), board_profile(replacement_of(job)), adapters_at_hand()
    by_plug = {
        plug: no_plug_for(wiring.plan, plug, original, record, replacement, family, adapters)
        for plug in set(plugs.values())
    }
    return {key: by_plug[plug] for key, plug in plugs.items()}


def replacement_of(job: Job) -> int:
    """The revision of the board going in."""
    assert job.replacement_revision_id is not None  # fitting waits for the choice
    return job.replacement_revision_id


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
    for key in no_plugs:
        yield Look(last_look_key(key), "last look", {"step": key})


def last_look_key(step: str) -> str:
    """The name of the last look before a step that cannot be taken back."""
    return f"last {step}"


def _second(wiring: WiringOf | None) -> Iterable[Look]:
    for each in second_looks(wiring.plan) if wiring else ():
        yield Look(f"second {each.key}", "second look", {"why": each.why, "wire": each.wire, "place": each.place})


def _places(job: Job) -> Iterable[Look]:
    """Loose parts and leads whose place was logged as they came off; and no lead pinched."""
    rows = sorted(job.state["removed"].items(), key=lambda each: each[1]["n"])
    for name, each in rows:
        if each["kind"] in ("part", "routing"):
            yield Look(f"place {name}", "place", {"what": each["what"], "place": each["place"], "kind": each["kind"]})
    yield Look(PINCHED, "place", {"what": "No lead pinched, none near a moving or hot part", "kind": "routing"})


def _powered(job: Job) -> Iterable[Look]:
    """What is ticked with the supply on: the panels keyed in, and what a learning run needs beforehand."""
    presses = press_plan(job)
    for index, _ in enumerate(presses.panels if presses else ()):
        yield Look(f"{WITH_POWER}panel {index}", "panel", {"panel": index})
    if learns(job):
        needs = board_profile(replacement_of(job)).document["learning"].get("needs", ())
        for index, need in enumerate(needs):
            yield Look(f"{WITH_POWER}learning {index}", "learning", {"need": need})


def learns(job: Job) -> bool:
    """Whether the new board is to learn here: it can, and that school is followed for anything."""
    document = board_profile(replacement_of(job)).document
    followed = {job.state["school"], *job.state["decisions"].values()}
    return "learning" in document and "learning" in followed


def by_hand(fitting: Fitting) -> list[str]:
    """The elements that are set with the board in the hand; panels set the others once there is power."""
    panels = {name for panel in fitting.replacement.document.get("panels", ()) for name in _panel_items(panel)}
    return [each.id for each in fitting.replacement.elements if each.id not in panels]


def _panel_items(panel: dict[str, Any]) -> list[str]:
    return list(panel["items"]) if panel["kind"] == "menu" else [panel["element"]]


def planned_positions(fitting: Fitting) -> dict[str, Any]:
    """What every element of the new board is to be set to, as written."""
    found: dict[str, Any] = plain(written_positions(fitting.replacement, fitting.plan.points))
    return found


def differing_readbacks(job: Job, fitting: Fitting) -> list[str]:
    """Elements of the new board that read otherwise than planned."""
    plan = planned_positions(fitting)
    return [name for name, each in job.state["readbacks"].items() if name in plan and plan[name] != each["value"]]


def missing_dead(job: Job, fitting: Fitting) -> list[str]:
    """What is not done yet on the dead machine, in words."""
    state = job.state
    found = []
    unset = [name for name in by_hand(fitting) if name not in state["readbacks"]]
    if unset:
        found.append(f"set and read back: {', '.join(unset)}")
    if wrong := differing_readbacks(job, fitting):
        found.append(f"reads otherwise than planned: {', '.join(wrong)}")
    short = [
        line.item for line in fitting.kit if line.needed == "needed" and state["kit"].get(line.item, 0) < line.count
    ]
    if short:
        found.append(f"not counted or missing from the kit: {', '.join(short)}")
    steps = fitting.wiring.plan.steps if fitting.wiring else ()
    if left := sum(step_key(step) not in state["ticked"] for step in steps):
        found.append(f"{left} of {len(steps)} wires, plugs and links not moved")
    open_looks = [
        look for look in fitting.looks if not look.key.startswith(WITH_POWER) and look.key not in state["looks"]
    ]
    groups = {"drill": "holes not drilled", "mount": "the board not mounted", "last look": "last looks open",
              "second look": "second looks open", "place": "places and leads not looked at"}  # fmt: skip
    for group, words in groups.items():
        if count := sum(look.group == group for look in open_looks):
            found.append(words if group == "mount" else f"{words}: {count}")
    if off := [each["what"] for each in state["removed"].values() if not each["back"]]:
        found.append(f"taken off and not back on: {', '.join(off[:6])}")
    if moving := [e["what"] for e in original_of(job)[1].document.get("moves", ())
                  if state["moving"].get(e["id"]) == "to move"]:  # fmt: skip
        found.append(f"not moved across: {', '.join(moving)}")
    return found


def to_reenter(job: Job) -> list[dict[str, Any]]:
    """What the old board remembered and the new one has to be told; counters of the past are not."""
    return [
        each for each in remembered(original_of(job)[1]) if not each.get("history") and each["id"] in job.state["kept"]
    ]


def missing_powered(job: Job, fitting: Fitting) -> list[str]:
    """What is not done yet with the supply on, in words."""
    state = job.state
    found = []
    hand = by_hand(fitting)
    unread = [
        each.id for each in fitting.replacement.elements if each.id not in state["readbacks"] and each.id not in hand
    ]
    if unread:
        found.append(f"not read back: {', '.join(unread)}")
    if wrong := differing_readbacks(job, fitting):
        found.append(f"reads otherwise than planned: {', '.join(wrong)}")
    if learns(job) and state["learned"] is None:
        found.append("the learning run")
    if left := [each["what"] for each in to_reenter(job) if each["id"] not in state["reentered"]]:
        found.append(f"not entered again: {', '.join(left)}")
    return found


def as_left(job: Job) -> dict[str, Any]:
    """How the new board stands: as read back, and as planned where nobody read it back."""
    fitting = fitting_of_job(job)
    read = {name: each["value"] for name, each in job.state["readbacks"].items()}
    found: dict[str, Any] = {name: read.get(name, value) for name, value in planned_positions(fitting).items()}
    return found


def left_in_order(job: Job) -> dict[str, Any]:
    """How the new board was left, element by element as the board has them; storage keeps no order."""
    left: dict[str, Any] = job.state.get("left") or {}
    return {each.id: left[each.id] for each in board_profile(replacement_of(job)).elements if each.id in left}


def left_record(job: Job) -> Record:
    """The new board as it was left, for what is proved of it."""
    return record_of(board_profile(replacement_of(job)), job.state["left"] or as_left(job))


def family_of(job: Job) -> Family:
    """The family of a job whose boards are chosen."""
    assert job.family_revision_id is not None  # fitting waits for both boards
    return family_profile(job.family_revision_id)
