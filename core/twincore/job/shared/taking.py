"""What is taken along to a machine: told as soon as the machine and the new board are known, before anybody opens it."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Any, Literal

from twincore.carry_over import Comparison
from twincore.choose import AdapterLead, KitLine, Mounting, best_mounting, fitting_of, kit_lines
from twincore.job.case import Case, new_board, original_of
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.facts import fact_values
from twincore.job.shared.wires import wiring_of
from twincore.profile import as_shipped, written_positions
from twincore.profile.values import plain
from twincore.wiring import Adapter, WiringPlan, assumed_wiring, carry_wires

Why = Literal["kit", "lead", "companion", "drill"]


@dataclass(frozen=True, slots=True)
class Taken:
    """One thing to have at hand: out of the kit or the leaflet, for the wires, changed along, or to drill with."""

    why: Why
    line: KitLine


@dataclass(frozen=True, slots=True)
class Early:
    """What the new board would be set to as far as is known now; `assumed` where the old one is taken to stand as its maker
    set it, for nothing was read yet. `positions` is None where nothing says.
    """

    positions: dict[str, Any] | None
    school: str
    assumed: bool


def kit_of(case: Case) -> list[KitLine]:
    """The parts of the new board's kit, and those that its leaflet's row names beside them."""
    kit = kit_lines(new_board(case).document.get("kit", ()), fact_values(case))
    table = comparison_of(case).by_table()
    there = {line.item for line in kit}
    return kit + [KitLine(item, 1, "needed") for item in (table.use if table else ()) if item not in there]


def leads_of(plan: WiringPlan | None) -> list[KitLine]:
    """What a wiring plan takes besides the kit: adapter leads, new ends, caps for what is tied back, links."""
    if plan is None:
        return []
    titles = [seat.adapter.title for seat in plan.seats if seat.adapter]
    counts = plan.counts()
    links = sum(each.treatment == "link" for each in plan.free)
    lines = [KitLine(title, titles.count(title), "needed") for title in dict.fromkeys(titles)]
    others = (
        ("new ends to crimp", counts["new end"]),
        ("caps for wires tied back", counts["tied back"]),
        ("links", links),
    )
    return lines + [KitLine(item, count, "needed") for item, count in others if count]


def leads_at_hand(adapters: Iterable[Adapter]) -> list[AdapterLead]:
    """The adapter leads that take one old plug, as candidates are judged by them."""
    return [
        AdapterLead(
            each.title, each.price, next(iter(each.sockets.values())), len(each.plugs),
            {lead.from_pin: (each.plugs[lead.to_end], lead.to_pin) for lead in each.leads},
        )
        for each in adapters
        if len(each.sockets) == 1
    ]  # fmt: skip


def mounting_of(case: Case) -> Mounting | None:
    """How the new board sits where the old one was; None where nobody measured one of them."""
    mine, its = (fitting_of(each.document) for each in (original_of(case)[1], new_board(case)))
    return best_mounting(mine.plate, its.plate) if mine.plate and its.plate else None


def to_take(case: Case) -> list[Taken]:
    """Everything to have at hand; where no wire was recorded, one is assumed on every pin that carries something."""
    mounting = mounting_of(case)
    holes = [f"{each.diameter_mm:g} mm" for each in (mounting.new_holes if mounting else ())]
    companions = [each["item"] for each in new_board(case).document.get("companions", ())]
    kit = kit_of(case)
    in_kit = {line.item for line in kit}
    return [
        *(Taken("kit", line) for line in kit),
        *(Taken("lead", line) for line in leads_of(_early_wiring(case)) if line.item not in in_kit),
        *(Taken("companion", KitLine(item, 1, "needed")) for item in companions if item not in in_kit),
        *(Taken("drill", _drill(each, holes.count(each))) for each in dict.fromkeys(holes)),
    ]


def _drill(diameter: str, count: int) -> KitLine:
    return KitLine(f"drill of {diameter}, for {count} hole{'s' if count > 1 else ''}", 1, "needed")


def _early_wiring(case: Case) -> WiringPlan | None:
    family, original = original_of(case)
    replacement = new_board(case)
    if "connectors" not in original.document or "connectors" not in replacement.document:
        return None
    recorded = wiring_of(case)
    record = recorded if recorded.wires else assumed_wiring(original, family)
    return carry_wires(original, record, replacement, family, case.shelf.adapters)


def early_plan(case: Case) -> Early:
    """How the new board would be set if nothing more were found out."""
    comparison = comparison_of(case)
    read = any(value is not None for value in comparison.found_record().points.values())
    row = comparison.plan_record() if comparison.proposed == "table" or comparison.school == "table" else None
    if not read and row is None:
        comparison = _as_made(comparison)
    record = row or comparison.plan_record()
    positions = None if record is None else dict(plain(written_positions(comparison.replacement, record.points)))
    return Early(positions, comparison.school or comparison.proposed, not read and row is None)


def _as_made(comparison: Comparison) -> Comparison:
    factory = as_shipped(comparison.original)
    return replace(comparison, found=dict(plain(written_positions(comparison.original, factory.points))))
