"""The wiring plan and the key presses, for the screen, as documents, and as one sheet to print."""

from collections import Counter

from twincore.carry_over import Comparison
from twincore.choose import Question
from twincore.job.case import Case, new_board, original_of
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.placing import plugs_offered
from twincore.job.shared.presses import press_plan
from twincore.job.shared.wires import SizeJudged, WiringOf, sizes_of, step_key, wiring_plan
from twincore.job.targets.carry_over import PlacedKept
from twincore.job.targets.record import WireKept
from twincore.profile import Board, Family, written_positions
from twincore.profile.values import plain
from twincore.wiring import ORDERS, Step, WirePlan, plugs_of
from twinshown.refusals import Refused
from twinshown.steps.carry_over.schemas import (
    FreePinShown,
    LeafletRow,
    LeafletShown,
    PanelShown,
    PlugOffered,
    PressesShown,
    PutByHand,
    SizeShown,
    StepLine,
    TablePin,
    TrapShown,
    WireShown,
    WiringShown,
)
from twinshown.words.findings import MINDED, findings_shown
from twinshown.words.fit import FitWords
from twinshown.words.presses import press_lines
from twinshown.words.questions import question_asked
from twinshown.words.rows import row_notes

MOST_ASKED = 6
"""Facts that are asked for at once."""


def wiring_shown(case: Case) -> WiringShown:
    """Where every wire goes and what is put on the pins that stay free."""
    found = _wiring(case)
    plan = found.plan
    family, original = original_of(case)
    titles = {seat.adapter.id: seat.adapter.title for seat in plan.seats if seat.adapter}
    by_id = {each.wire.id: each for each in plan.wires}
    alone = Counter(each.from_pin.place for each in plan.wires)
    return WiringShown(
        wires=[_wire(each, titles, alone[each.from_pin.place] == 1) for each in plan.wires],
        free=[
            FreePinShown(place=e.pin.place, title=e.pin.title, treatment=e.treatment, detail=e.detail) for e in plan.free
        ],
        traps=[
            TrapShown(
                plug=trap.plug, socket=trap.socket, style=trap.style,
                pins=[f"{pin}: {_title(family, one)} against {_title(family, two)}" for pin, one, two in trap.pins],
            )
            for trap in plan.traps
        ],
        steps=[_step(each, by_id, titles, case) for each in plan.steps],
        findings=findings_shown(case, found.findings, family),
        adapters=sorted(titles.values()),
        sizes=[_size(each, family) for each in sizes_of(case)],
        order=case.state.get("order") or ORDERS[0],
        orders=list(ORDERS),
        wire_sums=plan.counts(),
        pin_sums=plan.pin_counts(),
        original_pins=_table(original, family),
        replacement_pins=_table(new_board(case), family),
        offered=[PlugOffered(plug=plug, socket=socket) for plug, socket in plugs_offered(case, plan).items()],
        by_hand=_put_by_hand(case),
        leads=_leads(case),
    )  # fmt: skip


def leaflet_shown(case: Case) -> LeafletShown:
    """The rows of the new board's tables that hold here or could, and what would decide."""
    comparison = comparison_of(case)
    table = comparison.by_table()
    assert table is not None  # the school of the table always looks
    words = FitWords(comparison.family, {})
    whole = table.record if table.settled else None
    return LeafletShown(
        rows=[
            LeafletRow(
                chart=row.title,
                page=row.page,
                row=row.row + 1,
                positions=plain(row.positions),
                use=list(row.use),
                notes=row_notes(row),
            )
            for row in table.holding
        ],
        sets=plain(written_positions(comparison.replacement, whole.points)) if whole else None,
        whole=table.settled,
        clash=list(table.clash),
        asks=[question_asked(Question(name, table.wanted(name)), words) for name in table.missing[:MOST_ASKED]],
        possible=len(table.possible),
        tables=bool(comparison.replacement.charts),
        against=[] if table.holding or table.possible else _facts_asked(comparison, words),
    )


def _facts_asked(comparison: Comparison, words: FitWords) -> list[str]:
    """The facts of this machine that the rows of the setting tables ask about, in words."""
    rows = (row for chart in comparison.replacement.charts for row in chart.rows)
    asked = dict.fromkeys(name for row in rows for name in row.conditions)
    return [f"{words.fact(name)} {plain(comparison.facts[name])}" for name in asked if name in comparison.facts]


def _wiring(case: Case) -> WiringOf:
    found = wiring_plan(case)
    if found is None:
        raise Refused("There is no wiring plan: the profile of one of the boards names no plugs. Carry wire by wire.")
    return found


def _title(family: Family, signal: str | None) -> str:
    return family.titles.get(signal, signal) if signal else "nothing"


def _table(board: Board, family: Family) -> list[TablePin]:
    return [
        TablePin(place=pin.place, mark=pin.mark, title=pin.title)
        for plug in plugs_of(board, family).values()
        for pin in plug.pins.values()
    ]


