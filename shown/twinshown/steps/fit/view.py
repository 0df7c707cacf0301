"""Fit, for the screen."""

from collections.abc import Callable
from uuid import UUID

from twincore.choose import Mounting
from twincore.job.case import Case, original_of
from twincore.job.shared.fitting import Fitting, Look, by_hand, fitting_of_job, last_look_key
from twincore.job.shared.holds import points_of
from twincore.job.shared.kit_steps import KitStep, kit_steps
from twincore.job.shared.left import planned_positions
from twincore.job.shared.telling import entered_otherwise, learns, to_reenter, wanted_of
from twincore.job.shared.unfitted import differing_readbacks, missing_beside, missing_dead, missing_powered
from twincore.profile import Family
from twincore.wiring import NoPlug
from twinshown.steps.fit.schemas import (
    AlikeShown,
    FittingShown,
    KitShown,
    KitStepShown,
    LearningShown,
    LookShown,
    MountingShown,
    MovingPart,
    NoPlugShown,
    ReleaseShown,
)
from twinshown.words.findings import MINDED
from twinshown.words.fit import FitWords
from twinshown.words.schemas import HoleShown, RememberedShown

SIDES = ("left", "bottom", "right", "top")


def fitting_shown(case: Case, port: bool, alike: list[AlikeShown], leaflet: Callable[[], list[UUID]]) -> FittingShown:
    """What is to be fitted and looked at, what is done, and what is missing before power and after. `port` says whether the new
    board's service port can be asked, `alike` which boards are easily taken for it, `leaflet` what pictures there are of its leaflet.
    """
    found = fitting_of_job(case)
    family = original_of(case)[0]
    words = FitWords(family, {})
    document = found.replacement.document
    hand = by_hand(found)
    steps = kit_steps(case)
    entering = document.get("entering", {})
    learning = document.get("learning", {}) if learns(case) else None
    return FittingShown(
        kit=[
            KitShown(
                item=line.item, count=line.count, needed=line.needed, facts=[words.fact(each) for each in line.facts],
                there=case.state["kit"].get(line.item),
            )
            for line in found.kit
        ],
        kit_steps=[_kit_step(each, words) for each in steps],
        leaflet=leaflet() if steps else [],
        alike=alike,
        by_hand=hand,
        by_panel=[each.id for each in found.replacement.elements if each.id not in hand],
        learned=list(found.learned),
        planned=planned_positions(case),
        differing=differing_readbacks(case, found),
        mounting=_mounting(found.mounting) if found.mounting else None,
        looks=[_look(each, found, case, family) for each in found.looks],
        no_plugs=[NoPlugShown(step=key, look=last_look_key(each.plug), words=no_plug_words(each, family)) for key, each in found.no_plugs.items()],
        release=[ReleaseShown(id=each.id, title=each.title) for each in points_of(case)[::-1]],
        reenter=[
            RememberedShown(
                id=each["id"], what=each["what"], unit=each.get("unit", ""), read=each.get("read", ""),
                enter=each.get("enter", ""), rows=each.get("rows", False), items=list(each.get("items", ())), value=wanted_of(case, each),
            )
            for each in to_reenter(case)
        ],
        entered=case.state["reentered"],
        otherwise=[each["id"] for each in entered_otherwise(case)],
        moving=[
            MovingPart(
                id=each["id"], what=each["what"], caution=each.get("caution", ""), place=each.get("place", ""),
                value=case.state["moving"].get(each["id"]),
            )
            for each in original_of(case)[1].document.get("moves", ())
        ],
        cleared=entering.get("cleared", ""),
        order=list(entering.get("order", ())),
        learning=None
        if learning is None
        else LearningShown(
            told_by=learning.get("told_by", ""), can_be_stopped=learning.get("can_be_stopped", True),
            cycles=learning.get("cycles"), shows=learning.get("shows", ""),
        ),
        port=port,
        missing_dead=missing_dead(case, found),
        missing_beside=missing_beside(case),
        missing_powered=missing_powered(case, found),
    )  # fmt: skip


