"""What was done to the machine besides the settings, in words: for the job sheet, and the label in the cabinet."""

from itertools import groupby

from twincore.job.case import Case
from twincore.job.rules.state import State
from twincore.job.shared.work_done import LinkDone, PartDone, WireDone, WorkDone, work_done
from twincore.wiring import Pin
from twinshown.steps.hand_over.schemas import RowLine, WireLine, WorkShown
from twinshown.words.findings import MINDED
from twinshown.words.rows import row_notes

HOW = {
    "straight": "wire by wire", "single": "wire by wire", "adapter": "through an adapter cable", "new end": "new end crimped on",
    "tied back": "insulated and tied back", "no": "left off: it must not go onto this board",
    "joined": "joined with another wire",
}  # fmt: skip
PART_STATES = {
    "to move": "still to be moved",
    "moved": "moved across",
    "stays": "stays where it was",
    "not there": "was not there",
}
NOT_TICKED = "not ticked off"


def work_shown(case: Case) -> WorkShown:
    """Where every wire went, what was tied back, linked, drilled and moved, and which row was followed."""
    done = work_done(case)
    return WorkShown(
        plugs=_plugs(done),
        wires=[_wire(each, case.state) for each in done.wires],
        tied_back=[_tied_back(each) for each in done.tied_back],
        links=[_link(each) for each in done.links],
        adapters=list(done.adapters),
        holes=[
            f"{each.diameter_mm:g} mm, {each.from_left_mm:g} mm from the left and {each.from_bottom_mm:g} mm from the lower edge"
            for each in done.holes
        ],
        parts=[_part(each) for each in done.moved],
        rows=[
            RowLine(table=e.title, page=e.page, row=e.row + 1, use=list(e.use), notes=row_notes(e)) for e in done.rows
        ],
    )


def at(pin: Pin) -> str:
    """A pin as it is found at the board: its plug and number, and the mark that is printed there."""
    return f"{pin.place} {pin.mark}".rstrip() if pin.mark != pin.place.rpartition(".")[2] else pin.place


def _plugs(done: WorkDone) -> list[str]:
    """The plugs that went across complete, each in a line."""
    told = []
    whole = sorted((each for each in done.wires if each.whole), key=lambda each: each.plan.wire.connector)
    for plug, wires in groupby(whole, key=lambda each: each.plan.wire.connector):
        rows = list(wires)
        to = rows[0].plan.to_pin
        how = " through an adapter cable" if rows[0].plan.adapter else ""
        count = f"{len(rows)} wire{'' if len(rows) == 1 else 's'}"
        ticked = "" if all(each.done for each in rows) else f"; {NOT_TICKED}"
        told.append(f"{plug} complete onto {to.connector if to else ''}{how} ({count}{ticked})")
    return told


def _wire(each: WireDone, state: State) -> WireLine:
    plan = each.plan
    how = "with its plug" if each.whole and not plan.adapter else HOW[plan.treatment]
    return WireLine(
        was=at(plan.from_pin), now=", ".join(at(pin) for pin in (plan.to_pin, *plan.also) if pin), tag=plan.wire.tag, colour=plan.wire.colour,
        carries=plan.from_pin.title, how=how if each.done else f"{how}; {NOT_TICKED}",
        minded=[_by_whom(each, state) if mark == "by hand" else MINDED[mark] for mark in plan.marks], whole=each.whole, done=each.done,
    )  # fmt: skip


def _by_whom(each: WireDone, state: State) -> str:
    """Who put a wire by hand, and why."""
    wire = each.plan.wire
    placed, plugs = state["placed"], state["plugs_put"]
    said = placed.get(wire.id) or placed.get(f"{wire.connector}.{wire.pin}") or plugs.get(wire.connector)
    if said is None:
        return MINDED["by hand"]
    return f"put by hand by {said['by']}" + (f": {said['because']}" if said["because"] else "")


def _tied_back(each: WireDone) -> str:
    wire, pin = each.plan.wire, each.plan.from_pin
    name = " ".join(word for word in (wire.colour, f"tag {wire.tag}" if wire.tag else "") if word)
    return f"{pin.title}, was on {at(pin)}" + (f" ({name})" if name else "") + ("" if each.done else f"; {NOT_TICKED}")


def _link(each: LinkDone) -> str:
    pin = each.pin
    return f"{at(pin.pin)}: {pin.detail or 'link'}" + ("" if each.done else f"; {NOT_TICKED}")


def _part(each: PartDone) -> str:
    return f"{each.what}: {PART_STATES[each.state] if each.state else 'not said'}"
