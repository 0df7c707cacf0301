"""What was done to the machine with the new board: where every wire went, what was tied back, linked, drilled, moved and followed."""

from dataclasses import dataclass

from twincore.choose import NewHole
from twincore.job.case import Case, original_of
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.taking import mounting_of
from twincore.job.shared.wires import step_key, wiring_plan
from twincore.job.targets.record import PartState
from twincore.settings import ChartRow
from twincore.wiring import FreePin, WirePlan


@dataclass(frozen=True, slots=True)
class WireDone:
    """A wire of the plan, and whether somebody ticked it off."""

    plan: WirePlan
    whole: bool
    """Whether it went across with its plug."""
    done: bool


@dataclass(frozen=True, slots=True)
class LinkDone:
    """A link on a pin of the new board that stays free, and whether somebody ticked it off."""

    pin: FreePin
    done: bool


@dataclass(frozen=True, slots=True)
class PartDone:
    """A part of the old board that goes across, and what became of it; None where nobody said."""

    what: str
    state: PartState | None


@dataclass(frozen=True, slots=True)
class WorkDone:
    """All that was done to the machine besides the settings."""

    wires: tuple[WireDone, ...]
    links: tuple[LinkDone, ...]
    adapters: tuple[str, ...]
    """The adapter cables that were used, by title."""
    holes: tuple[NewHole, ...]
    """Holes that were drilled."""
    moved: tuple[PartDone, ...]
    rows: tuple[ChartRow, ...]
    """The rows of the setting table that were followed."""

    @property
    def tied_back(self) -> tuple[WireDone, ...]:
        """Wires that have no place on the new board and hang insulated in the cabinet."""
        return tuple(each for each in self.wires if each.plan.treatment == "tied back")


def work_done(case: Case) -> WorkDone:
    """What was done to the machine, as far as it was ticked off; of a job whose new board is chosen."""
    state, found = case.state, wiring_plan(case)
    plan = found.plan if found else None
    ticked = {step_key(step): step for step in (plan.steps if plan else ()) if step_key(step) in state["ticked"]}
    done = {name for step in ticked.values() for name in step.wires}
    whole = {name for step in (plan.steps if plan else ()) if step.plug is not None for name in step.wires}
    places = {step.place for step in ticked.values() if step.place is not None}
    mounting = mounting_of(case)
    comparison = comparison_of(case)
    table = comparison.by_table()
    followed = "table" in {comparison.school or comparison.proposed, *comparison.decisions.values()}
    return WorkDone(
        wires=tuple(WireDone(each, each.wire.id in whole, each.wire.id in done) for each in (plan.wires if plan else ())),
        links=tuple(
            LinkDone(each, each.pin.place in places) for each in (plan.free if plan else ()) if each.treatment == "link"
        ),
        adapters=tuple(dict.fromkeys([
            *(seat.adapter.title for seat in (plan.seats if plan else ()) if seat.adapter),
            *(each.adapter for each in (plan.wires if plan else ()) if each.adapter and "by hand" in each.marks),
        ])),
        holes=tuple(each for each in (mounting.new_holes if mounting else ()) if state["looks"].get(f"hole {each.hole + 1}")),
        moved=tuple(
            PartDone(each["what"], state["moving"].get(each["id"])) for each in original_of(case)[1].document.get("moves", ())
        ),
        rows=table.holding if table is not None and followed else (),
    )  # fmt: skip