def _kit_step(step: KitStep, words: FitWords) -> KitStepShown:
    return KitStepShown(
        id=step.id, what=step.what, measure=step.measure.words if step.measure else "", route=step.route,
        caution=step.caution, check=step.check, picture=step.picture, facts=[words.fact(each) for each in step.facts],
    )  # fmt: skip


def _mounting(mounting: Mounting) -> MountingShown:
    over = [f"{reach:g} mm beyond the old board at the {side}" for side, reach in zip(SIDES, mounting.over_mm, strict=False)
            if reach and reach > 0]  # fmt: skip
    if mounting.over_mm[4]:
        over.append(f"{mounting.over_mm[4]:g} mm higher than the old board")
    return MountingShown(
        turn=mounting.turn, right_mm=mounting.shift_mm[0], up_mm=mounting.shift_mm[1], serving=len(mounting.pairs),
        new_holes=[
            HoleShown(from_left_mm=h.from_left_mm, from_bottom_mm=h.from_bottom_mm, diameter_mm=h.diameter_mm)
            for h in mounting.new_holes
        ],
        beyond=over,
    )  # fmt: skip


def _look(look: Look, found: Fitting, case: Case, family: Family) -> LookShown:
    words, detail = _look_words(look, found, family)
    return LookShown(key=look.key, group=look.group, words=words, detail=detail, done=look.key in case.state["looks"])


def _look_words(look: Look, found: Fitting, family: Family) -> tuple[str, str]:
    about = look.about
    match look.group:
        case "drill":
            where = (
                f"{about['from_left_mm']:g} mm from the left edge, {about['from_bottom_mm']:g} mm from the bottom edge"
            )
            return (
                f"New hole of {about['diameter_mm']:g} mm",
                f"{where} of the old board’s seat. Is there no hole that serves?",
            )
        case "hand":
            return about["what"], ""
        case "mount":
            return "The new board sits on its holes, nothing beneath it", "What is near it stays clear of it"
        case "last look":
            return f"{found.no_plugs[about['step']].plug}: is there no plug that fits?", "; ".join(
                no_plug_words(found.no_plugs[about["step"]], family)
            )
        case "second look":
            return _second_words(about, found)
        case "place":
            return about["what"], about.get("place", "") or (
                "routed as before" if about["kind"] == "routing" else "in its exact place"
            )
        case "panel":
            return "Keyed in, every display as it must be", ""
    return about["need"], "before anything is keyed in" if look.group == "entering" else "before the learning run"


def _second_words(about: dict[str, str], found: Fitting) -> tuple[str, str]:
    if about["why"] == "link":
        return f"The link on {about['place']}", "an input without a device"
    assert found.wiring is not None  # looks of this group come from the wiring plan
    wire = next(each for each in found.wiring.plan.wires if each.wire.id == about["wire"])
    name = f"Wire {wire.wire.tag}" if wire.wire.tag else f"The wire of {wire.from_pin.place}"
    if about["why"] == "tied back":
        return f"{name}: insulated and tied back", wire.from_pin.title
    return f"{name} on {about['place']}", MINDED[about["why"]]


def no_plug_words(each: NoPlug, family: Family) -> list[str]:
    """Why a plug does not simply go on, in words."""
    words = []
    for trap in each.traps:
        pins = ", ".join(
            f"pin {pin}: {_title(family, one)} against {_title(family, two)}" for pin, one, two in trap.pins[:4]
        )
        words.append(f"{each.plug} would go into {trap.socket} ({trap.style}), but the pins differ: {pins}")
    for sockets, adapter in each.other_ways:
        words.append(
            f"{each.plug} could go onto {sockets}{f' through {adapter}' if adapter else ''}; another plug has that place"
        )
    return words or [
        f"No plug of the new board and no adapter at hand takes {each.plug} ({each.style or 'style not known'})"
    ]


def _title(family: Family, signal: str | None) -> str:
    return family.titles.get(signal, signal) if signal else "nothing"