def _size(each: SizeJudged, family: Family) -> SizeShown:
    judged = each.judged
    allowed = f", it may carry {judged.allowed_a:g} A" if judged.allowed_a is not None else ""
    drop = f", {judged.drop_v:.1f} V are lost on the way" if judged.drop_v is not None else ""
    words = f"{_title(family, each.signal)}, {each.load_a:g} A: {judged.verdict}{allowed}{drop}"
    return SizeShown(place=each.place, verdict=judged.verdict, words=words)


def _put_by_hand(case: Case) -> list[PutByHand]:
    """What somebody put by hand, plugs first."""
    found = [
        PutByHand(
            kind="plug_put", name=name, words=f"Plug {name} complete onto {said['to']}", why=said["because"], by=said["by"],
            at=said["at"],
        )
        for name, said in case.state["plugs_put"].items()
    ]  # fmt: skip
    wires = case.state["wires"]
    for name, said in case.state["placed"].items():
        of = wires.get(name)
        place = f"{of['connector']}.{of['pin']}" if of else name
        found.append(
            PutByHand(
                kind="placed", name=name, words=f"{_called(of, place)}: {_put_words(said)}", why=said["because"], by=said["by"],
                at=said["at"],
            )
        )  # fmt: skip
    return found


def _called(wire: WireKept | None, place: str) -> str:
    return f"Wire {wire['tag']} of {place}" if wire and wire.get("tag") else f"Wire of {place}"


def _put_words(said: PlacedKept) -> str:
    if said.get("joined"):
        return f"joined with the wire of {said['joined']}"
    if not said["to"]:
        return "insulate and tie back"
    through = f" through {said['lead']}" if said.get("lead") else ""
    return f"to {', linked on to '.join(said['to'])}{through}"


def _leads(case: Case) -> list[str]:
    """What the row of the setting table that is followed says is used with it."""
    rows = leaflet_shown(case).rows if case.original is not None else []
    return sorted({use for row in rows for use in row.use})


def _wire(each: WirePlan, titles: dict[str, str], alone: bool) -> WireShown:
    wire = each.wire
    return WireShown(
        id=wire.id, tag=wire.tag, colour=wire.colour, goes_to=wire.goes_to, carries=each.from_pin.title,
        from_place=each.from_pin.place, from_mark=each.from_pin.mark,
        to_place=each.to_pin.place if each.to_pin else None, to_mark=each.to_pin.mark if each.to_pin else "",
        treatment=each.treatment, adapter=titles.get(each.adapter or "", each.adapter or ""),
        marks=[MINDED[m] for m in each.marks], recorded=wire.recorded, name=each.from_pin.place if alone else wire.id,
        also=[pin.place for pin in each.also],
    )  # fmt: skip


def _step(step: Step, wires: dict[str, WirePlan], titles: dict[str, str], case: Case) -> StepLine:
    key = step_key(step)
    minded = dict.fromkeys(MINDED[m] for name in step.wires for m in wires[name].marks)
    return StepLine(
        number=step.number, key=key, kind=step.kind, words=step_words(step, wires, titles), wires=list(step.wires),
        done=key in case.state["ticked"], minded=list(minded),
    )  # fmt: skip


def step_words(step: Step, wires: dict[str, WirePlan], titles: dict[str, str]) -> str:
    """One step of the wiring plan in words; `wires` and `titles` of adapters by their ids."""
    if step.kind == "link":
        return f"Put the link on {step.place}"
    first = wires[step.wires[0]]
    to = first.to_pin
    if step.plug is not None:
        through = f" through {titles[first.adapter]}" if first.adapter else ""
        return f"Move plug {step.plug} complete{through} to {to.connector if to else ''}"
    name = f"Wire {first.wire.tag}" if first.wire.tag else f"Wire of {first.from_pin.place}"
    carries = "" if first.from_pin.carries is None else f" ({first.from_pin.title})"
    if first.joined is not None and to is not None:
        other = wires[first.joined].from_pin.place
        return f"{name}: joined with the wire of {other}, to {to.place}{carries}"
    match first.treatment:
        case "tied back":
            return f"{name}{carries}: insulate and tie back"
        case "no":
            return f"{name}{carries}: must not go onto this board; decide first"
    if "new device" in first.marks:
        return f"{name} ({first.from_pin.title}): comes off with the old part; the new part’s lead goes to {to.place if to else ''}"
    end = ", new end" if first.treatment == "new end" else ""
    also = "".join(f", linked on to {pin.place}" for pin in first.also)
    through = f" through {titles.get(first.adapter, first.adapter)}" if first.adapter else ""
    return f"{name}: from {first.from_pin.place} to {to.place if to else ''}{also}{through}{carries}{end}"


def presses_shown(case: Case) -> PressesShown:
    """The presses from the factory's state to the plan."""
    plan = press_plan(case)
    if plan is None:
        return PressesShown(panels=[], by_hand=[], unasked=[], count=0, why_not="There are no positions to key in yet.")
    return PressesShown(
        panels=[
            PanelShown(
                title=each.panel.title or each.panel.kind, sets=list(each.sets), count=each.count,
                presses=press_lines(each.presses),
            )
            for each in plan.panels
        ],
        by_hand=list(plan.by_hand), unasked=list(plan.unasked),
        count=plan.count,
        why_not="",
    )  # fmt: skip
